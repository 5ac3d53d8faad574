"""The sample world, played in once and cloned for every test process: PostgreSQL copies a database in a blink.

The prepared world is kept in the tests' own cluster until the code, the sample world or the day changes.
"""

import os
import shutil
import subprocess
import sys
from collections.abc import Callable, Iterator
from contextlib import contextmanager
from datetime import UTC, date, datetime
from pathlib import Path
from zoneinfo import ZoneInfo

import psycopg
from psycopg import sql

from launcher.ground import ROOT, STATE, fingerprint

_MADE_OF = ("core/havrin_core", "server/havrin_server", "demo", "instruments")
_PREFIX = "sample_"
_PLACE = ZoneInfo("MST7MDT")  # of the sample world: its today is another day for hours
_LOCK = 1_728_001  # one process plays it in, the others wait
MAINTENANCE = "postgres"


def worker() -> str:
    """Return which of the parallel test processes this is; "main" where there is one alone."""
    return os.environ.get("PYTEST_XDIST_WORKER", "main")


@contextmanager
def clone(name: str) -> Iterator[dict[str, str]]:
    """Give a copy of the prepared world, and the environment in which the server works on it; gone afterwards."""
    database, state = f"{name}_{worker()}", STATE / "test-state" / f"{name}_{worker()}"
    with connected() as connection:
        sample = _prepared(connection)
        _drop(connection, database)
        names = sql.Identifier(database), sql.Identifier(sample)
        connection.execute(sql.SQL("CREATE DATABASE {} TEMPLATE {}").format(*names))
    shutil.rmtree(state, ignore_errors=True)
    shutil.copytree(_state_of(sample), state)
    yield {"HAVRIN_DB_NAME": database, "HAVRIN_STATE": str(state)}
    shutil.rmtree(state, ignore_errors=True)
    with connected() as connection:
        _drop(connection, database)


def place_today() -> date:
    """Return the day that it is where the sample world lies."""
    return datetime.now(_PLACE).date()


def move_today(run: Callable[[str, tuple[date, date]], object], played: date, today: date) -> None:
    """Put what was planned as seen from the day on which the world was played in as far from ``today``, by ``run``, which runs SQL.

    Midnight falls into a long run of tests: without this the round is empty from then on, and nothing is in hand.
    """
    if played != today:
        run("UPDATE visits_visit SET day = day + (%s::date - %s::date) WHERE closed_at IS NULL", (today, played))
        run("UPDATE instruments_inhand SET day = %s WHERE day = %s", (today, played))


def _prepared(connection: psycopg.Connection) -> str:
    """Return the name of the database in which the sample world stands, played in where it was not yet."""
    sources = [p for part in _MADE_OF for p in (ROOT / part).rglob("*") if p.suffix != ".pyc"]
    days = "_".join(f"{datetime.now(zone):%m%d}" for zone in (UTC, _PLACE))
    sample = f"{_PREFIX}{fingerprint(sources)[:16]}_{days}"
    connection.execute("SELECT pg_advisory_lock(%s)", [_LOCK])
    try:
        if not _is_ready(connection, sample):
            for old in _samples(connection):
                _drop(connection, old)
                shutil.rmtree(_state_of(old), ignore_errors=True)
            _play(connection, sample)
    finally:
        connection.execute("SELECT pg_advisory_unlock(%s)", [_LOCK])
    return sample


def _play(connection: psycopg.Connection, sample: str) -> None:
    connection.execute(sql.SQL("CREATE DATABASE {}").format(sql.Identifier(sample)))
    env = {**os.environ, "HAVRIN_DB_NAME": sample, "HAVRIN_STATE": str(_state_of(sample))}
    subprocess.run([sys.executable, "-m", "django", "prepare"], env=env, cwd=ROOT, check=True)
    said = sql.SQL("COMMENT ON DATABASE {} IS 'ready'").format(sql.Identifier(sample))
    connection.execute(said)


def _is_ready(connection: psycopg.Connection, sample: str) -> bool:
    asked = "SELECT shobj_description(oid, 'pg_database') FROM pg_database WHERE datname = %s"
    row = connection.execute(asked, [sample]).fetchone()
    return row is not None and row[0] == "ready" and _state_of(sample).is_dir()


def _samples(connection: psycopg.Connection) -> list[str]:
    rows = connection.execute("SELECT datname FROM pg_database WHERE starts_with(datname, %s)", [_PREFIX])
    return [name for (name,) in rows]


def _drop(connection: psycopg.Connection, database: str) -> None:
    connection.execute(sql.SQL("DROP DATABASE IF EXISTS {} WITH (FORCE)").format(sql.Identifier(database)))


def _state_of(sample: str) -> Path:
    return STATE / "test-state" / sample


def connected(database: str = MAINTENANCE) -> psycopg.Connection:
    """Return a connection to a database of the tests' own cluster."""
    return psycopg.connect(
        host="127.0.0.1",
        port=os.environ["HAVRIN_DB_PORT"],
        user=os.environ["HAVRIN_DB_USER"],
        password=os.environ["HAVRIN_DB_PASSWORD"],
        dbname=database,
        autocommit=True,
    )
