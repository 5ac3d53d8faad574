"""Run all benches against this machine, or only the one named: suspects or live."""

import sys

from bench import core, interface, live, page, suspects


def main(only: str = "") -> None:
    """Print every figure, one a line."""
    if only == "suspects":
        suspects.report()
        return
    if only == "live":
        live.report()
        return
    core.report()
    suspects.report()
    with interface.served() as url:
        interface.report(url)
        page.report(url)
    live.report()


main(*sys.argv[1:])
