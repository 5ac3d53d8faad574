"""Run all benches against this machine, or only the one named: core, batch, language, suspects, interface, live, traces or touches."""

import sys

from bench import batch, core, interface, language, live, page, suspects, touches, traces


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


def main(only: str = "") -> None:
    """Print every figure, one a line, or those of one bench alone."""
    for name, report in REPORTS.items():
        if only in ("", name):
            report()


main(*sys.argv[1:])
