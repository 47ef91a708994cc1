"""Figures of the running server: an answer against an empty one, and the warm start of everything."""

from __future__ import annotations

import http.client
import json
import time
from collections.abc import Iterator

from ironkettle.benchmarks import jobs, photos, recording, shop
from ironkettle.benchmarks.core import Figure
from ironkettle.benchmarks.timing import median_time
from ironkettle.launch.address import Listening
from ironkettle.launch.cluster import Cluster, throwaway_cluster
from ironkettle.launch.environment import Environment, ensure_environment, project_env
from ironkettle.launch.machine import free_port
from ironkettle.launch.processes import Running, wait_until_ready
from ironkettle.launch.roles import OWNER
from ironkettle.launch.start import prepare, server_env

BODY = json.dumps({"inside_diameter": "44.1 mm", "section": "3.5 mm"})
_BARE = (
    "import uvicorn; from fastapi import FastAPI; app = FastAPI();\n"
    "app.get('/api/health')(lambda: {{}}); uvicorn.run(app, port={port}, log_level='warning')"
)


def figures() -> Iterator[Figure]:
    environment = ensure_environment(dev=True)
    cluster = throwaway_cluster(free_port())
    running = Running()
    try:
        cluster.start()
        prepare(environment, cluster.url(), cluster, demo="--demo")
        port = start(environment, running, cluster)
        connection = http.client.HTTPConnection("127.0.0.1", port)
        floor = median_time(lambda: call(connection, "GET", "/api/ping"), 200)
        answer = median_time(lambda: call(connection, "POST", "/api/rings/match", BODY), 200)
        yield "POST /api/rings/match / empty endpoint", answer, floor
        yield from jobs.figures(cluster.url())
        yield from recording.figures(cluster.url(), port)
        yield from shop.figures(cluster.url(), cluster.url(OWNER), port)
        running.stop()
        cluster.stop()
        began = time.perf_counter()
        cluster.start()
        prepare(environment, cluster.url(), cluster, demo="--demo")
        start(environment, running, cluster)
        warm = time.perf_counter() - began
        yield "warm start, database to first answer / bare FastAPI", warm, bare_start(environment, running)
        # Last: its thousand jobs are no part of a start.
        yield from photos.figures(cluster.url())
    finally:
        running.stop()
        cluster.remove()


def start(environment: Environment, running: Running, cluster: Cluster) -> int:
    listening, stand = Listening("127.0.0.1", free_port()), free_port()
    env = server_env(cluster.url(), listening, stand)
    running.spawn("stand", [str(environment.python), "-m", "ironkettle.stand.simulated", str(stand)], env)
    wait_until_ready(running.spawn("server", [str(environment.python), "-m", "ironkettle"], env), listening)
    return listening.port


def bare_start(environment: Environment, running: Running) -> float:
    listening = Listening("127.0.0.1", free_port())
    began = time.perf_counter()
    command = [str(environment.python), "-c", _BARE.format(port=listening.port)]
    wait_until_ready(running.spawn("bare", command, project_env()), listening)
    return time.perf_counter() - began


def call(connection: http.client.HTTPConnection, method: str, path: str, body: str | None = None) -> bytes:
    connection.request(method, path, body, {"Content-Type": "application/json"} if body else {})
    return connection.getresponse().read()
