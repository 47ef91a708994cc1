"""The machine: Debian packages, disk and ports."""

from __future__ import annotations

import fcntl
import os
import random
import shutil
import socket
import subprocess
import tempfile
from pathlib import Path

from ironkettle.launch.trouble import PROJECT, Trouble, run, say

DISK_NEEDED_BYTES = 1_500_000_000


def postgres_bin() -> Path | None:
    """The folder with initdb and pg_ctl, newest version first; None when PostgreSQL 15+ is not there."""
    versions = [
        p for p in Path("/usr/lib/postgresql").glob("*/bin") if (p / "initdb").exists() and p.parent.name.isdigit()
    ]
    versions = [p for p in versions if int(p.parent.name) >= 15]
    if versions:
        return max(versions, key=lambda p: int(p.parent.name))
    found = shutil.which("initdb")
    return Path(found).resolve().parent if found else None


def ensure_postgres() -> Path:
    """PostgreSQL's programs, installed from Debian's packages when missing."""
    if postgres_bin() is None:
        install("postgresql")
    folder = postgres_bin()
    if folder is None:
        raise Trouble("PostgreSQL 15 or newer was not found after installing the package postgresql.")
    return folder


def ensure_chromium() -> None:
    """Debian's Chromium without its window, which the browser tests drive: it draws the pages alone, in half the time."""
    if not Path("/usr/bin/chromium-headless-shell").exists():
        install("chromium-headless-shell")


def install(*packages: str) -> None:
    """Install Debian packages, saying what first; as root, else with sudo, else Trouble naming them."""
    names = " ".join(packages)
    apt = shutil.which("apt-get")
    if apt is None:
        raise Trouble(f"This needs {names}, and there is no apt-get here; install it by hand and start again.")
    prefix: list[str] = []
    if os.geteuid() != 0:
        sudo = shutil.which("sudo")
        if sudo is None or subprocess.run([sudo, "-n", "true"], capture_output=True, check=False).returncode != 0:
            raise Trouble(f"This needs {names}; install it with: sudo apt-get install {names}")
        prefix = [sudo, "-n"]
    say(f"Installing with apt: {names}")
    env = {**os.environ, "DEBIAN_FRONTEND": "noninteractive"}
    run([*prefix, apt, "update", "-qq"], env=env, what="apt-get update")
    run(
        [*prefix, apt, "install", "-y", "-qq", "--no-install-recommends", *packages],
        env=env,
        what=f"Installing {names}",
    )


def ensure_disk(folder: Path = PROJECT) -> None:
    """Enough free space to build and to run."""
    free = shutil.disk_usage(folder).free
    if free < DISK_NEEDED_BYTES:
        raise Trouble(f"Only {free // 1_000_000} MB are free on the disk of {folder}; 1500 MB are needed.")


def port_is_free(port: int, host: str = "127.0.0.1") -> bool:
    """Whether a server could listen there now."""
    with socket.socket() as probe:
        probe.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1)
        try:
            probe.bind((host, port))
        except OSError:
            return False
    return True


# Outside the ports that the kernel gives to outgoing connections.
_PORTS = range(20_000, 30_000)
# Locks of the ports this process has claimed; they end with it.
_claimed: list[int] = []


def free_port() -> int:
    """A port nobody listens on, claimed against other processes of this user for as long as this one lives. Raises Trouble."""
    folder = Path(tempfile.gettempdir()) / f"iron-kettle-ports-{os.geteuid()}"
    folder.mkdir(mode=0o700, exist_ok=True)
    for port in random.sample(_PORTS, len(_PORTS)):
        lock = os.open(folder / str(port), os.O_CREAT | os.O_RDWR, 0o600)
        try:
            fcntl.flock(lock, fcntl.LOCK_EX | fcntl.LOCK_NB)
        except BlockingIOError:
            os.close(lock)
            continue
        if port_is_free(port):
            _claimed.append(lock)
            return port
        os.close(lock)
    raise Trouble(f"Every port from {_PORTS.start} to {_PORTS.stop - 1} is taken.")
