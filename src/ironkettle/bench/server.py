"""Figures of the running server: an answer against an empty one, and the warm start of everything."""

from __future__ import annotations

import http.client
import json
import time
from collections.abc import Iterator

from ironkettle.bench.core import Figure
from ironkettle.bench.timing import median_time
from ironkettle.launch.cluster import Cluster, throwaway_cluster
from ironkettle.launch.environment import PYTHON, project_env
from ironkettle.launch.machine import free_port
from ironkettle.launch.start import Running, server_env, wait_until_ready

BODY = json.dumps({"inside_diameter": "44.1 mm", "section": "3.5 mm"})
_BARE = (
    "import uvicorn; from fastapi import FastAPI; app = FastAPI();\n"
    "app.get('/api/health')(lambda: {{}}); uvicorn.run(app, port={port}, log_level='warning')"
)


def figures() -> Iterator[Figure]:
    cluster = throwaway_cluster(free_port())
    running = Running()
    try:
        cluster.start()
        port = start(running, cluster)
        connection = http.client.HTTPConnection("127.0.0.1", port)
        floor = median_time(lambda: call(connection, "GET", "/api/ping"), 200)
        answer = median_time(lambda: call(connection, "POST", "/api/rings/match", BODY), 200)
        yield "POST /api/rings/match / empty endpoint", answer, floor
        running.stop()
        cluster.stop()
        began = time.perf_counter()
        cluster.start()
        start(running, cluster)
        warm = time.perf_counter() - began
        yield "warm start, database to first answer / bare FastAPI", warm, bare_start(running)
    finally:
        running.stop()
        cluster.remove()


def start(running: Running, cluster: Cluster) -> int:
    port, stand = free_port(), free_port()
    env = server_env(cluster.url, "127.0.0.1", port, stand)
    running.spawn([str(PYTHON), "-m", "ironkettle.stand.simulated", str(stand)], env)
    wait_until_ready(
        running.spawn([str(PYTHON), "-m", "ironkettle", "--demo"], env), f"http://127.0.0.1:{port}/api/health"
    )
    return port


def bare_start(running: Running) -> float:
    port = free_port()
    began = time.perf_counter()
    server = running.spawn([str(PYTHON), "-c", _BARE.format(port=port)], project_env())
    wait_until_ready(server, f"http://127.0.0.1:{port}/api/health")
    return time.perf_counter() - began


def call(connection: http.client.HTTPConnection, method: str, path: str, body: str | None = None) -> bytes:
    connection.request(method, path, body, {"Content-Type": "application/json"} if body else {})
    return connection.getresponse().read()
