"""Run all benches against this machine."""

from bench import core, interface, page


def main() -> None:
    """Print every figure, one a line."""
    core.report()
    with interface.served() as url:
        interface.report(url)
        page.report(url)


main()
