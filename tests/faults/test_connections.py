"""Half-sent requests, a locked row and a full pool: they end in time, and hold nobody else up."""

from __future__ import annotations

import http.client
import json
import signal
import socket
import subprocess
import sys
import time
import urllib.request
import uuid
from collections.abc import Iterator
from typing import Any

import pytest
from sqlalchemy import Engine, text

from ironkettle.api.base import bounds
from ironkettle.launch.address import Listening
from ironkettle.launch.machine import free_port
from ironkettle.launch.start import server_env
from ironkettle.store.base import session_of
from tests.people import PINS
from tests.walk import demo_job

# The server of the application with its patience cut short.
SHORT = """
from ironkettle.api.base import bounds as http
http.HEAD_WITHIN_S, http.BODY_WITHIN_S = 1.0, 1.0
import sys
from ironkettle import serving
sys.exit(serving.serve())
"""


class Server:
    def __init__(self, database_url: str) -> None:
        self.listening = Listening("127.0.0.1", free_port())
        env = server_env(database_url, self.listening, free_port())
        self.process = subprocess.Popen([sys.executable, "-c", SHORT], env=env)
        until = time.monotonic() + 60
        while time.monotonic() < until:
            try:
                with urllib.request.urlopen(f"{self.listening.address}/api/ping", timeout=2):
                    return
            except OSError:
                assert self.process.poll() is None
        pytest.fail("the server did not start")

    def connect(self) -> socket.socket:
        return socket.create_connection(("127.0.0.1", self.listening.port), timeout=10)

    def call(self, method: str, path: str, body: object = None, cookie: str = "") -> tuple[int, str, dict[str, Any]]:
        connection = http.client.HTTPConnection("127.0.0.1", self.listening.port, timeout=30)
        headers = {"Content-Type": "application/json", "Cookie": cookie}
        connection.request(method, path, None if body is None else json.dumps(body), headers)
        answer = connection.getresponse()
        content = answer.read()
        set_cookie = (answer.headers["set-cookie"] or "").split(";")[0]
        connection.close()
        return answer.status, set_cookie, json.loads(content) if content else {}

    def stop(self) -> None:
        self.process.terminate()
        self.process.wait(timeout=20)


@pytest.fixture(scope="module")
def running(database_url: str, engine: Engine) -> Iterator[Server]:
    server = Server(database_url)
    yield server
    server.stop()


@pytest.fixture
def server(running: Server, workshop: Engine) -> Server:
    """The server over the demo workshop."""
    return running


def head(server: Server, *lines: str) -> bytes:
    return "\r\n".join([*lines, f"Host: 127.0.0.1:{server.listening.port}"]).encode()


def everything(line: socket.socket) -> bytes:
    """What comes until the server hangs up; a server that does not runs into the time-out of the line."""
    parts = []
    while part := line.recv(4000):
        parts.append(part)
    return b"".join(parts)


def test_a_head_that_never_ends_is_hung_up_on(server: Server) -> None:
    assert bounds.HEAD_WITHIN_S < 60
    for sent in (b"", b"GET /api/ping HT", head(server, "GET /api/ping HTTP/1.1")):
        with server.connect() as line:
            line.sendall(sent)
            assert everything(line) == b""


def test_a_second_head_on_the_same_line_is_hung_up_on_too(server: Server) -> None:
    with server.connect() as line:
        line.sendall(head(server, "GET /api/ping HTTP/1.1") + b"\r\n\r\n")
        line.sendall(b"GET /api/pi")
        assert b"200 OK" in everything(line)


def test_a_body_that_never_comes_is_answered_and_ended(server: Server) -> None:
    with server.connect() as line:
        line.sendall(head(server, "POST /api/rings/match HTTP/1.1", "Content-Length: 500") + b"\r\n\r\n{")
        answer = everything(line)
    assert b"408" in answer.split(b"\r\n")[0]
    assert b"did not arrive completely in time" in answer


def test_half_open_connections_do_not_stop_it_from_stopping(database_url: str, workshop: Engine) -> None:
    server = Server(database_url)
    lines = [server.connect() for _ in range(20)]
    for number, line in enumerate(lines):
        line.sendall(
            b"GET /api/ping HT"
            if number % 2
            else head(server, "POST /api/session HTTP/1.1", "Content-Length: 9") + b"\r\n\r\n{"
        )
    began = time.monotonic()
    server.process.send_signal(signal.SIGTERM)
    server.process.wait(timeout=20)
    assert time.monotonic() - began < 15
    for line in lines:
        line.close()


def test_one_locked_row_is_told_as_busy_and_holds_up_nobody_else(server: Server, workshop: Engine) -> None:
    _, cookie, _ = server.call("POST", "/api/session", {"person": "bede", "pin": PINS["bede"]})
    with session_of(workshop) as session:
        job = str(demo_job(session).id)
    note = {"kind": "note_made", "text": "wet at the wiper"}
    entry = {"id": str(uuid.uuid4()), "bench_time": "2026-11-24T09:00:00Z", "payload": note}
    with workshop.begin() as connection:
        connection.execute(text("SELECT 1 FROM jobs FOR UPDATE"))
        began = time.monotonic()
        status, _, problem = server.call("POST", f"/api/jobs/{job}/entries", entry, cookie)
        assert time.monotonic() - began < 12
        assert (status, problem["type"]) == (503, "/problems/busy")
        assert server.call("GET", f"/api/jobs/{job}", cookie=cookie)[0] == 200
    assert server.call("POST", f"/api/jobs/{job}/entries", entry, cookie)[0] == 200


def test_four_hundred_idle_connections_stop_nobody(server: Server) -> None:
    assert bounds.MOST_IDLE_AN_ADDRESS < 400
    lines = [server.connect() for _ in range(420)]
    for _ in range(5):
        assert server.call("GET", "/api/ping")[0] == 200
    # The oldest made room.
    assert everything(lines[0]) == b""
    for line in lines:
        line.close()


def test_two_hundred_watchers_hold_up_nobody_and_end_when_they_sign_out(server: Server, workshop: Engine) -> None:
    _, cookie, _ = server.call("POST", "/api/session", {"person": "bede", "pin": PINS["bede"]})
    watch = head(server, "GET /api/stand/live HTTP/1.1", f"Cookie: {cookie}") + b"\r\n\r\n"
    lines = []
    for _ in range(200):
        line = server.connect()
        line.sendall(watch)
        lines.append(line)
    # Whoever has something to record is answered all the while.
    assert server.call("GET", "/api/jobs", cookie=cookie)[0] == 200
    for line in lines:
        assert line.recv(4000).startswith(b"HTTP/1.1 200 OK")
    assert server.call("DELETE", "/api/session", cookie=cookie)[0] < 300
    for line in lines:
        everything(line)
        line.close()
    assert server.call("GET", "/api/jobs", cookie=cookie)[0] == 401


def test_a_body_too_large_is_answered_so_that_its_sender_can_read_it(server: Server) -> None:
    """Sent whole before anybody reads, as browsers do."""
    size = 5 * bounds.MEGABYTE
    with server.connect() as line:
        asked = head(server, "POST /api/rings/match HTTP/1.1", f"Content-Length: {size}", "Connection: close")
        line.sendall(asked + b"\r\n\r\n" + b" " * size)
        answer = everything(line)
    assert b" 413 " in answer.split(b"\r\n")[0]
    assert b"larger than 1000 kB" in answer
