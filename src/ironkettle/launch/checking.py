"""./kettle check and ./kettle test."""

from __future__ import annotations

import subprocess
import time
from collections.abc import Callable
from concurrent.futures import Future, ThreadPoolExecutor
from pathlib import Path

from ironkettle.launch.cluster import Cluster, throwaway_cluster
from ironkettle.launch.environment import Environment, ensure_environment, project_env
from ironkettle.launch.frontend import ensure_build, ensure_modules, npm
from ironkettle.launch.machine import ensure_chromium, free_port
from ironkettle.launch.roles import OWNER, SUPERUSER
from ironkettle.launch.trouble import PROJECT, Trouble, run, say

_API = "tests/api"
_BROWSER = "tests/browser"
_CORE = "tests/core"
_FAULTS = "tests/faults"
# What the longest files of the browser take, about [s]; the others as their size has it.
_LONG = {"test_in_view": 150, "test_screens": 200, "test_interruptions": 220, "test_walk": 90, "test_live_hold": 85}
_BYTES_A_SECOND = 200
# How many times as often as in the tests a law is tried.
_MANY = "30"


def check() -> int:
    """The static part: style, types, import directions, the API file, the interface's own checks."""
    environment = ensure_environment(dev=True)
    ensure_modules(environment)
    env = project_env()
    tool = environment.bin
    words = [str(environment.python), "-m", "tests.wording"]
    steps = [
        ("ruff", [f"{tool}/ruff", "check", "."]),
        ("ruff format", [f"{tool}/ruff", "format", "--check", "."]),
        ("mypy --strict", [f"{tool}/mypy"]),
        ("import directions", [f"{tool}/lint-imports", "--no-cache"]),
        ("openapi.json is current", [str(environment.python), "-m", "ironkettle.api.openapi", "--check"]),
    ]
    for name, command in steps:
        _timed(name, lambda command=command, name=name: run(command, env=env, what=name))  # type: ignore[misc]
    _timed("words", lambda: say(f"  {_last_line(run(words, env=env, what='words'))}"))
    for name, script in (("prettier", "lint"), ("svelte-check", "check"), ("vitest", "test")):
        _timed(name, lambda script=script, name=name: npm(environment, "run", script, what=name))  # type: ignore[misc]
    return 0


def _last_line(printed: str) -> str:
    return printed.strip().splitlines()[-1]


def test(arguments: list[str]) -> int:
    """Everything on databases and ports of their own.

    Five parts run beside each other: the browser in two halves; the tests of the core, which need no database, with those of the
    other rooms behind them; those of the API with the checks behind them; and the faults. Playwright's own event loop and theirs
    do not share one run, and neither do their databases.
    """
    began = time.monotonic()
    environment = ensure_environment(dev=True)
    ensure_chromium()
    if arguments:
        _timed("build of the interface", lambda: ensure_build(environment))
        _pytest(environment, *arguments)
    else:
        ensure_modules(environment)
        first, second = _halves_of_browser()
        with ThreadPoolExecutor(4) as pool:
            built = pool.submit(_timed, "build of the interface", lambda: ensure_build(environment))
            prepared = _prepared(environment)
            try:
                parts = [
                    pool.submit(_browse, environment, built, first, prepared),
                    pool.submit(_browse, environment, built, second, prepared),
                    pool.submit(_test_core_and_others, environment, prepared),
                    pool.submit(_timed, "tests of faults", lambda: _pytest(environment, _FAULTS, like=prepared)),
                ]
                _timed("tests of the API", lambda: _pytest(environment, _API, like=prepared))
                check()
                for part in parts:
                    part.result()
            finally:
                prepared.remove()
    say(f"All tests passed in {time.monotonic() - began:.0f} s.")
    return 0


def bench_of_tests(environment: Environment, what: str) -> int:
    """``laws``: the laws of the core with many more examples; ``mutants``: how many small changes to it the tests notice;
    ``actions``: how many clicks, taps and fields a unit takes."""
    if what == "actions":
        ensure_chromium()
        ensure_build(environment)
        _pytest(environment, "-s", f"{_BROWSER}/count_actions.py")
        return 0
    command = ["pytest", "-q", "-m", "hypothesis", "tests/core"] if what == "laws" else ["tests.mutants"]
    env = project_env(KETTLE_LAWS=_MANY) if what == "laws" else project_env()
    return subprocess.call([str(environment.python), "-m", *command], cwd=PROJECT, env=env)


def _halves_of_browser() -> tuple[list[str], list[str]]:
    """The files of the tests in the browser in two lists that take about as long."""

    def seconds(file: Path) -> float:
        return _LONG.get(file.stem, file.stat().st_size / _BYTES_A_SECOND)

    halves: tuple[list[str], list[str]] = ([], [])
    taken = [0.0, 0.0]
    for file in sorted((PROJECT / _BROWSER).glob("test_*.py"), key=seconds, reverse=True):
        shorter = taken.index(min(taken))
        halves[shorter].append(str(file.relative_to(PROJECT)))
        taken[shorter] += seconds(file)
    return halves


def _browse(environment: Environment, built: Future[None], files: list[str], prepared: Cluster) -> None:
    built.result()
    _timed(f"browser tests of {len(files)} files", lambda: _pytest(environment, *files, like=prepared))


def _prepared(environment: Environment) -> Cluster:
    """A cluster with the demo workshop in it, stopped: each part of the tests begins with a copy of it."""
    cluster = throwaway_cluster(free_port())
    try:
        cluster.start()
        command = [str(environment.python), "-m", "tests.prepared"]
        _timed("the demo workshop", lambda: run(command, env=test_env(cluster), what="loading the demo workshop"))
        cluster.stop()
    except BaseException:
        cluster.remove()
        raise
    return cluster


def _test_core_and_others(environment: Environment, prepared: Cluster) -> None:
    """The core, then what is in no part of its own."""
    _timed("tests of the core", lambda: _test_core(environment))
    apart = [f"--ignore={folder}" for folder in (_API, _BROWSER, _CORE, _FAULTS)]
    _timed("tests of the other rooms", lambda: _pytest(environment, "tests", *apart, like=prepared))


def _test_core(environment: Environment) -> None:
    """Its dots would stand among those of the others: what it prints is said at its end, whole where it failed."""
    command = [str(environment.python), "-m", "pytest", "-q", _CORE]
    done = subprocess.run(
        command, cwd=PROJECT, env=project_env(), stdin=subprocess.DEVNULL, stdout=subprocess.PIPE,
        stderr=subprocess.STDOUT, text=True, check=False,
    )  # fmt: skip
    if done.returncode != 0:
        say(done.stdout)
        raise Trouble(f"pytest {_CORE} failed (exit code {done.returncode}).")
    say(f"  {_last_line(done.stdout)}")


def _pytest(environment: Environment, *arguments: str, like: Cluster | None = None) -> None:
    cluster = throwaway_cluster(free_port(), like=like)
    try:
        cluster.start()
        run(
            [str(environment.python), "-m", "pytest", "-q", *arguments],
            env=test_env(cluster) | ({"KETTLE_TEST_PREPARED": "yes"} if like else {}),
            what=f"pytest {' '.join(arguments)}",
            quiet=False,
        )
    finally:
        cluster.remove()


def test_env(cluster: Cluster) -> dict[str, str]:
    """The three roles of the tests' cluster: the application's, the owner's, and the one that cleans up between tests."""
    return project_env(
        KETTLE_TEST_DATABASE_URL=cluster.url(),
        KETTLE_TEST_OWNER_URL=cluster.url(OWNER),
        KETTLE_TEST_ADMIN_URL=cluster.url(SUPERUSER),
    )


def _timed(name: str, act: Callable[[], object]) -> None:
    began = time.monotonic()
    act()
    say(f"  {name}: fine ({time.monotonic() - began:.1f} s)")
