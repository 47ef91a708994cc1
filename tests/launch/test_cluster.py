"""The private cluster and the messages of trouble."""

from __future__ import annotations

import socket
from collections.abc import Iterator
from pathlib import Path

import pytest

from ironkettle.launch import cli, machine
from ironkettle.launch.cluster import Cluster, throwaway_cluster
from ironkettle.launch.machine import free_port, port_is_free
from ironkettle.launch.trouble import Trouble, run


@pytest.fixture(scope="module")
def cluster() -> Iterator[Cluster]:
    made = throwaway_cluster(free_port())
    yield made
    made.remove()
    assert not made.folder.exists()


def test_is_made_started_stopped_and_started_again(cluster: Cluster) -> None:
    cluster.start()
    assert cluster.is_running()
    assert (cluster.folder / "password").stat().st_mode & 0o077 == 0
    cluster.start()  # one that runs is used as it is
    cluster.stop()
    assert not cluster.is_running()
    cluster.start()
    assert not port_is_free(cluster.port)
    cluster.stop()


def test_a_taken_port_is_one_sentence(cluster: Cluster) -> None:
    cluster.start()
    cluster.stop()
    with socket.socket() as other:
        other.bind(("127.0.0.1", 0))
        other.listen()
        blocked = Cluster(cluster.folder, other.getsockname()[1], cluster.programs)
        with pytest.raises(Trouble, match=r"Port \d+ is taken by another program"):
            blocked.start()


def test_a_damaged_cluster_is_one_sentence_and_is_left_alone(cluster: Cluster) -> None:
    cluster.start()
    cluster.stop()
    version = cluster.data / "PG_VERSION"
    kept = version.read_text()
    version.unlink()
    try:
        with pytest.raises(Trouble, match="is damaged"):
            cluster.start()
        assert (cluster.data / "base").exists()
    finally:
        version.write_text(kept)
    control = cluster.data / "global" / "pg_control"
    whole = control.read_bytes()
    control.write_bytes(b"\0" * len(whole))
    try:
        with pytest.raises(Trouble, match="did not start"):
            cluster.start()
    finally:
        control.write_bytes(whole)


def test_no_disk_is_one_sentence(monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr(machine, "DISK_NEEDED_BYTES", 10**18)
    with pytest.raises(Trouble, match="MB are free on the disk"):
        machine.ensure_disk()


def test_a_missing_package_is_named_with_the_command(monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr(machine.os, "geteuid", lambda: 1000)
    monkeypatch.setattr(machine.shutil, "which", lambda name: "/usr/bin/apt-get" if name == "apt-get" else None)
    with pytest.raises(Trouble, match="sudo apt-get install postgresql"):
        machine.install("postgresql")


def test_a_failed_command_tells_what_it_was_for(tmp_path: Path) -> None:
    with pytest.raises(Trouble, match=r"(?s)Looking failed \(exit code 3\).*no such ram"):
        run(["sh", "-c", "echo no such ram; exit 3"], cwd=tmp_path, what="Looking")


def test_trouble_is_printed_and_exits_with_one(
    monkeypatch: pytest.MonkeyPatch, capsys: pytest.CaptureFixture[str]
) -> None:
    def fail(**_options: object) -> int:
        raise Trouble("The kettle is cold.")

    monkeypatch.setattr(cli, "start", fail)
    assert cli.main(["start"]) == 1
    assert capsys.readouterr().err == "kettle: The kettle is cold.\n"
    with pytest.raises(SystemExit):
        cli.main(["start", "--port", "80"])
