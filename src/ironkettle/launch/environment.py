"""Python environments: one folder a lock file, made beside those there are, switched to when whole."""

from __future__ import annotations

import fcntl
import hashlib
import os
import shutil
import subprocess
import sys
from dataclasses import dataclass
from pathlib import Path
from typing import IO

from ironkettle.launch.machine import ensure_disk, install
from ironkettle.launch.trouble import PROJECT, VAR, Trouble, run, say

RUN_LOCK = PROJECT / "requirements.lock"
DEV_LOCK = PROJECT / "requirements-dev.lock"
ENVIRONMENTS = VAR / "env"
SHORTCUT = PROJECT / ".venv"
_UV_LOCK = Path(__file__).with_name("uv-requirements.txt")
# Files of environments in use, held open: the lock on them goes with the process.
_HELD: list[IO[str]] = []


@dataclass(frozen=True)
class Environment:
    """One environment. It is whole once its stamp is there, and never changed after that."""

    folder: Path

    @property
    def bin(self) -> Path:
        return self.folder / "bin"

    @property
    def python(self) -> Path:
        return self.bin / "python"

    @property
    def stamp(self) -> Path:
        return self.folder / "kettle-stamp"

    def is_whole(self) -> bool:
        return self.stamp.exists() and self.python.exists()

    def hold(self) -> None:
        """Mark it in use for as long as this process lives."""
        self.folder.mkdir(parents=True, exist_ok=True)
        file = (self.folder / "in-use").open("a")
        fcntl.flock(file, fcntl.LOCK_SH)
        _HELD.append(file)

    def is_in_use(self) -> bool:
        try:
            with (self.folder / "in-use").open("a") as file:
                fcntl.flock(file, fcntl.LOCK_EX | fcntl.LOCK_NB)
        except BlockingIOError:
            return True
        except FileNotFoundError:
            return False
        return False


def ensure_environment(*, dev: bool = False) -> Environment:
    """The environment of the lock file, made when there is none; for development with its tools too.

    What runs in another environment is not touched. A patch release of Python is no reason for a new
    one; another minor version is.
    """
    lock = DEV_LOCK if dev else RUN_LOCK
    version = f"{sys.version_info.major}.{sys.version_info.minor}"
    digest = hashlib.sha256(lock.read_bytes() + version.encode()).hexdigest()[:12]
    wanted = Environment(ENVIRONMENTS / f"{'dev' if dev else 'run'}-{digest}")
    ENVIRONMENTS.mkdir(parents=True, exist_ok=True)
    if not wanted.is_whole():
        with (ENVIRONMENTS / "making").open("a") as turn:
            fcntl.flock(turn, fcntl.LOCK_EX)
            if not wanted.is_whole():
                _make(wanted, lock)
            _remove_unused(wanted)
    wanted.hold()
    return wanted


def project_env(**extra: str) -> dict[str, str]:
    """The environment of this project's Python: its sources on the path, bytecode kept for the next start."""
    kept = {name: value for name, value in os.environ.items() if name != "PYTHONDONTWRITEBYTECODE"}
    return {**kept, "PYTHONPATH": str(PROJECT / "src"), **extra}


def _make(wanted: Environment, lock: Path) -> None:
    ensure_disk()
    say(f"Making the Python environment from {lock.name} …")
    uv = _ensure_uv()
    if wanted.is_in_use():
        raise Trouble(f"The Python environment {wanted.folder} is in use and incomplete; stop what runs in it first.")
    # Left by a making that was interrupted, or its Python is gone from the machine.
    shutil.rmtree(wanted.folder, ignore_errors=True)
    env = {**os.environ, "UV_PYTHON_DOWNLOADS": "never", "UV_NO_PROGRESS": "1"}
    run([str(uv), "venv", "--python", sys.executable, str(wanted.folder)], env=env, what="Making the environment")
    run(
        [
            *(str(uv), "pip", "sync", "--python", str(wanted.python)),
            *("--require-hashes", "--compile-bytecode", str(lock)),
        ],
        env=env,
        what="Installing the Python packages (is the network reachable?)",
    )
    packages = next((wanted.folder / "lib").glob("python3*/site-packages"))
    (packages / "ironkettle-project.pth").write_text(f"{PROJECT / 'src'}\n")
    wanted.stamp.write_text("whole\n")
    _point_shortcut(wanted)


def _point_shortcut(wanted: Environment) -> None:
    """``.venv`` for editors and by-hand use. A real folder of that name, from earlier versions, stays."""
    if SHORTCUT.exists() and not SHORTCUT.is_symlink():
        say(f"{SHORTCUT} is from an earlier version and no longer used; it may be removed when nothing runs in it.")
        return
    fresh = SHORTCUT.with_name(".venv.new")
    fresh.unlink(missing_ok=True)
    fresh.symlink_to(wanted.folder)
    fresh.replace(SHORTCUT)


def _remove_unused(wanted: Environment) -> None:
    """Older environments of the same purpose that nothing runs in."""
    purpose = wanted.folder.name.split("-")[0]
    for folder in ENVIRONMENTS.glob(f"{purpose}-*"):
        if folder != wanted.folder and not Environment(folder).is_in_use():
            shutil.rmtree(folder, ignore_errors=True)


def _ensure_uv() -> Path:
    boot = VAR / "boot"
    uv = boot / "bin" / "uv"
    stamp = boot / "kettle-stamp"
    if uv.exists() and stamp.exists() and stamp.read_text() == _UV_LOCK.read_text():
        return uv
    shutil.rmtree(boot, ignore_errors=True)
    boot.parent.mkdir(parents=True, exist_ok=True)
    if not _make_venv(boot):
        install("python3-venv")
        if not _make_venv(boot):
            raise Trouble("Python cannot make virtual environments even with the package python3-venv.")
    run(
        [str(boot / "bin" / "pip"), "install", "--quiet", "--require-hashes", "-r", str(_UV_LOCK)],
        what="Installing uv (is the network reachable?)",
    )
    stamp.write_text(_UV_LOCK.read_text())
    return uv


def _make_venv(folder: Path) -> bool:
    done = subprocess.run([sys.executable, "-m", "venv", str(folder)], capture_output=True, check=False)
    if done.returncode != 0:
        shutil.rmtree(folder, ignore_errors=True)
    return done.returncode == 0
