"""Run all benches against this machine, or only the one named; load, faults and firm run only when they are named."""

import sys

from bench import batch, core, faults, firm, interface, language, live, load, page, suspects, touches, traces


def _interface() -> None:
    with interface.served() as url:
        page.report(url)
        interface.report(url)
        page.report_enter(url, f"tape of {interface.REPORT_ENTRIES} entries")


def _touches() -> None:
    with interface.served() as url:
        touches.report(url)


REPORTS = {
    "core": core.report,
    "batch": batch.report,
    "language": language.report,
    "suspects": suspects.report,
    "interface": _interface,
    "live": live.report,
    "traces": traces.report,
    "touches": _touches,
}
# A minute of many, ten minutes of kills, firms after ten years: for whoever asks for them.
LONG = {"load": load.report, "faults": faults.report, "firm": firm.report, "large_firm": firm.report_large}


def main(only: str = "") -> None:
    """Print every figure, one a line, or those of one bench alone."""
    for report in [(REPORTS | LONG)[only]] if only else REPORTS.values():
        report()


main(*sys.argv[1:])
