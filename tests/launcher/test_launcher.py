"""The launcher: stale locks, taken ports, half-made set-ups."""

import os
import socket
import subprocess
from pathlib import Path

import pytest

from launcher import debian, environment, ground, serve
from launcher.cluster import Cluster, free_port
from launcher.ground import Refusal


@pytest.fixture(scope="module")
def cluster():
    made = Cluster("launcher-test-db", throwaway=True)
    with made.running():
        pass
    return made


def test_a_cluster_starts_and_stops(cluster):
    with cluster.running():
        env = {**os.environ, "PGPASSWORD": cluster.environment()["HAVRIN_DB_PASSWORD"]}
        ask = [
            "psql",
            "-h",
            "127.0.0.1",
            "-p",
            str(cluster.port),
            "-U",
            "havrin",
            "havrin",
            "-tAc",
            "show listen_addresses",
        ]
        assert subprocess.run(ask, env=env, capture_output=True, text=True).stdout.strip() == "127.0.0.1"
        refused = subprocess.run(ask, env={**env, "PGPASSWORD": "guess"}, capture_output=True)
        assert refused.returncode != 0
    assert cluster._own_pid() == 0


@pytest.mark.parametrize("pid", ["self", "1", "999999", "nonsense"])
def test_a_stale_pid_file_stops_nobody(cluster, pid):
    file = cluster.data / "postmaster.pid"
    number = str(os.getpid()) if pid == "self" else pid
    file.write_text(f"{number}\n{cluster.data}\n0\n5432\n\n127.0.0.1\n")
    assert cluster._own_pid() == 0
    with cluster.running():
        assert cluster._own_pid() > 0


def test_a_killed_start_leaves_a_server_that_is_taken_over(cluster):
    cluster.start()
    pid = cluster._own_pid()
    other = Cluster("launcher-test-db", throwaway=True)
    with other.running():
        assert other._own_pid() == pid
    cluster.stop()
    assert cluster._own_pid() == 0


def test_a_half_made_cluster_is_made_anew(cluster):
    (cluster.folder / ".ready").unlink()
    (cluster.data / "PG_VERSION").unlink()
    with cluster.running():
        assert cluster._own_pid() > 0


def test_a_taken_port_is_answered():
    with socket.socket() as taken:
        taken.bind(("127.0.0.1", 0))
        taken.listen()
        number = taken.getsockname()[1]
        with pytest.raises(Refusal, match="taken"):
            serve._port(number)
    assert serve._port(free_port())


def test_no_rights_to_install_names_the_command(monkeypatch):
    monkeypatch.setattr(debian, "_installed", lambda package: False)
    monkeypatch.setattr(debian, "_rights", lambda: None)
    with pytest.raises(
        Refusal, match="sudo sh -c 'apt-get update && apt-get install -y --no-install-recommends postgresql"
    ):
        debian.ensure(("postgresql",))


def test_a_missing_or_old_node_is_said(monkeypatch):
    monkeypatch.setattr(debian.shutil, "which", lambda name: None)
    with pytest.raises(Refusal, match=r"Node\.js 20"):
        debian.need_node()


def test_a_step_without_its_stamp_is_redone(monkeypatch, tmp_path):
    monkeypatch.setattr(ground, "STATE", tmp_path)
    assert not ground.is_done("step", "a")
    ground.mark_done("step", "a")
    assert ground.is_done("step", "a")
    assert not ground.is_done("step", "b")


def test_fingerprints_follow_contents():
    file = Path(environment.WEB / "index.html")
    assert ground.fingerprint([file]) == ground.fingerprint([file])
    assert ground.fingerprint([file]) != ground.fingerprint([environment.WEB / "package.json"])


def test_a_second_start_is_refused_while_one_runs(monkeypatch, tmp_path):
    monkeypatch.setattr(serve, "STATE", tmp_path)
    with (
        serve.only_one(serve.STATE / "start.lock", "this folder"),
        pytest.raises(Refusal, match="already running"),
        serve.only_one(serve.STATE / "start.lock", "this folder"),
    ):
        pass
