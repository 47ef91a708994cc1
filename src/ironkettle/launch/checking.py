"""./kettle check and ./kettle test."""

from __future__ import annotations

import time
from concurrent.futures import ThreadPoolExecutor

from ironkettle.launch.cluster import throwaway_cluster
from ironkettle.launch.environment import PYTHON, VENV, ensure_environment, project_env
from ironkettle.launch.frontend import ensure_build, ensure_modules, npm
from ironkettle.launch.machine import ensure_chromium, free_port
from ironkettle.launch.trouble import run, say


def check() -> int:
    """The static part: style, types, import directions, the API file, the interface's own checks."""
    ensure_environment()
    ensure_modules()
    env = project_env()
    tool = str(VENV / "bin")
    steps = [
        ("ruff", [f"{tool}/ruff", "check", "."]),
        ("ruff format", [f"{tool}/ruff", "format", "--check", "."]),
        ("mypy --strict", [f"{tool}/mypy"]),
        ("import directions", [f"{tool}/lint-imports", "--no-cache"]),
        ("openapi.json is current", [str(PYTHON), "-m", "ironkettle.api.openapi", "--check"]),
    ]
    for name, command in steps:
        _timed(name, lambda command=command, name=name: run(command, env=env, what=name))
    for name, script in (("prettier", "lint"), ("svelte-check", "check"), ("vitest", "test")):
        _timed(name, lambda script=script, name=name: npm("run", script, what=name))
    return 0


def test(arguments: list[str]) -> int:
    """Everything on a database and ports of their own: the checks and the build beside pytest, then the browser."""
    began = time.monotonic()
    ensure_environment()
    ensure_chromium()
    if arguments:
        _timed("build of the interface", ensure_build)
    else:
        ensure_modules()
    cluster = throwaway_cluster(free_port())
    try:
        cluster.start()
        env = project_env(KETTLE_TEST_DATABASE_URL=cluster.url)
        pytest = [str(PYTHON), "-m", "pytest", "-q"]
        if arguments:
            run([*pytest, *arguments], env=env, what="pytest", quiet=False)
        else:
            with ThreadPoolExecutor(1) as beside:
                checked = beside.submit(_check_and_build)
                run([*pytest, "tests", "--ignore=tests/browser"], env=env, what="pytest", quiet=False)
                checked.result()
            # Playwright's own event loop and other tests do not share one run.
            run([*pytest, "tests/browser"], env=env, what="Browser tests", quiet=False)
    finally:
        cluster.remove()
    say(f"All tests passed in {time.monotonic() - began:.0f} s.")
    return 0


def _check_and_build() -> None:
    check()
    _timed("build of the interface", ensure_build)


def _timed(name: str, act: object) -> None:
    began = time.monotonic()
    act()  # type: ignore[operator]
    say(f"  {name}: fine ({time.monotonic() - began:.1f} s)")
