"""The command line of ./kettle."""

from __future__ import annotations

import argparse
import os
import subprocess
import sys

from ironkettle.launch.checking import check, test
from ironkettle.launch.cluster import private_cluster
from ironkettle.launch.environment import PYTHON, ensure_environment, project_env
from ironkettle.launch.start import server_env, start
from ironkettle.launch.trouble import PROJECT, Trouble

PORT = 8440


def main(arguments: list[str] | None = None) -> int:
    """Run one command; trouble is told in a sentence and exits with 1."""
    options = _parser().parse_args(arguments)
    try:
        return _act(options)
    except Trouble as trouble:
        print(f"kettle: {trouble}", file=sys.stderr)
        return 1
    except OSError as error:
        print(f"kettle: {error.strerror or error} ({error.filename or 'no file named'})", file=sys.stderr)
        return 1
    except KeyboardInterrupt:
        return 130


def _parser() -> argparse.ArgumentParser:
    parser = argparse.ArgumentParser(
        prog="./kettle", description="Iron Kettle, the bench companion of a fluid power repair technician."
    )
    commands = parser.add_subparsers(dest="command", required=True)
    begin = commands.add_parser("start", help="install what is missing, start everything, print the address")
    begin.add_argument("--empty", action="store_true", help="without the demo workshop")
    begin.add_argument(
        "--host",
        default=os.environ.get("KETTLE_HOST", "127.0.0.1"),
        help="address to listen on (loopback unless you say otherwise)",
    )
    begin.add_argument("--port", type=_port, default=int(os.environ.get("KETTLE_PORT", str(PORT))))
    tests = commands.add_parser("test", help="all checks and tests, on a database and ports of their own")
    tests.add_argument("pytest", nargs="*", help="paths or names for pytest; without any, everything runs")
    commands.add_parser("check", help="only the static checks and front-end tests")
    commands.add_parser("bench", help="speed, as ratios against a floor taken in the same run")
    commands.add_parser("seed", help="load the demo workshop into an empty database")
    commands.add_parser("verify", help="check the hash chain of every job")
    return parser


def _act(options: argparse.Namespace) -> int:
    if options.command == "start":
        return start(empty=options.empty, host=options.host, port=options.port)
    if options.command == "test":
        return test(options.pytest)
    if options.command == "check":
        return check()
    if options.command == "bench":
        ensure_environment()
        return _module("ironkettle.bench", project_env())
    module = {"seed": "ironkettle.demo.seed", "verify": "ironkettle.store.verify"}[options.command]
    return _with_database(module)


def _with_database(module: str) -> int:
    """Run a module against the user's database, starting the private cluster for it when it is down."""
    ensure_environment()
    own_url = os.environ.get("KETTLE_DATABASE_URL")
    if own_url is not None:
        return _module(module, project_env())
    cluster = private_cluster(int(os.environ.get("KETTLE_DATABASE_PORT", str(PORT + 1))))
    was_running = (cluster.data / "PG_VERSION").exists() and cluster.is_running()
    cluster.start()
    try:
        return _module(module, server_env(cluster.url, "127.0.0.1", PORT, PORT + 2))
    finally:
        if not was_running:
            cluster.stop()


def _module(module: str, env: dict[str, str]) -> int:
    return subprocess.call([str(PYTHON), "-m", module], cwd=PROJECT, env=env)


def _port(text: str) -> int:
    if not text.isdigit() or not 1024 <= int(text) <= 65000:
        raise argparse.ArgumentTypeError(f"{text} is not a port from 1024 to 65000")
    return int(text)
