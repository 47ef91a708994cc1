"""./kettle start: bring everything up, print the address, keep it running, stop cleanly."""

from __future__ import annotations

import contextlib
import os
import signal
import subprocess
import time
from collections.abc import Collection, Iterator
from dataclasses import dataclass, replace
from types import FrameType
from typing import Literal

from ironkettle.launch.address import Listening, listening_on
from ironkettle.launch.cluster import Cluster, private_cluster
from ironkettle.launch.databases import clean_up
from ironkettle.launch.environment import Environment, ensure_environment, project_env
from ironkettle.launch.frontend import ensure_build
from ironkettle.launch.instance import announce, claimed
from ironkettle.launch.keeper import Kept
from ironkettle.launch.machine import free_port, port_is_free
from ironkettle.launch.processes import Running, give_word, wait_until_ready
from ironkettle.launch.roles import DATABASE, OWNER
from ironkettle.launch.trouble import PROJECT, Trouble, say

LOOK_EVERY_S = 0.5


@dataclass(frozen=True)
class Options:
    """What the user asked for."""

    empty: bool
    host: str
    port: int
    cert: str | None = None
    key: str | None = None
    demo: bool = False

    @property
    def database_port(self) -> int:
        return int(os.environ.get("KETTLE_DATABASE_PORT", str(self.port + 1)))


def server_env(database_url: str, listening: Listening, stand_port: int) -> dict[str, str]:
    """The settings of the server process; the owner's password is not among them."""
    return project_env(
        KETTLE_DATABASE_URL=database_url,
        KETTLE_HOST=listening.host,
        KETTLE_PORT=str(listening.port),
        KETTLE_STAND_PORT=str(stand_port),
        KETTLE_ALLOWED_HOSTS=",".join(listening.names),
        KETTLE_CERT=listening.cert or "",
        KETTLE_KEY=listening.key or "",
    )


def start(options: Options) -> int:
    """Run until stopped by Ctrl-C or SIGTERM. Exit code 0 after a clean stop."""
    began = time.monotonic()
    own_url = os.environ.get("KETTLE_DATABASE_URL")
    with contextlib.ExitStack() as stack:
        if own_url is None:
            stack.enter_context(claimed())
        if not port_is_free(options.port, options.host):
            raise Trouble(
                f"Port {options.port} is taken, perhaps by an Iron Kettle that runs already; choose another with --port."
            )
        environment = ensure_environment()
        listening = listening_on(options.host, options.port, options.cert, options.key)
        ensure_build(environment)
        # Set both: a shell that starts this in the background hands SIGINT down as ignored.
        for number in (signal.SIGINT, signal.SIGTERM):
            signal.signal(number, _as_interrupt)
        try:
            cluster = None if own_url else private_cluster(options.database_port)
            stack.enter_context(_stopped_at_the_end(cluster))
            running = stack.enter_context(_children())
            kept = _bring_up(environment, options, listening, cluster, own_url, running)
            if own_url is None:
                announce(listening.address)
            say(f"Iron Kettle is ready at {listening.address} ({time.monotonic() - began:.1f} s). Stop it with Ctrl-C.")
            while True:
                for folder in kept:
                    folder.look()
                time.sleep(LOOK_EVERY_S)
        except KeyboardInterrupt:
            say("Stopping …")
            return 0


def _bring_up(
    environment: Environment,
    options: Options,
    listening: Listening,
    cluster: Cluster | None,
    own_url: str | None,
    running: Running,
) -> list[Kept]:
    """Database, stand and server; what is to be kept running of them."""
    kept = []
    if cluster is not None:
        cluster.start()
        clean_up(cluster)
        # One left running by a killed start keeps its port, also when it is started again.
        settled = replace(cluster, wanted_port=cluster.port)
        kept.append(Kept("The database", settled.is_alive, settled.start))
    database_url = own_url or (cluster.url() if cluster else "")
    port, simulated = stand_port(options.port, {options.port, cluster.port if cluster else 0})
    env = server_env(database_url, listening, port)
    command = [str(environment.python), "-m", "ironkettle"]
    # It makes itself ready while the database is prepared: each takes seconds.
    waiting = running.spawn("server", [*command, "--on-word"], env, waits=True)
    prepare(
        environment,
        database_url,
        cluster,
        # A database of the user's own starts empty: the demo's PINs are published.
        demo="--empty" if options.empty or (own_url and not options.demo) else "--demo",
        open_to_others=listening.open_to_others,
    )
    if simulated:

        def stand() -> None:
            running.spawn("stand", [*command[:-1], "ironkettle.stand.simulated", str(port)], env)

        stand()
        kept.append(Kept("The simulated test stand", lambda: running.is_alive("stand"), stand))
    give_word(waiting)
    wait_until_ready(waiting, listening)

    def serve() -> None:
        wait_until_ready(running.spawn("server", command, env), listening)

    kept.append(Kept("The server", lambda: running.is_alive("server"), serve))
    return kept


def stand_port(server: int, own: Collection[int]) -> tuple[int, bool]:
    """The port of the test stand, and whether a simulated one is to be started on it.

    A port that answers is a stand of the shop's only where KETTLE_STAND_PORT names it; what else answers may be another
    server's stand, or a database. ``own``: ports of this start. Raises Trouble.
    """
    named = os.environ.get("KETTLE_STAND_PORT")
    port = int(named or server + 2)
    if os.environ.get("KETTLE_STAND_HOST", "127.0.0.1") != "127.0.0.1":
        return port, False
    if named and port in own:
        raise Trouble(f"KETTLE_STAND_PORT is {port}, which this server or its database uses itself; name another port.")
    if port not in own and port_is_free(port):
        return port, True
    if named:
        say(f"Port {port} answers and is used as the test stand; the simulated one is not started.")
        return port, False
    other = free_port()
    say(f"Port {port} is taken, so the simulated test stand is on port {other}.")
    return other, True


def prepare(
    environment: Environment,
    database_url: str,
    cluster: Cluster | None,
    *,
    demo: Literal["--demo", "--seed", "--empty"],
    open_to_others: bool = False,
    database: str = DATABASE,
) -> None:
    """Migrations, under the owner's role, and the demo. Raises Trouble with what it said."""
    owner_url = os.environ.get("KETTLE_OWNER_DATABASE_URL", database_url)
    if cluster is not None:
        owner_url = cluster.url(OWNER, database)
    env = project_env(KETTLE_DATABASE_URL=database_url, KETTLE_OWNER_DATABASE_URL=owner_url)
    command = [str(environment.python), "-m", "ironkettle.prepare", demo]
    if open_to_others:
        command.append("--everyone-has-a-pin")
    done = subprocess.run(command, cwd=PROJECT, env=env, stderr=subprocess.PIPE, text=True, check=False)
    if done.returncode != 0:
        lines = done.stderr.strip().splitlines()
        raise Trouble(lines[-1] if lines else f"Preparing the database failed (exit code {done.returncode}).")


def run_module(environment: Environment, module: str, database_url: str | None, *arguments: str) -> int:
    """Run a module of the application and give its exit code."""
    env = project_env(**({"KETTLE_DATABASE_URL": database_url} if database_url else {}))
    return subprocess.call([str(environment.python), "-m", module, *arguments], cwd=PROJECT, env=env)


@contextlib.contextmanager
def _children() -> Iterator[Running]:
    running = Running()
    try:
        yield running
    finally:
        running.stop()


@contextlib.contextmanager
def _stopped_at_the_end(cluster: Cluster | None) -> Iterator[None]:
    try:
        yield
    finally:
        # A second Ctrl-C while stopping must not leave half of it running.
        for number in (signal.SIGINT, signal.SIGTERM):
            signal.signal(number, signal.SIG_IGN)
        if cluster is not None:
            cluster.stop()


def _as_interrupt(_number: int, _frame: FrameType | None) -> None:
    raise KeyboardInterrupt
