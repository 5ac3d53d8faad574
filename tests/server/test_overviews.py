"""Overviews on a real replica that follows the tests' own database: never older than the question, and never missed."""

import json
import os
import subprocess
import sys
import time
from contextlib import contextmanager

import psycopg
import pytest
from django.db import DEFAULT_DB_ALIAS
from psycopg import sql

from havrin_server import overviews
from havrin_server.overviews import Router
from havrin_server.units.models import Unit
from launcher.cluster import APPLICATION, Cluster, as_postgres, binary, give_to_postgres
from launcher.ground import ROOT
from tests.sample import clone, connected, worker
from tests.served import Server
from tests.tablet import Tablet

WAITS_S = 120  # a busy machine is slow, not wrong


@contextmanager
def following():
    """Run a replica of the tests' own cluster."""
    replica = Cluster(f"replica_{worker()}", throwaway=True)
    replica.folder.mkdir(parents=True, exist_ok=True)
    give_to_postgres(replica.folder)
    source = ["-h", "127.0.0.1", "-p", os.environ["HAVRIN_DB_PORT"], "-U", os.environ["HAVRIN_DB_USER"]]
    command = [binary("pg_basebackup"), "-D", replica.data, "-R", "--checkpoint=fast", *source]
    env = {**os.environ, "PGPASSWORD": os.environ["HAVRIN_DB_PASSWORD"]}
    subprocess.run(["rm", "-rf", str(replica.data)], check=True)
    subprocess.run(as_postgres(command), env=env, cwd="/", check=True)
    (replica.folder / ".ready").write_text("made whole\n")
    with replica.borrowed():
        yield replica


@pytest.fixture(scope="module")
def replica():
    with following() as running:
        yield running


@pytest.fixture(scope="module")
def server(replica):
    with clone("overviews") as world:
        with connected() as connection:  # as in an installation; the tests' own cluster leaves it off
            name = sql.Identifier(world["HAVRIN_DB_NAME"])
            connection.execute(sql.SQL("ALTER DATABASE {} SET synchronous_commit = on").format(name))
        at = {"HAVRIN_DB_REPLICA_HOST": "127.0.0.1", "HAVRIN_DB_REPLICA_PORT": str(replica.port)}
        running = Server({**world, **at})
        running.start()
        yield running
        running.kill()


def on(replica, server):
    """Return a connection to the replica, as the owner of the database."""
    return psycopg.connect(
        host="127.0.0.1",
        port=replica.port,
        user=os.environ["HAVRIN_DB_USER"],
        password=os.environ["HAVRIN_DB_PASSWORD"],
        dbname=server.more["HAVRIN_DB_NAME"],
        autocommit=True,
    )


def last_read(replica, server):
    """Return when the serving role last put the wall up or took it away on the replica: it read there in between."""
    asked = "SELECT max(query_start) FROM pg_stat_activity WHERE usename = %s AND query LIKE '%%havrin.firm%%'"
    with on(replica, server) as connection:
        return connection.execute(asked, [APPLICATION]).fetchone()[0]


def until_read_there(replica, server, ask):
    """Ask until the answer comes from the replica: while it is behind, the database answers."""
    begun, until = last_read(replica, server), time.monotonic() + WAITS_S
    while (read := last_read(replica, server)) is None or read == begun:
        assert time.monotonic() < until
        ask()


def stand(connection):
    """Let a replica receive what is written and do nothing with it."""
    connection.execute("SELECT pg_wal_replay_pause()")
    until = time.monotonic() + WAITS_S
    while connection.execute("SELECT pg_get_wal_replay_pause_state()").fetchone()[0] != "paused":
        assert time.monotonic() < until
        time.sleep(0.05)


def call_in(tablet, number):
    """Have a call come in for another day each, and return its visit's number."""
    unit = tablet.get("search?q=UH-1")[0]["id"]
    told = {"reason": "no_heat", "day": tablet.get("board")["days"][number], "complaint": f"Cold, call {number}."}
    answer, content = tablet.call("POST", f"units/{unit}/visits", json.dumps({**told, "whose": "nobody"}))
    assert answer.status == 200, content
    return json.loads(content)["id"]


def waiting(tablet):
    return {row["id"] for row in tablet.get("board")["on_no_day"]}


def looked_over(server):
    """Return what ``./havrin check`` is told of the replica: how it is, and what stands there."""
    env = {**os.environ, **server.more}
    said = subprocess.run(
        [sys.executable, "-m", "django", "look_over"], env=env, cwd=ROOT, capture_output=True, check=True
    )
    return next((how, text) for how, text in json.loads(said.stdout) if text.startswith("replica"))


def test_an_overview_shows_ones_own_firm_alone_and_a_wall_goes_back_with_its_connection(replica, server):
    tove = Tablet(server)
    own = {row["id"] for row in tove.get("cards/unit")["rows"]}
    with connected(server.more["HAVRIN_DB_NAME"]) as connection:
        firm = connection.execute("SELECT firm_id FROM people_person WHERE username = 'tove'").fetchone()[0]
        asked = "SELECT u.id FROM units_unit u JOIN units_site s ON s.id = u.site_id WHERE s.firm_id = %s"
        theirs = {row[0] for row in connection.execute(asked, [firm])}
    assert own <= theirs
    until_read_there(replica, server, lambda: tove.get("cards/unit"))
    assert {row["id"] for row in tove.get("cards/unit")["rows"]} == own
    tove.call("DELETE", "session")
    assert tove.call("GET", "cards/unit")[0].status == 401


def test_what_was_changed_is_on_the_next_board_whether_the_replica_follows_stands_or_is_gone(replica, server):
    odo = Tablet(server, "odo")
    for number in range(5):
        assert call_in(odo, number) in waiting(odo)
    until_read_there(replica, server, lambda: odo.get("board"))

    with on(replica, server) as connection:
        stand(connection)
        late = call_in(odo, 5)
        behind = connection.execute("SELECT count(*) FROM visits_visit WHERE id = %s", [late]).fetchone()[0]
        assert behind == 0
        assert late in waiting(odo)
        connection.execute("SELECT pg_wal_replay_resume()")

    how, text = looked_over(server)
    assert (how, text.endswith(" s behind")) == ("ok", True)
    replica.stop()
    how, text = looked_over(server)
    assert (how, "it does not answer" in text) == ("bad", True)
    assert call_in(odo, 6) in waiting(odo)
    assert odo.get("search?q=UH-1")[0]["title"].startswith("UH-1")


def test_what_was_read_from_the_replica_is_changed_in_the_database():
    token = overviews._read_from.set(overviews.REPLICA)
    try:
        assert Router().db_for_read(Unit) == overviews.REPLICA
        assert Router().db_for_write(Unit, instance=Unit()) == DEFAULT_DB_ALIAS
    finally:
        overviews._read_from.reset(token)
    assert Router().db_for_read(Unit) is None
