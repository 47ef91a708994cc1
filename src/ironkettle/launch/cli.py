"""The command line of ./kettle."""

from __future__ import annotations

import argparse
import contextlib
import os
import sys
from collections.abc import Iterator
from pathlib import Path

from ironkettle.launch.backup import backup, restore
from ironkettle.launch.checking import bench_of_tests, check, test
from ironkettle.launch.cluster import Cluster, private_cluster
from ironkettle.launch.databases import finish_restore, undo_restore
from ironkettle.launch.environment import Environment, ensure_environment
from ironkettle.launch.instance import claimed, is_claimed
from ironkettle.launch.roles import SUPERUSER
from ironkettle.launch.start import Options, prepare, run_module, start
from ironkettle.launch.trouble import Trouble

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
        "--demo",
        action="store_true",
        help="with the demo workshop also in a database of your own (its PINs are published)",
    )
    begin.add_argument(
        "--host",
        default=os.environ.get("KETTLE_HOST", "127.0.0.1"),
        help="address to listen on (loopback unless you say otherwise; beyond it only encrypted)",
    )
    begin.add_argument("--port", type=_port, default=int(os.environ.get("KETTLE_PORT", str(PORT))))
    begin.add_argument("--cert", help="certificate file (PEM) for --host beyond loopback")
    begin.add_argument("--key", help="key file (PEM) of the certificate")
    own = commands.add_parser("certificate", help="make a local certificate, for other devices of the shop")
    own.add_argument("--name", action="append", default=[], help="a further name this machine is called by")
    tests = commands.add_parser("test", help="all checks and tests, on a database and ports of their own")
    tests.add_argument("pytest", nargs="*", help="paths or names for pytest; without any, everything runs")
    commands.add_parser("check", help="only the static checks and front-end tests")
    bench = commands.add_parser("bench", help="speed, as ratios against a floor taken in the same run")
    bench.add_argument("what", nargs="?", choices=["actions", "faults", "honest", "laws", "mutants"], help=_BENCHES)
    bench.add_argument("--write", action="store_true", help="honest: put the tables into the guide")
    commands.add_parser("seed", help="load the demo workshop into an empty database")
    commands.add_parser("verify", help="check the hash chain of every job")
    out = commands.add_parser("backup", help="write everything to one new file")
    out.add_argument("file", type=Path)
    back = commands.add_parser("restore", help="bring a backup back; what is there now is kept beside it")
    back.add_argument("file", type=Path, nargs="?")
    back.add_argument("--finish", action="store_true", help="put the database of a stopped restore in its place")
    back.add_argument("--undo", action="store_true", help="go back to the database from before the last restore")
    return parser


_BENCHES = (
    "actions: clicks, taps and fields from intake to certificate, counted on the real screens; faults: kill server and database, over and over; honest: ring matches and pressure holds drawn from a world "
    "like a shop's, against what the rules say of them; laws: the laws of the core with many more examples than in the tests; "
    "mutants: how many small changes to the core the tests notice"
)


def _act(options: argparse.Namespace) -> int:
    if options.command == "start":
        given = Options(options.empty, options.host, options.port, options.cert, options.key, options.demo)
        return start(given)
    if options.command == "test":
        return test(options.pytest)
    if options.command == "check":
        return check()
    if options.command == "bench":
        environment = ensure_environment(dev=True)
        if options.what in {"actions", "laws", "mutants"}:
            return bench_of_tests(environment, options.what)
        what = ([options.what] if options.what else []) + (["--write"] if options.write else [])
        return run_module(environment, "ironkettle.benchmarks", None, *what)
    if options.command == "certificate":
        names = [part for name in options.name for part in ("--name", name)]
        return run_module(ensure_environment(), "ironkettle.tls", None, *names)
    return _with_database(options)


def _with_database(options: argparse.Namespace) -> int:
    """Commands about the database: the user's own, the one that runs here, or the private one started for it."""
    environment = ensure_environment()
    own_url = os.environ.get("KETTLE_DATABASE_URL")
    if own_url is not None:
        if options.command in {"backup", "restore"}:
            raise Trouble("With KETTLE_DATABASE_URL use pg_dump and pg_restore of that server; see docs/guide/shop.md.")
        if options.command == "verify":
            return run_module(environment, "ironkettle.store.verify", own_url)
        prepare(environment, own_url, None, demo="--seed")
        return 0
    if options.command == "restore":
        return _restore(options, environment)
    with _database(options.command) as cluster:
        if options.command == "backup":
            return backup(cluster, options.file)
        if options.command == "verify":
            return run_module(environment, "ironkettle.store.verify", cluster.url(SUPERUSER))
        prepare(environment, cluster.url(), cluster, demo="--seed")
        return 0


def _restore(options: argparse.Namespace, environment: Environment) -> int:
    """Bring a backup back, or finish or undo a restore. Raises Trouble."""
    if sum((options.file is not None, options.finish, options.undo)) != 1:
        raise Trouble("Give the backup's file, or --finish, or --undo.")
    with _database(options.command, whole=options.file is not None) as cluster:
        if options.finish:
            return finish_restore(cluster)
        return undo_restore(cluster) if options.undo else restore(cluster, environment, options.file)


@contextlib.contextmanager
def _database(command: str, *, whole: bool = True) -> Iterator[Cluster]:
    """The private cluster, running: as it runs, or started for this and stopped again.

    Only a restore makes one where there is none.
    """
    cluster = private_cluster(int(os.environ.get("KETTLE_DATABASE_PORT", str(PORT + 1))))
    if command != "restore" and is_claimed():
        if not cluster.is_running():
            raise Trouble("Iron Kettle runs, but its database is down just now; try again in a moment.")
        yield cluster
        return
    with claimed(doing=command):
        was_running = cluster.is_alive() and cluster.is_running()
        cluster.start(make=command == "restore", whole=whole)
        try:
            yield cluster
        finally:
            if not was_running:
                cluster.stop()


def _port(text: str) -> int:
    if not text.isdigit() or not 1024 <= int(text) <= 65000:
        raise argparse.ArgumentTypeError(f"{text} is not a port from 1024 to 65000")
    return int(text)
