"""The words of ``./havrin``."""

import argparse
import os
import sys
from collections.abc import Callable
from pathlib import Path
from typing import Any

from launcher import checks, environment, running, serve
from launcher.cluster import Cluster
from launcher.ground import PYTHON, ROOT, STATE, Refusal


def main(arguments: list[str]) -> int:
    """Run one command; return its exit status. A refusal is one clear line and status 2."""
    options = _parser().parse_args(arguments)
    try:
        return int(options.run(options) or 0)
    except Refusal as refusal:
        print(f"havrin: {refusal}", file=sys.stderr)
        return 2
    except KeyboardInterrupt:
        return 130


def _parser() -> argparse.ArgumentParser:
    parser = argparse.ArgumentParser(prog="havrin", description="Testing, judging and recording gas heating units.")
    parser.add_argument("--version", action="version", version=f"Havrin {_version()}")
    commands = parser.add_subparsers(required=True, metavar="COMMAND")
    start = commands.add_parser("start", help="set up what is missing and serve")
    start.add_argument("--fresh", action="store_true", help="rebuild the sample world")
    start.add_argument("--port", type=int, help="serve on this port or not at all")
    start.set_defaults(run=lambda o: serve.start(fresh=o.fresh, port=o.port))
    _installation_commands(commands)
    test = commands.add_parser("test", help="run every check")
    test.add_argument("--all", action="store_true", help="every generated case, not a thinned row of them: takes long")
    test.add_argument("only", nargs=argparse.REMAINDER, help="passed to pytest; style checks are left out then")
    test.set_defaults(run=lambda o: checks.run_checks(o.only, every_case=o.all))
    calc = commands.add_parser("calc", help="compute many rows: calc WHAT IN.csv OUT.csv")
    calc.add_argument(
        "what", metavar="WHAT", help="combustion, orifice, meter, chimney, airflow, decay, water or atmosphere"
    )
    calc.add_argument("files", nargs=2, metavar=("IN.csv", "OUT.csv"))
    calc.set_defaults(run=lambda o: _core(lambda core: core.calc(o.what, *o.files)))
    log = commands.add_parser("log", help="what the reader makes of an instrument's log: log FILE [--map CHOSEN.json]")
    log.add_argument("file", metavar="FILE")
    log.add_argument("--map", help="what a person chose, as JSON or a file of it")
    log.set_defaults(run=lambda o: _with_packages("log", o.file, o.map))
    trace = commands.add_parser("trace", help="what is said of a trace: trace FILE [--with OPTIONS.json]")
    trace.add_argument("file", metavar="FILE", help="a CSV of samples (quantity,seconds,value), or a log")
    trace.add_argument("--with", dest="options", help="set points, marks, circuit, as JSON or a file of it")
    trace.set_defaults(run=lambda o: _with_packages("trace", o.file, o.options))
    assess = commands.add_parser("assess", help="assess a visit bundle: assess VISIT.json")
    assess.add_argument("file", metavar="VISIT.json")
    assess.set_defaults(run=lambda o: _core(lambda core: core.assess_file(o.file)))
    batch = commands.add_parser("batch", help="answer JSON requests, one a line: batch < requests > answers")
    batch.set_defaults(run=lambda o: _core(lambda core: core.batch()))
    words = commands.add_parser("vocabulary", help="print every part, condition, verb and sentence as JSON")
    words.set_defaults(run=lambda o: _core(lambda core: core.vocabulary()))
    lines = commands.add_parser(
        "language", help="how labelled lines are understood, by group: language [FILE] [--lines]"
    )
    lines.add_argument("file", nargs="?", default=str(ROOT / "tests/reference/language/visible.jsonl"), metavar="FILE")
    lines.add_argument("--lines", action="store_true", help="print each line that is not right, too")
    lines.set_defaults(run=lambda o: _core(lambda core: core.language(o.file, o.lines)))
    _circuit_commands(commands)
    bench = commands.add_parser("bench", help="print speeds and sizes")
    bench.add_argument(
        "only",
        nargs="?",
        choices=[
            "core",
            "batch",
            "language",
            "suspects",
            "interface",
            "live",
            "traces",
            "touches",
            "load",
            "faults",
            "firm",
            "large_firm",
        ],
        help="this one alone",
    )
    bench.set_defaults(run=lambda o: _bench(o.only))
    verify = commands.add_parser("verify", help="does a bundle, or a visit of this installation, prove itself?")
    verify.add_argument("what", metavar="FILE|VISIT", help="a visit bundle, or the number of a visit")
    verify.set_defaults(run=lambda o: serve.verify(o.what))
    schema = commands.add_parser("schema", help="write docs/openapi.json, the bundle schema and the page's types")
    schema.set_defaults(run=lambda o: _schema())
    return parser


def _installation_commands(commands: "argparse._SubParsersAction[argparse.ArgumentParser]") -> None:
    ready = commands.add_parser("set-up", help="install and build what serving needs, and serve nothing")
    ready.set_defaults(run=lambda o: serve.set_up())
    init = commands.add_parser(
        "init", help="make an empty installation: init FOLDER --firm F --zone Z --username U --name N"
    )
    init.add_argument("folder", metavar="FOLDER", type=Path)
    init.add_argument("--firm", required=True, help="its name, as it stands on papers")
    init.add_argument("--zone", required=True, help="its time zone, an IANA name")
    init.add_argument("--username", required=True, help="what the first administrator signs in as")
    init.add_argument("--name", required=True, help="the first administrator's first and last name")
    _as_root(init)
    told = ("firm", "zone", "username", "name", "as_root")
    init.set_defaults(run=lambda o: running.init(o.folder, **{name: getattr(o, name) for name in told}))
    serving = commands.add_parser("serve", help="serve an installation: serve [FOLDER]")
    _folder(serving)
    _as_root(serving)
    serving.set_defaults(run=lambda o: running.serve(running.home_of(o.folder), as_root=o.as_root))
    backup = commands.add_parser("backup", help="back everything up, also while it serves: backup [FOLDER] [--to FILE]")
    _folder(backup)
    backup.add_argument("--to", type=Path, help="this file, instead of one more in the folder of backups")
    backup.set_defaults(run=lambda o: running.backup(running.home_of(o.folder), o.to) and 0)
    restore = commands.add_parser("restore", help="make an installation of a backup: restore FILE FOLDER")
    restore.add_argument("archive", metavar="FILE", type=Path)
    restore.add_argument("folder", metavar="FOLDER", type=Path)
    _as_root(restore)
    restore.set_defaults(run=lambda o: running.restore(o.archive, o.folder, as_root=o.as_root))
    carry = commands.add_parser("carry-files", help="copy photos and logs to the bucket that is set now: [FOLDER]")
    _folder(carry)
    carry.set_defaults(run=lambda o: running.carry_files(running.home_of(o.folder)))
    check = commands.add_parser("check", help="everything that an operator should know: check [FOLDER]")
    _folder(check)
    check.set_defaults(run=lambda o: running.check(running.home_of(o.folder)))
    letting = commands.add_parser(
        "let-in", help="a link for a new password, where no administrator can sign in: let-in NAME [FOLDER]"
    )
    letting.add_argument("username", metavar="NAME")
    _folder(letting)
    letting.set_defaults(run=lambda o: running.let_in(o.username, running.home_of(o.folder)))
    upgrade = commands.add_parser("upgrade", help="bring the data to this version, or back: upgrade [FOLDER]")
    _folder(upgrade)
    _as_root(upgrade)
    upgrade.set_defaults(run=lambda o: running.upgrade(running.home_of(o.folder), as_root=o.as_root))


def _folder(parser: argparse.ArgumentParser) -> None:
    parser.add_argument("folder", nargs="?", metavar="FOLDER", help="of the installation; else HAVRIN_HOME")


def _as_root(parser: argparse.ArgumentParser) -> None:
    parser.add_argument("--as-root", action="store_true", help="in a container that has no other user")


def _version() -> str:
    """Return the version that the core says, read as text: nothing is installed yet when this is asked."""
    said = (ROOT / "core" / "havrin_core" / "__init__.py").read_text(encoding="utf-8")
    return said.rpartition("__version__ = ")[2].strip().strip('"')


def _circuit_commands(commands: "argparse._SubParsersAction[argparse.ArgumentParser]") -> None:
    solve = commands.add_parser("solve", help="what a meter reads: solve CIRCUIT.json --state S --leads A,B --mode V")
    solve.add_argument("circuit", metavar="CIRCUIT", help="a circuit file, or the name of a shipped one")
    solve.add_argument("--state", required=True)
    solve.add_argument("--fault", action="append", default=[], help="put this fault in; may be given again")
    solve.add_argument("--leads", help="two nodes, like R,C")
    solve.add_argument("--part", default="", help="for ohm, continuity, A and uA")
    solve.add_argument("--mode", default="V", help="V, Vdc, ohm, continuity, A or uA")
    solve.set_defaults(run=lambda o: _core(lambda core: core.solve(o)))
    call = commands.add_parser("call", help="what a call for heat shows on a virtual unit: call CIRCUIT --fault F")
    call.add_argument("circuit", metavar="CIRCUIT")
    call.add_argument("--fault", action="append", default=[])
    call.add_argument("--seed", type=int, default=0)
    call.set_defaults(run=lambda o: _core(lambda core: core.call(o)))
    circuits = commands.add_parser("circuits", help="list the shipped circuits, or print one as JSON")
    circuits.add_argument("name", nargs="?")
    circuits.set_defaults(run=lambda o: _core(lambda core: core.circuits(o)))
    following = commands.add_parser("next", help="suspects and the next test: next VISIT.json")
    following.add_argument("file", metavar="VISIT.json")
    following.set_defaults(run=lambda o: _core(lambda core: core.next_test(o)))


def _core(run: Callable[[Any], int]) -> int:
    # The core needs no installed package: it runs in this very interpreter.
    sys.path.insert(0, str(ROOT / "core"))
    from havrin_core import command

    return command.main(lambda: run(command))


def _with_packages(name: str, file: str, given: str | None) -> int:
    # Logs and traces are read with packages: these commands of the core run where the server's are.
    environment.ensure_python("serve")
    call = f"import sys; from havrin_core import command; sys.exit(command.main(lambda: command.{name}(*sys.argv[1:])))"
    arguments = [str(PYTHON), "-c", call, file, *([given] if given else [])]
    return os.spawnve(os.P_WAIT, str(PYTHON), arguments, environment.python_env())


def _bench(only: str | None) -> int:
    if only in ("load", "faults", "firm", "large_firm"):  # an installation of their own, with all that belongs to it
        serve.set_up()
    if only in ("core", "batch", "language", "suspects", "load", "faults", "firm", "large_firm"):  # no database beside
        environment.ensure_python("check")
        command = [str(PYTHON), "-m", "bench", only]
        return os.spawnve(os.P_WAIT, str(PYTHON), command, environment.python_env(HAVRIN_STATE=str(STATE)))
    serve.set_up()
    environment.ensure_python("check")
    with Cluster("bench-db").running() as cluster:
        env = environment.python_env(**cluster.environment(), HAVRIN_STATE=str(STATE / "bench-state"))
        return os.spawnve(os.P_WAIT, str(PYTHON), [str(PYTHON), "-m", "bench", *([only] if only else [])], env)


def _schema() -> int:
    environment.ensure_python("serve")
    environment.ensure_node_modules()
    env = environment.python_env(HAVRIN_STATE=str(STATE))
    modules = (("django", "write_schemas"), ("launcher.licences",))
    return max(os.spawnve(os.P_WAIT, str(PYTHON), [str(PYTHON), "-m", *module], env) for module in modules)
