"""The processes of one start: they die with it, and are stopped in reverse order."""

from __future__ import annotations

import contextlib
import ctypes
import signal
import ssl
import subprocess
import time
import urllib.error
import urllib.request
from collections.abc import Sequence
from dataclasses import dataclass, field

from ironkettle.launch.address import Listening
from ironkettle.launch.trouble import PROJECT, Trouble

_PR_SET_PDEATHSIG = 1
READY_WITHIN_S = 60.0


@dataclass
class Running:
    """The children by name; one started again takes the place of the one before."""

    children: dict[str, subprocess.Popen[bytes]] = field(default_factory=dict)

    def spawn(
        self, name: str, command: Sequence[str], env: dict[str, str], *, waits: bool = False
    ) -> subprocess.Popen[bytes]:
        """``waits``: for the word that ``give_word`` gives it."""
        stdin = subprocess.PIPE if waits else subprocess.DEVNULL
        child = subprocess.Popen(command, cwd=PROJECT, env=env, stdin=stdin, preexec_fn=_die_with_parent)  # noqa: PLW1509 (single-threaded)
        self.children[name] = child
        return child

    def is_alive(self, name: str) -> bool:
        child = self.children.get(name)
        return child is not None and child.poll() is None

    def stop(self) -> None:
        children = list(reversed(self.children.values()))
        for child in children:
            if child.poll() is None:
                child.terminate()
        for child in children:
            try:
                child.wait(timeout=15)
            except subprocess.TimeoutExpired:
                child.kill()
                child.wait()


def give_word(child: subprocess.Popen[bytes]) -> None:
    """Lets a child go on that was started to wait; one that has ended is found out by whoever waits for its answer."""
    assert child.stdin is not None
    with contextlib.suppress(BrokenPipeError):
        child.stdin.write(b"\n")
        child.stdin.close()


def _die_with_parent() -> None:
    ctypes.CDLL(None).prctl(_PR_SET_PDEATHSIG, signal.SIGTERM)


def wait_until_ready(server: subprocess.Popen[bytes], listening: Listening) -> None:
    """Returns when the server answers. Raises Trouble when it ends or stays silent."""
    # Asked over loopback by its own launcher: whose certificate it is needs no proof.
    unchecked = ssl._create_unverified_context() if listening.cert else None
    until = time.monotonic() + READY_WITHIN_S
    while time.monotonic() < until:
        if server.poll() is not None:
            raise Trouble(f"The server did not start (exit code {server.returncode}); see the reason above.")
        try:
            with urllib.request.urlopen(f"{listening.own_address}/api/health", timeout=2, context=unchecked):
                return
        except (urllib.error.URLError, OSError):
            time.sleep(0.05)
    raise Trouble(f"The server did not answer within {READY_WITHIN_S:.0f} s.")
