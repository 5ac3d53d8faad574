"""Pages that listen for hours, on the real server: they hold nothing that others need, and end with their session."""

import pytest

from tests.sample import connected
from tests.served import served
from tests.tablet import Tablet

PAGES = 18  # more than the server has connections to its database


@pytest.fixture(scope="module")
def server():
    with served("open_pages") as running:
        yield running


def a_visit(server):
    with connected(server.more["HAVRIN_DB_NAME"]) as connection:
        return connection.execute("SELECT min(id) FROM visits_visit WHERE closed_at IS NULL").fetchone()[0]


def test_more_pages_listen_than_there_are_connections_and_everybody_is_served(server):
    visit, tablet, other = a_visit(server), Tablet(server), Tablet(server, "wenna")
    wires = [end for _ in range(PAGES) for end in tablet.listen(visit)]
    for _ in range(5):
        assert other.call("GET", f"visits/{visit}")[0].status == 200
        assert tablet.call("GET", "round")[0].status == 200
    with connected(server.more["HAVRIN_DB_NAME"]) as connection:
        busy = "SELECT count(*) FROM pg_stat_activity WHERE datname = current_database() AND state LIKE 'idle in%'"
        assert connection.execute(busy).fetchone()[0] == 0
    for wire in wires:
        wire.close()


def test_a_person_without_the_right_hears_nothing(server):
    answer, _ = Tablet(server).call("GET", "visits/999999/live")
    assert answer.status == 404
    stranger = Tablet(server)
    stranger.cookies = ""
    assert stranger.call("GET", "visits/1/live")[0].status == 401
