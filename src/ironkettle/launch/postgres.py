"""Running PostgreSQL's own programs: as its user when we are root, since it refuses to be root."""

from __future__ import annotations

import os
import pwd
import subprocess
import tempfile
from pathlib import Path

from ironkettle.launch.trouble import Trouble


def run_as_postgres(command: list[str], text: str = "") -> subprocess.CompletedProcess[str]:
    """Run a program of the cluster, ``text`` on its input, as the user the cluster belongs to."""
    prefix = ["runuser", "-u", "postgres", "--"] if os.geteuid() == 0 else []
    # pg_ctl hands its output on to the server, which would keep a pipe open; a file does not wait.
    with tempfile.TemporaryFile("w+") as output, tempfile.TemporaryFile("w+") as given:
        given.write(text)
        given.seek(0)
        code = subprocess.call([*prefix, *command], cwd="/", stdin=given, stdout=output, stderr=output)
        output.seek(0)
        return subprocess.CompletedProcess(command, code, output.read(), "")


def run_single_user(programs: Path, data: Path, statement: str) -> None:
    """One statement in PostgreSQL's single-user mode, with the server stopped. Raises Trouble."""
    done = run_as_postgres([str(programs / "postgres"), "--single", "-D", str(data), "postgres"], f"{statement};\n")
    if done.returncode != 0 or "ERROR" in done.stdout:
        raise Trouble(f"The database in {data} could not be opened in single-user mode: {last_line(done)}")


def run_sql(programs: Path, port: int, user: str, password: str, statement: str, database: str = "postgres") -> str:
    """Statements through psql, stopping at the first error; gives what it printed. Raises Trouble."""
    done = subprocess.run(
        [
            *(str(programs / "psql"), "-h", "127.0.0.1", "-p", str(port), "-U", user, "-d", database),
            *("-v", "ON_ERROR_STOP=1", "-qtAX", "-f", "-"),
        ],
        input=statement,
        env={**os.environ, "PGPASSWORD": password, "PGCONNECT_TIMEOUT": "10"},
        cwd="/",
        capture_output=True,
        text=True,
        check=False,
    )
    if done.returncode != 0:
        raise Trouble(f"The database does not answer: {last_line(done)}")
    return done.stdout.strip()


def give_to_postgres(path: Path) -> None:
    """Hand a path to PostgreSQL's user when we are root; otherwise it is ours and stays so."""
    if os.geteuid() == 0:
        owner = _postgres_user()
        os.chown(path, owner.pw_uid, owner.pw_gid)


def last_line(done: subprocess.CompletedProcess[str]) -> str:
    lines = f"{done.stdout or ''}\n{done.stderr or ''}".strip().splitlines()
    return lines[-1].strip() if lines else f"exit code {done.returncode}"


def _postgres_user() -> pwd.struct_passwd:
    try:
        return pwd.getpwnam("postgres")
    except KeyError:
        raise Trouble(
            "PostgreSQL refuses to run as root and there is no user postgres; install the package postgresql."
        ) from None
