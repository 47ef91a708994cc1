"""./kettle start: bring everything up, print the address, stop cleanly."""

from __future__ import annotations

import ctypes
import os
import signal
import subprocess
import time
import urllib.error
import urllib.request
from collections.abc import Sequence
from dataclasses import dataclass, field
from types import FrameType

from ironkettle.launch.cluster import private_cluster
from ironkettle.launch.environment import PYTHON, ensure_environment, project_env
from ironkettle.launch.frontend import ensure_build
from ironkettle.launch.machine import port_is_free
from ironkettle.launch.trouble import PROJECT, VAR, Trouble, say

_PR_SET_PDEATHSIG = 1
READY_WITHIN_S = 60.0


@dataclass
class Running:
    """The processes of one start, stopped in reverse order."""

    children: list[subprocess.Popen[bytes]] = field(default_factory=list)

    def spawn(self, command: Sequence[str], env: dict[str, str]) -> subprocess.Popen[bytes]:
        child = subprocess.Popen(command, cwd=PROJECT, env=env, stdin=subprocess.DEVNULL, preexec_fn=_die_with_parent)  # noqa: PLW1509 (single-threaded)
        self.children.append(child)
        return child

    def stop(self) -> None:
        for child in reversed(self.children):
            if child.poll() is None:
                child.terminate()
        for child in reversed(self.children):
            try:
                child.wait(timeout=15)
            except subprocess.TimeoutExpired:
                child.kill()
                child.wait()


def _die_with_parent() -> None:
    ctypes.CDLL(None).prctl(_PR_SET_PDEATHSIG, signal.SIGTERM)


def server_env(database_url: str, host: str, port: int, stand_port: int) -> dict[str, str]:
    return project_env(
        KETTLE_DATABASE_URL=database_url,
        KETTLE_HOST=host,
        KETTLE_PORT=str(port),
        KETTLE_STAND_PORT=str(stand_port),
    )


def start(*, empty: bool, host: str, port: int) -> int:
    """Run until stopped by Ctrl-C or SIGTERM. Exit code 0 after a clean stop."""
    began = time.monotonic()
    if not port_is_free(port, host):
        raise Trouble(f"Port {port} is taken, perhaps by an Iron Kettle that runs already; choose another with --port.")
    stand_port = int(os.environ.get("KETTLE_STAND_PORT", str(port + 2)))
    own_url = os.environ.get("KETTLE_DATABASE_URL")
    ensure_environment()
    ensure_build()
    VAR.mkdir(exist_ok=True)
    cluster = None
    if own_url is None:
        cluster = private_cluster(int(os.environ.get("KETTLE_DATABASE_PORT", str(port + 1))))
        cluster.start()
    running = Running()
    # Set both: a shell that starts this in the background hands SIGINT down as ignored.
    for number in (signal.SIGINT, signal.SIGTERM):
        signal.signal(number, _as_interrupt)
    try:
        env = server_env(own_url or (cluster.url if cluster else ""), host, port, stand_port)
        if port_is_free(stand_port):
            running.spawn([str(PYTHON), "-m", "ironkettle.stand.simulated", str(stand_port)], env)
        else:
            say(f"Port {stand_port} answers already: taken as the test stand, the simulated one is not started.")
        server = running.spawn([str(PYTHON), "-m", "ironkettle", "--empty" if empty else "--demo"], env)
        wait_until_ready(server, f"http://{host}:{port}/api/health")
        say(f"Iron Kettle is ready at http://{host}:{port} ({time.monotonic() - began:.1f} s). Stop it with Ctrl-C.")
        return _watch(server)
    except KeyboardInterrupt:
        say("Stopping …")
        return 0
    finally:
        signal.signal(signal.SIGINT, signal.SIG_IGN)
        running.stop()
        if cluster is not None:
            cluster.stop()


def _watch(server: subprocess.Popen[bytes]) -> int:
    code = server.wait()
    if code in (0, -signal.SIGINT, -signal.SIGTERM):
        return 0
    raise Trouble(f"The server ended by itself (exit code {code}). What was recorded is kept; start again.")


def _as_interrupt(_number: int, _frame: FrameType | None) -> None:
    raise KeyboardInterrupt


def wait_until_ready(server: subprocess.Popen[bytes], address: str) -> None:
    """Returns when the server answers. Raises Trouble when it ends or stays silent."""
    until = time.monotonic() + READY_WITHIN_S
    while time.monotonic() < until:
        if server.poll() is not None:
            raise Trouble(f"The server did not start (exit code {server.returncode}); the reason stands above.")
        try:
            with urllib.request.urlopen(address, timeout=2):
                return
        except (urllib.error.URLError, OSError):
            time.sleep(0.05)
    raise Trouble(f"The server did not answer within {READY_WITHIN_S:.0f} s.")
