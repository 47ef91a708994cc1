"""Backup and restore over PostgreSQL's own programs: what was there is there again, and nothing is lost on the way."""

from __future__ import annotations

import contextlib
import itertools
import uuid
from collections.abc import Callable, Iterator
from datetime import UTC, datetime
from pathlib import Path
from typing import Any

import pytest
from sqlalchemy import Engine, text

from ironkettle.core.jobs.kinds.note import NoteMade
from ironkettle.demo.load import load_demo
from ironkettle.launch import backup as module_backup
from ironkettle.launch import databases as module_databases
from ironkettle.launch.backup import backup, restore
from ironkettle.launch.cluster import Cluster, throwaway_cluster
from ironkettle.launch.databases import clean_up
from ironkettle.launch.environment import Environment
from ironkettle.launch.machine import free_port
from ironkettle.launch.postgres import run_sql
from ironkettle.launch.roles import APP, OWNER, SUPERUSER
from ironkettle.launch.trouble import PROJECT, Trouble
from ironkettle.prepare import prepare
from ironkettle.store.base import make_engine, session_of
from ironkettle.store.jobs.logs import NewEntry, append_entry, check_log
from ironkettle.store.shop.tables import shop_of
from tests.people import BEDE
from tests.walk import demo_job

# The environment these tests run in, wherever that is.
HERE = Environment(Path(__import__("sys").prefix))


@pytest.fixture(scope="module")
def cluster() -> Iterator[Cluster]:
    made = throwaway_cluster(free_port())
    made.start()
    owner = make_engine(made.url(OWNER), patient=True)
    prepare(owner, application_role=APP.name)
    owner.dispose()
    engine = make_engine(made.url())
    with session_of(engine) as session:
        load_demo(session)
    engine.dispose()
    yield made
    made.remove()


@pytest.fixture
def engine(cluster: Cluster) -> Iterator[Engine]:
    engine = make_engine(cluster.url())
    yield engine
    engine.dispose()


def note(engine: Engine, words: str) -> int:
    """Write a note; gives how many entries the job has."""
    now = datetime.now(UTC)
    with session_of(engine) as session:
        job = demo_job(session)
        entry = NewEntry(uuid.uuid4(), now, NoteMade(text=words))
        append_entry(session, job.id, entry, BEDE, shop_of(session), now)
        return job.entry_count


def databases(cluster: Cluster) -> list[str]:
    asked = "SELECT datname FROM pg_database WHERE datname LIKE 'kettle%' ORDER BY 1;"
    return run_sql(cluster.programs, cluster.port, SUPERUSER.name, cluster.password(SUPERUSER), asked).split()


def test_a_backup_is_restored_and_what_was_there_before_is_kept(
    cluster: Cluster, engine: Engine, tmp_path: Path, capfd: pytest.CaptureFixture[str]
) -> None:
    before = note(engine, "before the backup")
    assert backup(cluster, tmp_path / "kettle.dump") == 0
    assert (tmp_path / "kettle.dump").stat().st_mode & 0o077 == 0
    after = note(engine, "after the backup")
    engine.dispose()
    there_before = set(databases(cluster))
    assert restore(cluster, HERE, tmp_path / "kettle.dump") == 0
    assert "chain holds" in capfd.readouterr().out
    with session_of(engine) as session:
        job = demo_job(session)
        assert job.entry_count == before
        assert check_log(session, job) == []
        assert session.execute(text("SELECT count(*) FROM sessions")).scalar_one() == 0
    # The application works on it under its own role, and the log is still append-only.
    assert note(engine, "after the restore") == before + 1
    with pytest.raises(Exception, match="permission denied"), engine.begin() as connection:
        connection.execute(text("DELETE FROM entries"))
    (kept,) = set(databases(cluster)) - there_before
    assert kept.startswith("kettle_before_")
    earlier = make_engine(cluster.url(APP, kept))
    with session_of(earlier) as session:
        assert demo_job(session).entry_count == after
    earlier.dispose()


def test_a_backup_never_writes_over_a_file_and_leaves_no_half_one(cluster: Cluster, tmp_path: Path) -> None:
    there = tmp_path / "kettle.dump"
    there.write_text("last year's")
    with pytest.raises(Trouble, match="not overwritten"):
        backup(cluster, there)
    assert there.read_text() == "last year's"
    with pytest.raises(Trouble, match="There is no folder"):
        backup(cluster, tmp_path / "nowhere" / "kettle.dump")
    assert [path.name for path in tmp_path.iterdir()] == ["kettle.dump"]


@pytest.mark.parametrize("damage", ["none", "words", "cut"])
def test_what_is_no_whole_backup_changes_nothing(cluster: Cluster, tmp_path: Path, damage: str) -> None:
    file = tmp_path / "kettle.dump"
    if damage == "words":
        file.write_text("not a backup")
    if damage == "cut":
        backup(cluster, file)
        file.write_bytes(file.read_bytes()[:-2000])
    before = databases(cluster)
    with pytest.raises(Trouble, match=r"There is no file|is not a complete backup"):
        restore(cluster, HERE, file)
    assert databases(cluster) == before


def test_a_backup_with_a_broken_record_is_not_taken(cluster: Cluster, engine: Engine, tmp_path: Path) -> None:
    admin = make_engine(cluster.url(SUPERUSER))
    statement = "UPDATE entries SET sealed = replace(sealed, 'FN-0417', '{}') WHERE seq = 1"
    with admin.begin() as connection:
        connection.execute(text("SET LOCAL session_replication_role = replica"))
        connection.execute(text(statement.format("FN-9999")))
    try:
        backup(cluster, tmp_path / "forged.dump")
    finally:
        with admin.begin() as connection:
            connection.execute(text("SET LOCAL session_replication_role = replica"))
            connection.execute(text(statement.replace("FN-0417", "FN-9999").format("FN-0417")))
    admin.dispose()
    before = databases(cluster)
    with pytest.raises(Trouble, match="holds a broken record"):
        restore(cluster, HERE, tmp_path / "forged.dump")
    assert databases(cluster) == before
    with session_of(engine) as session:
        assert check_log(session, demo_job(session)) == []


def test_the_guide_tells_the_commands() -> None:
    guide = (PROJECT / "docs/guide/shop.md").read_text(encoding="utf-8")
    assert "./kettle backup" in guide
    assert "./kettle restore" in guide


class Pulled(BaseException):
    """The plug: nothing after it runs, not even what tidies up."""


def test_a_restore_that_is_killed_at_any_step_loses_nothing(
    cluster: Cluster, tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    """Every statement and program of a restore in turn is the last one; the next start works on the shop's data or says why."""
    engine = make_engine(cluster.url())
    entries = note(engine, "before the plug is pulled")
    engine.dispose()
    file = tmp_path / "kettle.backup"
    backup(cluster, file)
    # Within this process; as programs of their own they are run by the other tests.
    monkeypatch.setattr(module_backup, "prepare", _prepared_here)
    monkeypatch.setattr(module_backup, "run_module", lambda *_: 0)
    steps = next(step for step in itertools.count() if _outlives(cluster, file, step, entries))
    # Two to make it, then to fill, prepare, verify, sign everybody out, and put it in place.
    assert steps == 7


def _prepared_here(_environment: Environment, _url: str, cluster: Cluster, *, database: str, demo: str) -> None:
    assert demo == "--empty"
    owner = make_engine(cluster.url(OWNER, database), patient=True)
    prepare(owner, application_role=APP.name)
    owner.dispose()


def _outlives(cluster: Cluster, file: Path, step: int, entries: int) -> bool:
    """Restore, killed before the step of that number; the data are there either way. Gives whether it came to its end first."""
    left = [step]

    def counted(act: Callable[..., Any]) -> Callable[..., Any]:
        def run(*arguments: Any, **named: Any) -> Any:
            if left[0] == 0:
                raise Pulled
            left[0] -= 1
            return act(*arguments, **named)

        return run

    ended = False
    with pytest.MonkeyPatch.context() as patch:
        for module, name in (
            (module_databases, "run_sql"),
            (module_backup, "run_sql"),
            (module_backup, "_run"),
            (module_backup, "prepare"),
            (module_backup, "run_module"),
        ):
            patch.setattr(module, name, counted(getattr(module, name)))
        with contextlib.suppress(Pulled):
            ended = restore(cluster, HERE, file) == 0
    cluster.start()
    clean_up(cluster)
    left_over = databases(cluster)
    assert "kettle" in left_over
    assert not [one for one in left_over if one.startswith("kettle_restore_")]
    engine = make_engine(cluster.url())
    with session_of(engine) as session:
        assert demo_job(session).entry_count == entries
    engine.dispose()
    return ended


def test_half_way_between_two_names_nothing_is_seeded_and_one_command_mends_it(cluster: Cluster) -> None:
    """As an earlier version could leave it: the shop's database aside, the restored one not yet in place."""
    engine = make_engine(cluster.url())
    entries = note(engine, "half-way")
    engine.dispose()
    module_databases.sql(cluster, "ALTER DATABASE kettle RENAME TO kettle_before_99991231_235959")
    with pytest.raises(Trouble, match=r"restore was stopped half-way.*kettle_before_99991231_235959.*--undo"):
        cluster.start()
    assert "kettle" not in databases(cluster)
    assert module_databases.undo_restore(cluster) == 0
    cluster.start()
    with pytest.raises(Trouble, match="no restore to finish"):
        module_databases.finish_restore(cluster)
    engine = make_engine(cluster.url())
    with session_of(engine) as session:
        assert demo_job(session).entry_count == entries
    engine.dispose()
