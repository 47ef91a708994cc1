"""One running Iron Kettle a folder: the lock it holds, and what it tells others about itself."""

from __future__ import annotations

import contextlib
import fcntl
import json
import os
from collections.abc import Iterator
from dataclasses import asdict, dataclass
from pathlib import Path

from ironkettle.launch.trouble import VAR, Trouble


@dataclass(frozen=True)
class Instance:
    """What a running one says of itself."""

    address: str
    process: int


@contextlib.contextmanager
def claimed(folder: Path = VAR, *, doing: str = "") -> Iterator[None]:
    """Hold this folder's data alone until left. Raises Trouble naming who holds it already.

    The lock goes with the process, so a killed one never blocks the next start.
    """
    folder.mkdir(parents=True, exist_ok=True)
    with (folder / "instance.lock").open("a") as lock:
        try:
            fcntl.flock(lock, fcntl.LOCK_EX | fcntl.LOCK_NB)
        except BlockingIOError:
            raise Trouble(_held(folder, doing)) from None
        try:
            yield
        finally:
            _file(folder).unlink(missing_ok=True)


def is_claimed(folder: Path = VAR) -> bool:
    """Whether a running one holds this folder now."""
    try:
        with (folder / "instance.lock").open("a") as lock:
            fcntl.flock(lock, fcntl.LOCK_SH | fcntl.LOCK_NB)
    except BlockingIOError:
        return True
    except FileNotFoundError:
        return False
    return False


def announce(address: str, folder: Path = VAR) -> None:
    """Tell others where this one is reached; called by the one that holds the folder."""
    whole = _file(folder).with_suffix(".new")
    whole.write_text(json.dumps(asdict(Instance(address, os.getpid()))))
    whole.replace(_file(folder))


def running_instance(folder: Path = VAR) -> Instance | None:
    """What the running one says of itself; None when it has not said anything yet."""
    try:
        return Instance(**json.loads(_file(folder).read_text()))
    except (OSError, ValueError, TypeError):
        return None


def _file(folder: Path) -> Path:
    return folder / "instance.json"


def _held(folder: Path, doing: str) -> str:
    other = running_instance(folder)
    where = f", at {other.address} (process {other.process})" if other else ""
    return (
        f"Iron Kettle runs already from this folder{where}. Stop that one first"
        + (f" to {doing}" if doing else "")
        + "; two never share one database."
    )
