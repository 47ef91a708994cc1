"""The interface: built with the environment's own Node, again only when its sources changed."""

from __future__ import annotations

import hashlib
import os
from collections.abc import Iterable, Mapping
from pathlib import Path

from ironkettle.launch.environment import Environment
from ironkettle.launch.trouble import PROJECT, run, say

WEB = PROJECT / "web"
_BUILD_STAMP = WEB / "build" / "kettle-stamp"
_MODULES_STAMP = WEB / "node_modules" / "kettle-stamp"
_GENERATED = WEB / "src" / "lib" / "api" / "schema.d.ts"


def node_env(environment: Environment) -> Mapping[str, str]:
    """The environment with this project's Node first."""
    return {**os.environ, "PATH": f"{environment.bin}:{os.environ.get('PATH', '')}", "CI": "1", "NO_COLOR": "1"}


def npm(environment: Environment, *arguments: str, what: str, quiet: bool = True) -> None:
    run([str(environment.bin / "npm"), *arguments], cwd=WEB, env=node_env(environment), what=what, quiet=quiet)


def ensure_modules(environment: Environment) -> None:
    """node_modules as package-lock.json says, and the client made from openapi.json."""
    wanted = _digest([WEB / "package-lock.json"])
    if not _MODULES_STAMP.exists() or _MODULES_STAMP.read_text() != wanted:
        say("Installing the interface's packages …")
        npm(environment, "ci", "--no-audit", "--no-fund", what="npm ci (is the network reachable?)")
        _MODULES_STAMP.write_text(wanted)
    if not _GENERATED.exists() or _GENERATED.stat().st_mtime < (WEB / "openapi.json").stat().st_mtime:
        _GENERATED.parent.mkdir(parents=True, exist_ok=True)
        npm(environment, "run", "api", what="Making the API client")


def ensure_build(environment: Environment) -> None:
    """web/build from the sources, unless it is made from these very sources already."""
    wanted = _digest(_sources())
    if _BUILD_STAMP.exists() and _BUILD_STAMP.read_text() == wanted:
        return
    ensure_modules(environment)
    say("Building the interface …")
    npm(environment, "run", "build", what="Building the interface")
    _BUILD_STAMP.write_text(wanted)


def _sources() -> list[Path]:
    named = [
        WEB / name
        for name in ("package-lock.json", "openapi.json", "vite.config.ts", "svelte.config.js", "tsconfig.json")
    ]
    trees = [p for folder in ("src", "static") for p in (WEB / folder).rglob("*") if p.is_file() and p != _GENERATED]
    return sorted(named + trees)


def _digest(paths: Iterable[Path]) -> str:
    digest = hashlib.sha256()
    for path in paths:
        digest.update(str(path.relative_to(WEB)).encode() + b"\0" + path.read_bytes() + b"\0")
    return digest.hexdigest()
