"""Kill the server and the database over and over while entries are written: nothing acknowledged may be lost.

Bounded and seeded; against a cluster of its own on loopback. ``./kettle bench faults`` is the long run, the
tests a short one.
"""

from __future__ import annotations

import http.client
import json
import os
import random
import signal
import sys
import threading
import time
import uuid
from collections.abc import Mapping
from dataclasses import dataclass, field
from datetime import UTC, datetime

from ironkettle.demo.load import shipped_pins
from ironkettle.launch.address import Listening
from ironkettle.launch.cluster import Cluster, throwaway_cluster
from ironkettle.launch.environment import project_env
from ironkettle.launch.machine import free_port
from ironkettle.launch.processes import Running, wait_until_ready
from ironkettle.launch.roles import OWNER
from ironkettle.launch.start import server_env
from ironkettle.launch.trouble import Trouble, run
from ironkettle.store.base import make_engine, session_of
from ironkettle.store.jobs.bench_list import Sought, list_jobs
from ironkettle.store.jobs.logs import check_log, snapshot_differs
from ironkettle.store.jobs.rows import JobRow, log_rows

WRITERS = ("bede", "ines", "tamsin")
_GIVE_UP_S = 30.0


@dataclass
class Outcome:
    """What a run of kills came to."""

    server_kills: int = 0
    database_kills: int = 0
    acknowledged: set[str] = field(default_factory=set)
    lost: set[str] = field(default_factory=set)
    broken_chains: int = 0

    def __str__(self) -> str:
        return (
            f"{self.server_kills} kills of the server, {self.database_kills} of the database: "
            f"{len(self.acknowledged)} entries acknowledged, {len(self.lost)} lost, {self.broken_chains} chains broken"
        )


class _Writer(threading.Thread):
    """One device that records notes without end and sends each again until it is answered."""

    def __init__(self, port: int, person: str, job: str, acknowledged: set[str], stop: threading.Event) -> None:
        super().__init__(daemon=True)
        self._port, self._person, self._job = port, person, job
        self._acknowledged, self._halt = acknowledged, stop
        self._cookie = ""

    def run(self) -> None:
        number = 0
        while not self._halt.is_set():
            number += 1
            entry = str(uuid.uuid4())
            note = {"kind": "note_made", "text": f"{self._person} {number}"}
            body = {"id": entry, "bench_time": "2026-11-24T09:00:00Z", "payload": note}
            if self._until_answered(f"/api/jobs/{self._job}/entries", body):
                self._acknowledged.add(entry)

    def _until_answered(self, path: str, body: Mapping[str, object]) -> bool:
        while not self._halt.is_set():
            status = self._send(path, body)
            if status == 401:
                self._send("/api/session", {"person": self._person, "pin": shipped_pins()[self._person]})
            elif status is not None and status < 500:
                return status == 200
            else:
                self._halt.wait(0.05)
        return False

    def _send(self, path: str, body: Mapping[str, object]) -> int | None:
        connection = http.client.HTTPConnection("127.0.0.1", self._port, timeout=10)
        try:
            headers = {"Content-Type": "application/json", "Cookie": self._cookie}
            connection.request("POST", path, json.dumps(body), headers)
            answer = connection.getresponse()
            answer.read()
            self._cookie = (answer.headers["set-cookie"] or self._cookie).split(";")[0]
            return answer.status
        except (OSError, http.client.HTTPException):
            return None
        finally:
            connection.close()


class Bench:
    """A database, a server and writers of its own."""

    def __init__(self) -> None:
        # As a user's database, not as a test's: a kill must find every acknowledged entry on the disk.
        self.cluster: Cluster = throwaway_cluster(free_port(), durable=True)
        self.running = Running()
        self.listening = Listening("127.0.0.1", free_port())

    def begin(self) -> None:
        self.cluster.start()
        env = project_env(KETTLE_DATABASE_URL=self.cluster.url(), KETTLE_OWNER_DATABASE_URL=self.cluster.url(OWNER))
        run([sys.executable, "-m", "ironkettle.prepare", "--demo"], env=env, what="Preparing the database")
        self.start_server()

    def start_server(self) -> None:
        env = server_env(self.cluster.url(), self.listening, free_port())
        wait_until_ready(self.running.spawn("server", [sys.executable, "-m", "ironkettle"], env), self.listening)

    def kill_server(self) -> None:
        server = self.running.children["server"]
        server.send_signal(signal.SIGKILL)
        server.wait()
        self.start_server()

    def kill_database(self) -> None:
        """SIGKILL to its main process; its helpers end by themselves, and it recovers from its log."""
        os.kill(int((self.cluster.data / "postmaster.pid").read_text().splitlines()[0]), signal.SIGKILL)
        until = time.monotonic() + _GIVE_UP_S
        while True:
            try:
                self.cluster.start()
                return
            except Trouble:
                if time.monotonic() > until:
                    raise
                time.sleep(0.2)

    def end(self) -> None:
        self.running.stop()
        self.cluster.remove()


def _wait_for_more(acknowledged: set[str], count: int, stop: threading.Event) -> None:
    """Until so many more entries were acknowledged: a kill in between means something."""
    wanted, until = len(acknowledged) + count, time.monotonic() + _GIVE_UP_S
    while len(acknowledged) < wanted and time.monotonic() < until:
        stop.wait(0.01)


def endure(server_kills: int, database_kills: int, *, seed: int) -> Outcome:
    """Kill as often as asked, in an order drawn from the seed, while three devices write to one job."""
    chance = random.Random(seed)
    kills = ["server"] * server_kills + ["database"] * database_kills
    chance.shuffle(kills)
    bench, outcome, stop = Bench(), Outcome(), threading.Event()
    try:
        bench.begin()
        engine = make_engine(bench.cluster.url())
        with session_of(engine) as session:
            job = str(list_jobs(session, Sought("open"), datetime.now(UTC)).jobs[-1].id)
        writers = [_Writer(bench.listening.port, who, job, outcome.acknowledged, stop) for who in WRITERS]
        for writer in writers:
            writer.start()
        for kill in kills:
            _wait_for_more(outcome.acknowledged, chance.randint(5, 15), stop)
            if kill == "server":
                bench.kill_server()
                outcome.server_kills += 1
            else:
                bench.kill_database()
                outcome.database_kills += 1
        _wait_for_more(outcome.acknowledged, 10, stop)
        stop.set()
        for writer in writers:
            writer.join(timeout=20)
        with session_of(engine) as session:
            row = session.get_one(JobRow, uuid.UUID(job))
            there = {str(entry.id) for entry in log_rows(session, row.id)}
            outcome.broken_chains = len(check_log(session, row)) + snapshot_differs(session, row)
        outcome.lost = outcome.acknowledged - there
        engine.dispose()
    finally:
        stop.set()
        bench.end()
    return outcome


def main() -> int:
    outcome = endure(100, 10, seed=417)
    print(outcome)
    return 1 if outcome.lost or outcome.broken_chains else 0


if __name__ == "__main__":
    sys.exit(main())
