"""The Python environment: uv fills .venv from the hashed lock, again only when the lock changed."""

from __future__ import annotations

import hashlib
import os
import shutil
import subprocess
import sys
from pathlib import Path

from ironkettle.launch.machine import ensure_disk, install
from ironkettle.launch.trouble import PROJECT, VAR, Trouble, run, say

VENV = PROJECT / ".venv"
PYTHON = VENV / "bin" / "python"
LOCK = PROJECT / "requirements.lock"
_UV_LOCK = Path(__file__).with_name("uv-requirements.txt")
_STAMP = VENV / "kettle-stamp"


def ensure_environment() -> None:
    """Make or renew .venv so that it holds what requirements.lock says."""
    wanted = hashlib.sha256(LOCK.read_bytes() + sys.version.encode()).hexdigest()
    if _STAMP.exists() and _STAMP.read_text() == wanted and PYTHON.exists():
        return
    ensure_disk()
    say("Making the Python environment (.venv) from requirements.lock …")
    uv = _ensure_uv()
    env = {**os.environ, "UV_PYTHON_DOWNLOADS": "never", "UV_NO_PROGRESS": "1"}
    run([str(uv), "venv", "--clear", "--python", sys.executable, str(VENV)], env=env, what="Making .venv")
    run(
        [str(uv), "pip", "sync", "--python", str(PYTHON), "--require-hashes", "--compile-bytecode", str(LOCK)],
        env=env,
        what="Installing the Python packages (is the network reachable?)",
    )
    packages = next((VENV / "lib").glob("python3*/site-packages"))
    (packages / "ironkettle-project.pth").write_text(f"{PROJECT / 'src'}\n")
    _STAMP.write_text(wanted)


def project_env(**extra: str) -> dict[str, str]:
    """The environment of this project's Python: its sources on the path, bytecode kept for the next start."""
    kept = {name: value for name, value in os.environ.items() if name != "PYTHONDONTWRITEBYTECODE"}
    return {**kept, "PYTHONPATH": str(PROJECT / "src"), **extra}


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
