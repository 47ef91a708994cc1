"""Trouble a user can do something about, told in one sentence."""

from __future__ import annotations

import subprocess
from collections.abc import Mapping, Sequence
from pathlib import Path

PROJECT = Path(__file__).resolve().parents[3]
VAR = PROJECT / "var"


class Trouble(Exception):
    """Stops the command with this one sentence."""


def say(text: str) -> None:
    """A line for the user, at once."""
    print(text, flush=True)


def run(
    command: Sequence[str], *, cwd: Path = PROJECT, env: Mapping[str, str] | None = None, what: str, quiet: bool = True
) -> str:
    """Run a command; on failure raise Trouble with what it was for and the last lines it printed."""
    done = subprocess.run(
        command,
        cwd=cwd,
        env=None if env is None else dict(env),
        stdin=subprocess.DEVNULL,
        stdout=subprocess.PIPE if quiet else None,
        stderr=subprocess.STDOUT if quiet else None,
        text=True,
        check=False,
    )
    if done.returncode != 0:
        tail = "\n  ".join((done.stdout or "").strip().splitlines()[-12:])
        raise Trouble(f"{what} failed (exit code {done.returncode})." + (f" It said:\n  {tail}" if tail else ""))
    return done.stdout or ""
