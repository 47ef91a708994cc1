"""./kettle backup and ./kettle restore: one file with everything, over PostgreSQL's own programs."""

from __future__ import annotations

import os
import subprocess
import time
from pathlib import Path
from typing import IO
from urllib.parse import urlsplit

from ironkettle.launch.cluster import Cluster
from ironkettle.launch.databases import BEFORE, RESTORING, clean_up, sql, swap
from ironkettle.launch.environment import Environment
from ironkettle.launch.machine import ensure_disk
from ironkettle.launch.postgres import last_line, run_sql
from ironkettle.launch.roles import APP, DATABASE, OWNER, SUPERUSER
from ironkettle.launch.start import prepare, run_module
from ironkettle.launch.trouble import Trouble, say


def backup(cluster: Cluster, target: Path) -> int:
    """Write the whole database to one new file; work may go on meanwhile. Raises Trouble."""
    target = target.expanduser().absolute()
    if target.exists():
        raise Trouble(f"{target} already exists and is not overwritten; give another name.")
    if not target.parent.is_dir():
        raise Trouble(f"There is no folder {target.parent}.")
    unfinished = target.with_name(target.name + ".part")
    try:
        with os.fdopen(os.open(unfinished, os.O_WRONLY | os.O_CREAT | os.O_TRUNC, 0o600), "wb") as file:
            _run(cluster, "pg_dump", "--format=custom", "--no-owner", "--no-privileges", DATABASE, stdout=file)
            file.flush()
            os.fsync(file.fileno())
        _listed(cluster, unfinished)
        unfinished.rename(target)
    finally:
        unfinished.unlink(missing_ok=True)
    say(f"Everything is in {target} ({target.stat().st_size / 1e6:.1f} MB). Keep it where only the shop can read it.")
    return 0


def restore(cluster: Cluster, environment: Environment, source: Path) -> int:
    """Bring a backup back. What is there now is kept beside it under a name with the time. Raises Trouble."""
    source = source.expanduser().absolute()
    if not source.is_file():
        raise Trouble(f"There is no file {source}.")
    ensure_disk(cluster.folder)
    _listed(cluster, source)
    clean_up(cluster)
    stamp = time.strftime("%Y%m%d_%H%M%S")
    fresh, before = f"{RESTORING}{stamp}", f"{BEFORE}{stamp}"
    own = cluster.password(SUPERUSER)
    sql(cluster, f"CREATE DATABASE {fresh} OWNER {OWNER.name}")
    sql(cluster, f"REVOKE ALL ON DATABASE {fresh} FROM PUBLIC; GRANT CONNECT ON DATABASE {fresh} TO {APP.name}")
    try:
        # As the owner, in one piece: all of it or nothing.
        _run(
            cluster,
            *("pg_restore", "--no-owner", "--no-privileges", "--exit-on-error", "--single-transaction"),
            *("--role", OWNER.name, "-d", fresh, str(source)),
        )
        prepare(environment, cluster.url(APP, fresh), cluster, database=fresh, demo="--empty")
        if run_module(environment, "ironkettle.store.verify", cluster.url(APP, fresh)) != 0:
            raise Trouble("The backup holds a broken record, as said above; the database in use was left as it is.")
        # Whoever was signed in when the backup was made is not signed in now.
        run_sql(cluster.programs, cluster.port, SUPERUSER.name, own, "DELETE FROM sessions;", fresh)
        swap(cluster, fresh, before)
    except Trouble:
        sql(cluster, f"DROP DATABASE {fresh} WITH (FORCE)")
        raise
    say(f"The backup is in use from now on. What was there before is kept as the database {before}.")
    return 0


def _listed(cluster: Cluster, file: Path) -> None:
    """A file pg_restore can read to its end. Raises Trouble."""
    done = subprocess.run(
        [str(cluster.programs / "pg_restore"), "--file", os.devnull, str(file)],
        capture_output=True,
        text=True,
        check=False,
    )
    if done.returncode != 0:
        raise Trouble(f"{file} is not a complete backup of Iron Kettle: {last_line(done)}")


def _run(cluster: Cluster, program: str, *arguments: str, stdout: int | IO[bytes] = subprocess.PIPE) -> None:
    at = urlsplit(cluster.url(SUPERUSER))
    done = subprocess.run(
        [
            *(str(cluster.programs / program), "-w", "-h", str(at.hostname), "-p", str(at.port)),
            *("-U", str(at.username), *arguments),
        ],
        env={**os.environ, "PGPASSWORD": str(at.password)},
        stdin=subprocess.DEVNULL,
        stdout=stdout,
        stderr=subprocess.PIPE,
        check=False,
    )
    if done.returncode != 0:
        lines = done.stderr.decode(errors="replace").strip().splitlines()
        raise Trouble(f"{program} failed: {lines[-1] if lines else f'exit code {done.returncode}'}")
