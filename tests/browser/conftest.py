"""The real server on a port of its own, driven by Debian's Chromium."""

from __future__ import annotations

import os
import signal
import subprocess
import time
import urllib.error
import urllib.request
from collections.abc import Callable, Iterator
from pathlib import Path
from typing import Any

import pytest
from playwright.sync_api import ConsoleMessage, Page, expect
from sqlalchemy import Engine

from ironkettle.launch.machine import free_port
from ironkettle.launch.start import server_env
from ironkettle.settings import PROJECT

# How long to wait for what must come; a slow machine is no fault of a screen.
PATIENCE_MS = 20_000
expect.set_options(timeout=PATIENCE_MS)

# Finished transitions of what is folded away stay on the list; only running ones count.
AT_REST = "document.getAnimations().every(one => one.playState !== 'running')"
SHOTS = os.environ.get("KETTLE_SHOTS")


class Server:
    """The server as ./kettle start runs it, with its simulated stand; can be killed and started again."""

    def __init__(self, database_url: str) -> None:
        self.port, self.stand_port = free_port(), free_port()
        self.address = f"http://127.0.0.1:{self.port}"
        self._env = server_env(database_url, "127.0.0.1", self.port, self.stand_port)
        self._stand = self._spawn("ironkettle.stand.simulated", str(self.stand_port))
        self.start()

    def start(self) -> None:
        self._server = self._spawn("ironkettle", "--empty")
        until = time.monotonic() + 60
        while time.monotonic() < until:
            try:
                with urllib.request.urlopen(f"{self.address}/api/health", timeout=2):
                    return
            except (urllib.error.URLError, OSError):
                if self._server.poll() is not None:
                    break
        pytest.fail("the server did not start")

    def kill(self) -> None:
        """SIGKILL: no goodbye, as when the plug is pulled."""
        self._server.send_signal(signal.SIGKILL)
        self._server.wait()

    def stop(self) -> None:
        for process in (self._server, self._stand):
            process.terminate()
            process.wait(timeout=20)

    def _spawn(self, module: str, *arguments: str) -> subprocess.Popen[bytes]:
        return subprocess.Popen([str(PROJECT / ".venv/bin/python"), "-m", module, *arguments], env=self._env)


@pytest.fixture(scope="session")
def server(database_url: str, engine: Engine) -> Iterator[Server]:
    server = Server(database_url)
    yield server
    server.stop()


@pytest.fixture(scope="session")
def browser_type_launch_args() -> dict[str, Any]:
    return {
        "executable_path": "/usr/bin/chromium",
        "args": ["--no-sandbox", "--disable-dev-shm-usage", "--disable-gpu", "--disable-background-networking"],
    }


@pytest.fixture(scope="session")
def browser_context_args() -> dict[str, Any]:
    return {"viewport": {"width": 1280, "height": 800}, "timezone_id": "UTC", "locale": "en-GB"}


@pytest.fixture
def bench(page: Page, server: Server, workshop: Engine) -> Iterator[Page]:
    """The bench of the demo workshop with Bede at it; any error on the console fails the test."""
    faults: list[str] = []

    def listen(message: ConsoleMessage) -> None:
        # A refused entry is answered with 4xx on purpose, and a killed server with nothing at all.
        if message.type == "error" and "Failed to load resource" not in message.text:
            faults.append(message.text)

    page.set_default_timeout(PATIENCE_MS)
    page.on("console", listen)
    page.on("pageerror", lambda error: faults.append(str(error)))
    page.goto(server.address)
    page.get_by_label("Who is at the bench").select_option("bede")
    yield page
    assert faults == []


@pytest.fixture
def shot(page: Page) -> Callable[[str], None]:
    """Takes a picture for docs/screenshots when KETTLE_SHOTS names a folder; otherwise nothing."""

    def take(name: str) -> None:
        if SHOTS:
            page.wait_for_load_state("networkidle")
            page.mouse.move(0, 0)
            page.evaluate("scrollTo(0, 0)")
            page.wait_for_function(AT_REST)
            page.screenshot(path=Path(SHOTS) / f"{name}.png")

    return take
