"""Figures of a recording: eight channels at fifty a second for a minute, five watching; a certificate with three traces."""

from __future__ import annotations

import http.client
import json
import math
import threading
import time
import uuid
from collections.abc import Iterator

from ironkettle.benchmarks.jobs import Bench, Figure
from ironkettle.benchmarks.timing import median_time
from ironkettle.core.jobs import read_payload
from ironkettle.core.machine.stand import SHIPPED
from ironkettle.demo.load import shipped_pins
from ironkettle.store.base import make_engine

SECONDS, RATE_HZ, WATCHERS = 60.0, 50, 5
_TRACE = 20_000


class Person:
    """Somebody signed in, one request after the other."""

    def __init__(self, port: int, who: str) -> None:
        self._port = port
        self.cookie = ""
        self.ask("POST", "/api/session", {"person": who, "pin": shipped_pins()[who]})

    def ask(self, method: str, path: str, body: object = None) -> bytes:
        headers = {"Content-Type": "application/json", "Cookie": self.cookie}
        connection = http.client.HTTPConnection("127.0.0.1", self._port)
        connection.request(method, path, None if body is None else json.dumps(body), headers)
        answer = connection.getresponse()
        self.cookie = (answer.headers["set-cookie"] or self.cookie).split(";")[0]
        answer_ = answer.read()
        connection.close()
        if answer.status >= 300:
            raise RuntimeError(f"{method} {path} gave {answer.status}: {answer_[:300]!r}")
        return answer_

    def watch(self, late: list[float], until: threading.Event) -> None:
        """Reads what is told live until it is enough, and notes how old each message is. [s]"""
        connection = http.client.HTTPConnection("127.0.0.1", self._port)
        connection.request("GET", "/api/stand/live", headers={"Cookie": self.cookie})
        answer = connection.getresponse()
        while not until.is_set() and (line := answer.readline()):
            if line.startswith(b"data:"):
                late.append(time.time() - json.loads(line[5:])["read_at"])
        connection.close()


def figures(url: str, port: int) -> Iterator[Figure]:
    """On a running server with the demo in its database."""
    engine = make_engine(url)
    bench = Bench(engine)
    lead = Person(port, "tamsin")
    lead.ask("PUT", "/api/stand/map", SHIPPED.model_copy(update={"rate_hz": RATE_HZ}).model_dump(mode="json"))
    job = bench.tested(0)
    run = str(uuid.uuid4())
    gauge = {"name": "Bench gauge", "range": "250 bar", "resolution": "0.1 bar", "accuracy_pct": 0.5}
    started = {"kind": "test_started", "test": "rod-side-hold", "run": run, "gauge": gauge, "source": "stand"}
    bench.add(job, read_payload(started))
    late: list[float] = []
    until = threading.Event()
    watching = [
        threading.Thread(target=Person(port, "tamsin").watch, args=(late, until), daemon=True) for _ in range(WATCHERS)
    ]
    for thread in watching:
        thread.start()
    lead.ask("POST", "/api/stand/recordings", {"job": str(job), "run": run})
    while not (answer_ := json.loads(lead.ask("GET", f"/api/stand/recordings/{run}")))["count"]:
        time.sleep(0.05)
    time.sleep(SECONDS)
    answer_ = json.loads(lead.ask("POST", f"/api/stand/recordings/{run}/stop"))
    until.set()
    for thread in watching:
        thread.join(timeout=2)
    lead.ask("DELETE", "/api/stand/map")
    wanted = answer_["held_s"] * RATE_HZ + 1
    yield f"readings lost of {wanted:,.0f}: {max(0.0, wanted - answer_['count']):.0f}; held", answer_["held_s"], 0.0
    late.sort()
    yield f"a reading shown to {WATCHERS} watchers, 99 of 100 within", late[math.floor(0.99 * len(late))], 0.0
    empty, traced = bench.tested(0), _three_traces(bench)
    floor = median_time(lambda: lead.ask("GET", f"/api/jobs/{empty}/certificate.pdf"), 5)
    made = median_time(lambda: lead.ask("GET", f"/api/jobs/{traced}/certificate.pdf"), 5)
    yield f"certificate with 3 traces of {_TRACE:,} readings / without", made, floor
    engine.dispose()


def _three_traces(bench: Bench) -> uuid.UUID:
    """A job with three runs that were closed."""
    job = bench.tested(0)
    gauge = {"name": "Bench gauge", "range": "250 bar", "resolution": "0.1 bar", "accuracy_pct": 0.5}
    read = [{"t_s": 0.05 * n, "pressure_mpa": 18.0 - 1e-6 * n, "temperature_c": 24.0} for n in range(_TRACE)]
    for _ in range(3):
        answer_ = {"kind": "test_run", "test": "rod-side-hold", "when": "as_left", "gauge": gauge, "samples": read}
        bench.add(job, read_payload(answer_))
    return job


__all__ = ["Person", "figures"]
