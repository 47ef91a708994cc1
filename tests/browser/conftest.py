"""The real server on a port of its own, driven by Debian's Chromium."""

from __future__ import annotations

import os
import signal
import ssl
import subprocess
import sys
import time
import urllib.error
import urllib.request
from collections.abc import Callable, Iterator
from functools import partialmethod
from pathlib import Path
from typing import Any

import pytest
from playwright.sync_api import APIRequestContext, ConsoleMessage, Page, expect
from sqlalchemy import Engine

from ironkettle.launch.address import Listening
from ironkettle.launch.machine import free_port
from ironkettle.launch.start import server_env
from tests.browser import steps
from tests.people import PINS

# How long to wait for what must come; a slow machine is no fault of a screen.
PATIENCE_MS = 45_000
expect.set_options(timeout=PATIENCE_MS)
# A connection that the server closed because nothing was asked for a while is opened again, as browsers do by themselves.
for _verb in ("get", "post", "put"):
    setattr(APIRequestContext, _verb, partialmethod(getattr(APIRequestContext, _verb), max_retries=3))

# Waits in the page until nothing moves (what moves with scrolling never ends); asked this way because the page's policy lets no text become a script.
AT_REST = """Promise.all(document.getAnimations().filter(one => one.playState === 'running' && one.timeline === document.timeline)
    .map(one => one.finished.catch(() => null)))"""
# A test sets the server's clock forward; no picture says so.
_ONE_CLOCK = """for (const note of document.querySelectorAll('[role=status]'))
    if (note.textContent.includes('The clock of this device')) note.style.display = 'none'"""
SHOTS = os.environ.get("KETTLE_SHOTS")


class Server:
    """The server as ./kettle start runs it, with its simulated stand; can be killed and started again."""

    def __init__(self, database_url: str, listening: Listening | None = None) -> None:
        listening = listening or Listening("127.0.0.1", free_port())
        self.port, self.stand_port, self.address = listening.port, free_port(), listening.own_address
        steps.set_clock(0)
        self._env = server_env(database_url, listening, self.stand_port)
        self.start_stand()
        self.start()

    def start_stand(self) -> None:
        self._stand = self._spawn("ironkettle.stand.simulated", str(self.stand_port))

    def kill_stand(self) -> None:
        self._stand.kill()
        self._stand.wait()

    def start(self) -> None:
        self._server = self._spawn("tests.clock", str(steps.CLOCK))
        until = time.monotonic() + 60
        while time.monotonic() < until:
            try:
                unchecked = ssl._create_unverified_context() if self.address.startswith("https") else None
                with urllib.request.urlopen(f"{self.address}/api/health", timeout=2, context=unchecked):
                    return
            except (urllib.error.URLError, OSError):
                if self._server.poll() is not None:
                    break
        pytest.fail("the server did not start")

    def ensure(self) -> None:
        """Up again, where a test that failed left it down: no other test pays for it."""
        if self._stand.poll() is not None:
            self.start_stand()
        if self._server.poll() is not None:
            self.start()

    def kill(self) -> None:
        """SIGKILL: no goodbye, as when the plug is pulled."""
        self._server.send_signal(signal.SIGKILL)
        self._server.wait()

    def stop(self) -> None:
        for process in (self._server, self._stand):
            process.terminate()
            process.wait(timeout=20)

    def _spawn(self, module: str, *arguments: str) -> subprocess.Popen[bytes]:
        return subprocess.Popen([sys.executable, "-m", module, *arguments], env=self._env)


@pytest.fixture(scope="session")
def server(database_url: str, engine: Engine) -> Iterator[Server]:
    server = Server(database_url)
    yield server
    server.stop()


@pytest.fixture(scope="session")
def browser_type_launch_args() -> dict[str, Any]:
    return {
        "executable_path": "/usr/bin/chromium-headless-shell",
        "args": ["--no-sandbox", "--disable-dev-shm-usage", "--disable-gpu", "--disable-background-networking"],
    }


@pytest.fixture(scope="session")
def browser_context_args() -> dict[str, Any]:
    """A quiet page: nothing moves."""
    return {
        "viewport": {"width": 1280, "height": 800},
        "reduced_motion": "reduce",
        "timezone_id": "UTC",
        "locale": "en-GB",
        "color_scheme": "dark",
    }


def sign_in_quietly(page: Page, server: Server, person: str) -> None:
    """Signs this browser in without its screens; those have tests of their own."""
    server.ensure()
    body = {"person": person, "pin": PINS[person]}
    assert page.context.request.post(f"{server.address}/api/session", data=body).ok


@pytest.fixture
def bench(page: Page, server: Server, workshop: Engine) -> Iterator[Page]:
    """The bench of the demo workshop with Bede at it; any error on the console fails the test."""
    faults: list[str] = []

    def listen(message: ConsoleMessage) -> None:
        # A refused entry is answered with 4xx on purpose, and a killed server with nothing at all.
        if message.type == "error" and "Failed to load resource" not in message.text:
            faults.append(message.text)

    steps.set_clock(0)
    page.set_default_timeout(PATIENCE_MS)
    page.on("console", listen)
    page.on("pageerror", lambda error: faults.append(str(error)))
    sign_in_quietly(page, server, "bede")
    page.goto(server.address)
    expect(page.get_by_role("heading", name="On the bench")).to_be_visible()
    yield page
    assert faults == []


@pytest.fixture
def shot(page: Page) -> Callable[..., None]:
    """Takes a picture for docs/screenshots when KETTLE_SHOTS names a folder; otherwise nothing."""

    def take(name: str, *, live: bool = False) -> None:
        if SHOTS:
            # What is told as it comes never rests.
            page.wait_for_load_state("load" if live else "networkidle")
            page.mouse.move(0, 0)
            page.evaluate("scrollTo(0, 0)")
            page.evaluate(AT_REST)
            page.evaluate(_ONE_CLOCK)
            page.screenshot(path=Path(SHOTS) / f"{name}.png")

    return take
