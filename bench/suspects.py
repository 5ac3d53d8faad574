"""How well and how fast causes are found, against other ways to look, on units that the search does not draw itself."""

from statistics import mean, quantiles

from bench.truth.cases import SORTS, drawn
from bench.truth.hunting import WAYS, Hunt, hunted
from havrin_core.machine.circuit.read import circuit_names

HUNTS = 300


def report() -> None:
    """Print how often the right part came first, wrong parts, what was clear and wrong, calibration, minutes and waits."""
    print(f"hunts ({HUNTS} units; other severities, histories, moments; unlisted, two at once, nothing wrong)")
    names = circuit_names()
    for name, way in WAYS.items():
        found = [hunted(drawn(names[seed % len(names)], 5000 + seed), way) for seed in range(HUNTS)]
        print(f"  {name:16} {_said(found)}")
        if name == "what is offered":
            for sort in SORTS:
                print(f"      {sort:16} {_said([hunt for hunt in found if hunt.sort == sort])}")


def _said(found: list[Hunt]) -> str:
    count = len(found)
    sure = [right for hunt in found for right in hunt.sure]
    waits = [wait for hunt in found for wait in hunt.waits_s]
    told = (
        f"right first {100 * mean(h.right_first for h in found):5.1f} %"
        f"   wrong parts {100 * sum(h.wrong_fitted for h in found) / count:5.1f} per 100"
        f"   minutes {mean(h.minutes for h in found):5.1f}   cured {100 * mean(h.cured for h in found):5.1f} %"
    )
    if waits:
        told += f"   clear and wrong {sum(h.clear_and_wrong for h in found)}"
        told += f"   at 90 %: right {100 * mean(sure):.0f} % of {len(sure)}" if sure else ""
        told += f"   p95 wait {1000 * quantiles(waits, n=20)[-1]:.0f} ms"
    return told + f"   ({count})"
