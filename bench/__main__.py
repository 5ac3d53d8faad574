"""Run all benches against this machine, or only the one named: suspects."""

import sys

from bench import core, interface, page, suspects


def main(only: str = "") -> None:
    """Print every figure, one a line."""
    if only == "suspects":
        suspects.report()
        return
    core.report()
    suspects.report()
    with interface.served() as url:
        interface.report(url)
        page.report(url)


main(*sys.argv[1:])
