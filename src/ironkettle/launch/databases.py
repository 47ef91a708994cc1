"""The databases of this installation: the one in use, those being restored, those kept from before; put in place and taken back."""

from __future__ import annotations

import time

from ironkettle.launch.cluster import Cluster
from ironkettle.launch.postgres import run_sql
from ironkettle.launch.roles import DATABASE, SUPERUSER, databases
from ironkettle.launch.trouble import Trouble, say

RESTORING, BEFORE = f"{DATABASE}_restore_", f"{DATABASE}_before_"


def finish_restore(cluster: Cluster) -> int:
    """Put the database that a stopped restore had made in its place. Raises Trouble where there is none, or no need."""
    found = _half_way(cluster)
    fresh = [name for name in found if name.startswith(RESTORING)]
    if not fresh:
        raise Trouble(f"No restored database is there, only {', '.join(found)}. ./kettle restore --undo goes back.")
    sql(cluster, f"ALTER DATABASE {fresh[-1]} RENAME TO {DATABASE}")
    say(f"{fresh[-1]} is in use from now on.")
    return 0


def undo_restore(cluster: Cluster) -> int:
    """Go back to the database from before the last restore; what is in use now is kept beside it. Raises Trouble."""
    found = _databases(cluster)
    before = [name for name in found if name.startswith(BEFORE)]
    if not before:
        raise Trouble("No database from before a restore is kept here.")
    if DATABASE in found:
        swap(cluster, before[-1], f"{DATABASE}_undone_{time.strftime('%Y%m%d_%H%M%S')}")
    else:
        sql(cluster, f"ALTER DATABASE {before[-1]} RENAME TO {DATABASE}")
    say(f"{before[-1]} is in use again.")
    return 0


def clean_up(cluster: Cluster) -> None:
    """Drop what restores that were stopped left behind, as long as the shop's database is in its place."""
    found = _databases(cluster)
    left = [name for name in found if name.startswith(RESTORING)]
    if not left or DATABASE not in found:
        return
    say(f"Left by a restore that was stopped, and removed: {', '.join(left)}. The backup it came from is untouched.")
    for name in left:
        sql(cluster, f"DROP DATABASE {name} WITH (FORCE)")


def _half_way(cluster: Cluster) -> list[str]:
    found = _databases(cluster)
    if DATABASE in found:
        raise Trouble("The database is in its place; there is no restore to finish.")
    return found


def _databases(cluster: Cluster) -> list[str]:
    return databases(cluster.programs, cluster.port, cluster.password(SUPERUSER))


def swap(cluster: Cluster, fresh: str, aside: str) -> None:
    """Put a database in place of the one in use, which goes aside: both at once or neither, whatever is pulled."""
    sql(
        cluster,
        f"BEGIN; ALTER DATABASE {DATABASE} RENAME TO {aside}; ALTER DATABASE {fresh} RENAME TO {DATABASE}; COMMIT",
    )


def sql(cluster: Cluster, statement: str) -> None:
    """A statement about databases, as the cluster's own role. Raises Trouble."""
    run_sql(cluster.programs, cluster.port, SUPERUSER.name, cluster.password(SUPERUSER), f"{statement};")
