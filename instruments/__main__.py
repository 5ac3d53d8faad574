"""One stand-in: python -m instruments manometer --url URL --key KEY [--circuit C] [--fault F] [--gusts]."""

import argparse
import random
import time

from instruments.bench import VirtualBench
from instruments.devices import DEVICES
from instruments.send import Sender

_BATCH_S = 0.2
_ASLEEP_S = 1.0


def main() -> None:
    """Measure the bench and send what is measured, until stopped."""
    parser = argparse.ArgumentParser(prog="python -m instruments")
    parser.add_argument("kind", choices=sorted(DEVICES))
    parser.add_argument("--url", required=True)
    parser.add_argument("--key", required=True)
    parser.add_argument("--circuit", default="furnace_condensing_two_stage")
    parser.add_argument("--fault", action="append", default=[])
    parser.add_argument("--gusts", action="store_true", help="wind on the vent: the draft dips now and then")
    parser.add_argument("--seed", type=int, default=1)
    parser.add_argument("--epoch", type=float, default=0.0, help="Unix time at which the bench's life began")
    run(parser.parse_args())


def run(options: argparse.Namespace) -> None:
    """Send batch after batch at the device's own pace."""
    bench = VirtualBench(options.circuit, options.fault, options.seed, options.gusts)
    measure, hertz = DEVICES[options.kind]
    chance = random.Random(f"{options.kind} {options.seed}")
    sender = Sender(options.url, options.key)
    woke = time.monotonic()
    batch: dict[str, dict[str, list[float]]] = {}
    due, send_at = woke, woke + _BATCH_S
    while True:
        now = time.monotonic()
        second = time.time() - options.epoch
        for name, value in measure(bench, second, now - woke, chance).items():
            samples = batch.setdefault(name, {"t": [], "v": []})
            samples["t"].append(now)
            samples["v"].append(value)
        if batch and now >= send_at:
            recording = sender.offer(batch)
            batch, send_at = {}, time.monotonic() + (_BATCH_S if recording else _ASLEEP_S)
        due = max(due + 1 / hertz, time.monotonic())
        time.sleep(max(due - time.monotonic(), 0.0))


if __name__ == "__main__":
    main()
