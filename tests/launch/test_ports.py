"""Ports: one that is given out is nobody else's, and only a stand that was named is taken for one."""

from __future__ import annotations

import socket
import subprocess
import sys

import pytest

from ironkettle.launch.machine import free_port, port_is_free
from ironkettle.launch.start import stand_port
from ironkettle.launch.trouble import Trouble


@pytest.fixture(autouse=True)
def _nothing_named(monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.delenv("KETTLE_STAND_PORT", raising=False)
    monkeypatch.delenv("KETTLE_STAND_HOST", raising=False)


def test_a_free_port_is_given_to_one_process_only() -> None:
    mine = {free_port() for _ in range(20)}
    assert len(mine) == 20
    ask = "from ironkettle.launch import machine; machine._PORTS = range({0}, {1}); machine.free_port()"
    # Another process is given none of them, though nobody listens on them yet.
    one = min(mine)
    done = subprocess.run([sys.executable, "-c", ask.format(one, one + 1)], capture_output=True, text=True, check=False)
    assert f"Every port from {one} to {one} is taken" in done.stderr
    assert all(port_is_free(port) for port in mine)


def test_what_answers_is_a_stand_only_where_it_was_named(
    monkeypatch: pytest.MonkeyPatch, capsys: pytest.CaptureFixture[str]
) -> None:
    with socket.socket() as other:
        port = free_port()
        other.bind(("127.0.0.1", port))
        other.listen()
        # Another server's stand, on the port that would be this one's: a simulated stand of its own, elsewhere.
        own, simulated = stand_port(port - 2, {port - 2})
        assert simulated
        assert own != port
        assert f"Port {port} is taken, so the simulated test stand is on port {own}" in capsys.readouterr().out
        monkeypatch.setenv("KETTLE_STAND_PORT", str(port))
        assert stand_port(8440, {8440}) == (port, False)
        # Its own database, or itself, is no stand even where it is named.
        with pytest.raises(Trouble, match="which this server or its database uses itself"):
            stand_port(8440, {8440, port})
    assert stand_port(8440, {8440}) == (port, True)
    monkeypatch.setenv("KETTLE_STAND_HOST", "192.0.2.7")
    assert stand_port(8440, {8440, port}) == (port, False)


def test_its_own_database_is_no_stand() -> None:
    database = free_port()
    own, simulated = stand_port(database - 2, {database - 2, database})
    assert simulated
    assert own != database
