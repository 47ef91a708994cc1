"""The private cluster: made once, kept whatever file goes missing, told in sentences."""

from __future__ import annotations

import dataclasses
import os
import shutil
import socket
from collections.abc import Iterator
from pathlib import Path

import pytest

from ironkettle.launch import cli, machine
from ironkettle.launch.cluster import Cluster, throwaway_cluster
from ironkettle.launch.machine import free_port, port_is_free
from ironkettle.launch.postgres import run_sql
from ironkettle.launch.roles import APP, DATABASE, OWNER, SUPERUSER, Role
from ironkettle.launch.trouble import Trouble, run


@pytest.fixture(scope="module")
def cluster() -> Iterator[Cluster]:
    made = throwaway_cluster(free_port())
    made.start()
    sql(made, "CREATE TABLE kept (n int); INSERT INTO kept SELECT generate_series(1, 1000)", OWNER)
    made.stop()
    yield made
    made.remove()
    assert not made.folder.exists()


@pytest.fixture(autouse=True)
def stopped(cluster: Cluster) -> Iterator[None]:
    yield
    cluster.stop()


def sql(cluster: Cluster, statement: str, role: Role = SUPERUSER) -> str:
    return run_sql(cluster.programs, cluster.port, role.name, cluster.password(role), f"{statement};", DATABASE)


def rows(cluster: Cluster) -> str:
    return sql(cluster, "SELECT count(*) FROM kept", OWNER)


def test_is_made_started_stopped_and_started_again(cluster: Cluster) -> None:
    cluster.start()
    assert cluster.is_running()
    assert cluster.is_alive()
    for role in (SUPERUSER, OWNER, APP):
        assert (cluster.folder / role.password_file).stat().st_mode & 0o077 == 0, role
    cluster.start()  # one that runs is used as it is
    cluster.stop()
    assert not cluster.is_running()
    assert not cluster.is_alive()
    cluster.start()
    assert not port_is_free(cluster.port)
    assert rows(cluster) == "1000"


def test_a_lost_password_is_set_anew_and_every_row_is_there(
    cluster: Cluster, capsys: pytest.CaptureFixture[str]
) -> None:
    for role in (SUPERUSER, OWNER, APP):
        (cluster.folder / role.password_file).unlink()
    cluster.start()
    assert "the data stay as they are" in capsys.readouterr().out
    assert rows(cluster) == "1000"


def test_a_password_lost_while_it_runs_touches_nothing(cluster: Cluster) -> None:
    cluster.start()
    password = cluster.folder / SUPERUSER.password_file
    kept = password.read_text()
    password.unlink()
    with pytest.raises(Trouble, match="Nothing was changed: stop Iron Kettle"):
        cluster.start()
    assert cluster.is_running()
    password.write_text(kept)
    password.chmod(0o600)
    assert rows(cluster) == "1000"


@pytest.mark.parametrize("make", [True, False])
def test_a_missing_data_folder_is_never_replaced_by_an_empty_one(cluster: Cluster, make: bool) -> None:
    away = cluster.folder / "elsewhere"
    cluster.data.rename(away)
    try:
        with pytest.raises(Trouble, match="is gone, though one was made here"):
            cluster.start(make=make)
        assert not cluster.data.exists()
    finally:
        away.rename(cluster.data)
    cluster.start()
    assert rows(cluster) == "1000"


def test_verify_and_seed_never_make_one() -> None:
    nothing = throwaway_cluster(free_port())
    with pytest.raises(Trouble, match="There is no database yet"):
        nothing.start(make=False)
    assert list(nothing.folder.iterdir()) == []
    nothing.remove()


def test_a_making_that_was_interrupted_starts_again_by_itself() -> None:
    one = throwaway_cluster(free_port())
    try:
        # Killed in the middle of initdb: half a folder under the other name, no data.
        (one.folder / "data.new" / "base").mkdir(parents=True)
        (one.folder / "password.new").write_text("half\n")
        one.start()
        assert not (one.folder / "data.new").exists()
        one.stop()
        # Killed between the two renames: the cluster is whole, its password still under the other name.
        (one.folder / SUPERUSER.password_file).rename(one.folder / "password.new")
        one.start()
        assert sql(one, "SELECT 1") == "1"
    finally:
        one.remove()


def test_one_left_running_elsewhere_is_found_at_its_port(cluster: Cluster) -> None:
    cluster.start()
    moved = dataclasses.replace(cluster, wanted_port=free_port())
    moved.start()
    assert moved.port == cluster.wanted_port
    assert rows(moved) == "1000"


def test_tables_of_a_time_before_the_roles_are_handed_over(cluster: Cluster) -> None:
    cluster.start()
    sql(cluster, "CREATE TABLE older (n int); CREATE FUNCTION old_one() RETURNS int LANGUAGE sql AS 'SELECT 1'")
    cluster.start()
    owners = sql(cluster, "SELECT tableowner FROM pg_tables WHERE schemaname = 'public'").split()
    assert set(owners) == {OWNER.name}
    assert sql(cluster, "SELECT proowner::regrole FROM pg_proc WHERE proname = 'old_one'") == OWNER.name
    sql(cluster, "DROP TABLE older; DROP FUNCTION old_one()", OWNER)


def test_a_cluster_of_a_user_is_never_removed(cluster: Cluster) -> None:
    with pytest.raises(AssertionError, match="only a test's cluster"):
        dataclasses.replace(cluster, throwaway=False).remove()
    assert cluster.data.exists()


def test_a_taken_port_is_one_sentence(cluster: Cluster) -> None:
    with socket.socket() as other:
        other.bind(("127.0.0.1", 0))
        other.listen()
        blocked = dataclasses.replace(cluster, wanted_port=other.getsockname()[1])
        with pytest.raises(Trouble, match=r"Port \d+ is taken by another program"):
            blocked.start()


def test_a_damaged_cluster_is_one_sentence_and_is_left_alone(cluster: Cluster) -> None:
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
    monkeypatch.setattr(os, "geteuid", lambda: 1000)
    monkeypatch.setattr(shutil, "which", lambda name: "/usr/bin/apt-get" if name == "apt-get" else None)
    with pytest.raises(Trouble, match="sudo apt-get install postgresql"):
        machine.install("postgresql")


def test_a_failed_command_tells_what_it_was_for(tmp_path: Path) -> None:
    with pytest.raises(Trouble, match=r"(?s)Looking failed \(exit code 3\).*no such ram"):
        run(["sh", "-c", "echo no such ram; exit 3"], cwd=tmp_path, what="Looking")


def test_trouble_is_printed_and_exits_with_one(
    monkeypatch: pytest.MonkeyPatch, capsys: pytest.CaptureFixture[str]
) -> None:
    def fail(_options: object) -> int:
        raise Trouble("The kettle is cold.")

    monkeypatch.setattr(cli, "start", fail)
    assert cli.main(["start"]) == 1
    assert capsys.readouterr().err == "kettle: The kettle is cold.\n"
    with pytest.raises(SystemExit):
        cli.main(["start", "--port", "80"])
