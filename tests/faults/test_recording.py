"""A recording while the database and then the server are killed under it: nothing that was read is lost."""

from __future__ import annotations

import http.client
import json
import os
import signal
import threading
import time
import uuid
from collections.abc import Callable, Iterator
from itertools import pairwise
from typing import Any

import pytest

from ironkettle.benchmarks.jobs import Bench
from ironkettle.benchmarks.recording import Person
from ironkettle.core.jobs import read_payload
from ironkettle.launch.address import Listening
from ironkettle.launch.cluster import Cluster, throwaway_cluster
from ironkettle.launch.environment import ensure_environment
from ironkettle.launch.machine import free_port
from ironkettle.launch.processes import Running, wait_until_ready
from ironkettle.launch.start import prepare, server_env
from ironkettle.store.base import make_engine, session_of
from ironkettle.store.jobs.recordings import broken_recordings

PATIENCE_S = 60.0


class Shop:
    """A server with its stand and a database of its own."""

    def __init__(self) -> None:
        self.environment = ensure_environment(dev=True)
        self.cluster: Cluster = throwaway_cluster(free_port())
        self.running = Running()
        self.cluster.start()
        prepare(self.environment, self.cluster.url(), self.cluster, demo="--demo")
        self.listening, stand = Listening("127.0.0.1", free_port()), free_port()
        self._env = server_env(self.cluster.url(), self.listening, stand)
        python = str(self.environment.python)
        self.running.spawn("stand", [python, "-m", "ironkettle.stand.simulated", str(stand)], self._env)
        self.start()

    def start(self) -> None:
        self.server = self.running.spawn("server", [str(self.environment.python), "-m", "ironkettle"], self._env)
        wait_until_ready(self.server, self.listening)

    def close(self) -> None:
        self.running.stop()
        self.cluster.remove()


@pytest.fixture
def shop() -> Iterator[Shop]:
    made = Shop()
    yield made
    made.close()


def wait_for(ask: Callable[[], Any], fits: Callable[[Any], bool]) -> Any:
    """Asks again and again until the answer fits; what cannot be asked just now is asked again."""
    found = None
    until = time.monotonic() + PATIENCE_S
    while time.monotonic() < until:
        try:
            if fits(found := ask()):
                return found
        except (OSError, RuntimeError, http.client.HTTPException):
            continue
    raise AssertionError(f"it never came to that; last: {found}")


def test_nothing_read_is_lost_when_database_and_server_are_killed(shop: Shop) -> None:
    engine = make_engine(shop.cluster.url())
    bench, lead = Bench(engine), Person(shop.listening.port, "tamsin")
    job, run = bench.tested(0), str(uuid.uuid4())
    gauge = {"name": "Bench gauge", "range": "250 bar", "resolution": "0.1 bar", "accuracy_pct": 0.5}
    told = {"kind": "test_started", "test": "rod-side-hold", "run": run, "gauge": gauge, "source": "stand"}
    bench.add(job, read_payload(told))

    def state() -> dict[str, Any]:
        found: dict[str, Any] = json.loads(lead.ask("GET", f"/api/stand/recordings/{run}"))
        return found

    late: list[float] = []
    enough = threading.Event()
    watcher = threading.Thread(target=lead.watch, args=(late, enough), daemon=True)
    watcher.start()
    lead.ask("POST", "/api/stand/recordings", {"job": str(job), "run": run})
    wait_for(state, lambda now: now["count"] >= 15)
    assert len(late) > 10
    os.kill(int((shop.cluster.data / "postmaster.pid").read_text().split()[0]), signal.SIGQUIT)
    wait_for(lambda: lead.ask("GET", "/api/ping"), bool)
    with pytest.raises(RuntimeError, match="database-away"):
        lead.ask("POST", f"/api/stand/recordings/{run}/stop")
    before = len(late)
    wait_for(lambda: lead.ask("GET", "/api/ping") and len(late), lambda count: count > before + 15)
    shop.cluster.start()
    # It went on all the while, and what could not be kept is kept now.
    held = wait_for(state, lambda now: now["count"] >= 45 and not now["said"])
    gap = wait_for(
        lambda: json.loads(lead.ask("GET", f"/api/jobs/{job}/runs/{run}")),
        lambda now: now["count"] >= held["count"],
    )
    times = [one["t_s"] for one in gap["points"]]
    assert max(b - a for a, b in pairwise(times)) < 3.0
    shop.server.kill()
    shop.server.wait()
    enough.set()
    shop.start()
    ended = wait_for(state, lambda now: now["state"] == "interrupted" and now["kept"])
    assert ended["count"] >= gap["count"]
    assert "the server stopped after" in ended["said"][-1]
    view = json.loads(lead.ask("GET", f"/api/jobs/{job}"))
    (shown,) = [one for one in view["runs"] if one["run"] == run]
    assert shown["count"] == ended["count"]
    assert json.loads(lead.ask("GET", f"/api/jobs/{job}/seal"))["holds"]
    fresh = make_engine(shop.cluster.url())
    with session_of(fresh) as session:
        assert broken_recordings(session, job) == []
    fresh.dispose()
    engine.dispose()
