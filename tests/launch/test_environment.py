"""Environments are made beside those there are, and one in use is never touched."""

from __future__ import annotations

import subprocess
import sys
from collections.abc import Iterator
from pathlib import Path
from typing import IO

import pytest

from ironkettle.launch import environment as module
from ironkettle.launch.environment import Environment, ensure_environment
from ironkettle.launch.trouble import Trouble


@pytest.fixture
def sandbox(tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> Iterator[Path]:
    """Environments in a folder of their own; making one is a matter of two files."""
    lock = tmp_path / "requirements.lock"
    lock.write_text("one\n")
    monkeypatch.setattr(module, "RUN_LOCK", lock)
    monkeypatch.setattr(module, "ENVIRONMENTS", tmp_path / "env")
    monkeypatch.setattr(module, "SHORTCUT", tmp_path / ".venv")
    monkeypatch.setattr(module, "_ensure_uv", lambda: Path("/nowhere/uv"))
    held: list[IO[str]] = []
    monkeypatch.setattr(module, "_HELD", held)

    def made_up(command: list[str], **_options: object) -> str:
        if command[1] == "venv":
            folder = Path(command[-1])
            (folder / "bin").mkdir(parents=True)
            (folder / "lib" / "python3.11" / "site-packages").mkdir(parents=True)
            (folder / "bin" / "python").symlink_to(sys.executable)
        return ""

    monkeypatch.setattr(module, "run", made_up)
    yield tmp_path
    for file in held:
        file.close()


def test_made_once_and_used_again(sandbox: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    first = ensure_environment()
    assert first.is_whole()
    assert (sandbox / ".venv").resolve() == first.folder
    monkeypatch.setattr(module, "_make", lambda *_: pytest.fail("made again"))
    assert ensure_environment() == first
    # Another patch release of Python is no reason for a new one.
    monkeypatch.setattr(module.sys, "version", "3.11.99 (somewhen)")
    assert ensure_environment() == first


def test_a_new_lock_makes_a_new_one_and_leaves_the_one_in_use(sandbox: Path) -> None:
    first = ensure_environment()
    (sandbox / "requirements.lock").write_text("two\n")
    second = ensure_environment()
    assert second != first
    assert first.is_whole(), "held by this very process"
    assert (sandbox / ".venv").resolve() == second.folder


def test_what_nothing_runs_in_goes_and_what_another_process_holds_stays(sandbox: Path) -> None:
    old = Environment(sandbox / "env" / "run-000000000000")
    held = Environment(sandbox / "env" / "run-111111111111")
    for one in (old, held):
        one.folder.mkdir(parents=True)
    program = (
        "import fcntl, sys, time; f = open(sys.argv[1], 'a'); fcntl.flock(f, fcntl.LOCK_SH); print(1, flush=True);"
        " time.sleep(60)"
    )
    holder = subprocess.Popen([sys.executable, "-c", program, str(held.folder / "in-use")], stdout=subprocess.PIPE)
    assert holder.stdout is not None
    holder.stdout.readline()
    try:
        ensure_environment()
        assert not old.folder.exists()
        assert held.folder.exists()
        assert held.is_in_use()
    finally:
        holder.kill()
        holder.wait()
        holder.stdout.close()


def test_without_a_network_the_old_one_is_still_there(sandbox: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    first = ensure_environment()
    (sandbox / "requirements.lock").write_text("two\n")

    def no_network(*_: object, **__: object) -> str:
        raise Trouble("Installing the Python packages (is the network reachable?) failed")

    monkeypatch.setattr(module, "run", no_network)
    with pytest.raises(Trouble, match="network"):
        ensure_environment()
    (sandbox / "requirements.lock").write_text("one\n")
    assert ensure_environment() == first


def test_one_left_half_made_is_made_again_but_never_under_a_running_one(
    sandbox: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    first = ensure_environment()
    first.stamp.unlink()
    with pytest.raises(Trouble, match="in use and incomplete"):
        ensure_environment()
    for file in module._HELD:
        file.close()
    assert ensure_environment() == first
    assert first.is_whole()


def test_a_real_folder_of_former_versions_is_left_alone(sandbox: Path, capsys: pytest.CaptureFixture[str]) -> None:
    (sandbox / ".venv").mkdir()
    (sandbox / ".venv" / "in-here").touch()
    ensure_environment()
    assert (sandbox / ".venv" / "in-here").exists()
    assert "no longer used" in capsys.readouterr().out
