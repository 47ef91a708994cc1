"""Do the tests hold the rules? One small thing of the core is changed at a time, in a copy, and the tests of its room are run.

``python -m tests.mutants [ROOM …] [--count N] [--seed N]``; ``./kettle bench mutants`` runs it. Prints what nobody noticed.
The tests that pass over the changed line are run first, as most changes are noticed by one of them; the whole room decides.
"""

from __future__ import annotations

import argparse
import ast
import os
import random
import shutil
import subprocess
import sys
import tempfile
import time
from collections import defaultdict
from collections.abc import Callable, Iterator, Mapping, Sequence
from dataclasses import dataclass
from pathlib import Path

from coverage import CoverageData

ROOT = Path(__file__).resolve().parents[1]
CORE, TESTS = Path("src/ironkettle/core"), Path("tests/core")
# An operator and the one it is taken for.
_OTHER: Mapping[type[ast.AST], type[ast.AST]] = {
    ast.Lt: ast.LtE, ast.LtE: ast.Lt, ast.Gt: ast.GtE, ast.GtE: ast.Gt, ast.Eq: ast.NotEq, ast.NotEq: ast.Eq,
    ast.In: ast.NotIn, ast.NotIn: ast.In, ast.Is: ast.IsNot, ast.IsNot: ast.Is, ast.Add: ast.Sub, ast.Sub: ast.Add,
    ast.Mult: ast.Div, ast.Div: ast.Mult, ast.And: ast.Or, ast.Or: ast.And,
}  # fmt: skip
_NAMES = {"min": "max", "max": "min", "any": "all", "all": "any"}
_LEAST_S = 90.0


@dataclass(frozen=True)
class Mutant:
    """One change: the file and the how-manieth place in it; ``room``: the folder of core whose tests should notice."""

    room: Path
    file: Path
    place: int


def changes_of(node: ast.AST) -> Callable[[], None] | None:
    """What changes a node in place; None where there is nothing to change."""
    if isinstance(node, ast.Compare) and type(node.ops[0]) in _OTHER:
        return lambda: node.ops.__setitem__(0, _OTHER[type(node.ops[0])]())  # type: ignore[arg-type]
    if isinstance(node, ast.BinOp) and type(node.op) in _OTHER and not _joins_text(node):
        return lambda: setattr(node, "op", _OTHER[type(node.op)]())
    if isinstance(node, ast.BoolOp):
        return lambda: setattr(node, "op", _OTHER[type(node.op)]())
    if isinstance(node, ast.Constant) and type(node.value) in (int, float):
        return lambda: setattr(node, "value", _nearby(node.value))
    if isinstance(node, ast.UnaryOp) and isinstance(node.op, ast.USub):
        return lambda: setattr(node, "op", ast.UAdd())
    if isinstance(node, ast.Call) and isinstance(node.func, ast.Name) and node.func.id in _NAMES:
        name = node.func
        return lambda: setattr(name, "id", _NAMES[name.id])
    if isinstance(node, ast.If):
        return lambda: setattr(node, "test", ast.Constant(False))
    return None


def _joins_text(node: ast.BinOp) -> bool:
    return any(isinstance(side, ast.Constant) and isinstance(side.value, str) for side in (node.left, node.right))


def _nearby(value: object) -> int | float:
    assert isinstance(value, int | float)
    return value * 1.1 if isinstance(value, float) and value not in (0.0, 1.0) else value + 1


def places_in(tree: ast.Module) -> list[tuple[ast.AST, Callable[[], None]]]:
    """Every node inside a function that can be changed, with its change."""
    functions = [node for node in ast.walk(tree) if isinstance(node, ast.FunctionDef | ast.AsyncFunctionDef)]
    found: dict[int, tuple[ast.AST, Callable[[], None]]] = {}
    for node in (inner for function in functions for statement in function.body for inner in ast.walk(statement)):
        change = changes_of(node)
        if change is not None:
            found.setdefault(id(node), (node, change))
    return list(found.values())


def mutants(rooms: Sequence[str]) -> Iterator[Mutant]:
    """Every change there is in the rooms asked for, all where none is; a room is the deepest folder that has tests of its own."""
    for file in sorted((ROOT / CORE).rglob("*.py")):
        room = file.relative_to(ROOT / CORE).parent
        while room.parts and not any((ROOT / TESTS / room).glob("test_*.py")):
            room = room.parent
        if room.parts and (not rooms or any(Path(one) in (room, *room.parents) for one in rooms)):
            for place in range(len(places_in(ast.parse(file.read_text(encoding="utf-8"))))):
                yield Mutant(room, file.relative_to(ROOT), place)


def picked(every: Sequence[Mutant], count: int, seed: int) -> list[Mutant]:
    """So many of them, from one room after the other."""
    chance, by_room = random.Random(seed), defaultdict[Path, list[Mutant]](list)
    for one in every:
        by_room[one.room].append(one)
    chosen: list[Mutant] = []
    while len(chosen) < min(count, len(every)):
        for left in by_room.values():
            if left and len(chosen) < count:
                chosen.append(left.pop(chance.randrange(len(left))))
    return chosen


@dataclass(frozen=True)
class Room:
    """What the unchanged tests of a room are known for."""

    covering: CoverageData
    within_s: float
    """A run that takes longer has noticed the change."""

    def tests_over(self, file: Path, lines: range) -> list[str]:
        """The tests that pass over these lines; what is worked out at import or for several tests names none."""
        contexts = self.covering.contexts_by_lineno(str(file))
        over = {context for line in lines for context in contexts.get(line, ())}
        return sorted(map(_node_of, over - {""}))


def _node_of(context: str) -> str:
    """``tests.core.base.test_x.test_y`` as pytest names it."""
    *module, function = context.split(".")
    return f"{Path(*module)}.py::{function}"


def measured(work: Path, room: Path) -> Room | None:
    """Runs the tests of a room once and notes which test passes over which line; None where they fail."""
    data = work / "coverage" / "-".join(room.parts)
    (work / "coveragerc").write_text(f"[run]\ndynamic_context = test_function\nsource = {work / CORE}\n")
    began = time.monotonic()
    cover = ("coverage", "run", f"--rcfile={work / 'coveragerc'}", f"--data-file={data}", "-m")
    if not _pytest(work, [str(TESTS / room)], None, *cover):
        return None
    covering = CoverageData(str(data))
    covering.read()
    return Room(covering, max(_LEAST_S, 3 * (time.monotonic() - began)))


def _pytest(work: Path, tests: Sequence[str], within_s: float | None, *before: str) -> bool:
    """Whether these tests pass in the copy, in that time."""
    command = [
        sys.executable,
        "-m",
        *before,
        "pytest",
        "-x",
        "-q",
        "-p",
        "no:cacheprovider",
        "-p",
        "no:randomly",
        *tests,
    ]
    env = {**os.environ, "PYTHONPATH": str(work / "src"), "PYTHONDONTWRITEBYTECODE": "1"}
    try:
        done = subprocess.run(command, cwd=work, env=env, capture_output=True, timeout=within_s, check=False)
    except subprocess.TimeoutExpired:
        return False
    return done.returncode == 0


def unnoticed(work: Path, one: Mutant, room: Room) -> str | None:
    """The change in words, where the tests do not notice it; the copy is as before afterwards."""
    target = work / one.file
    before = target.read_text(encoding="utf-8")
    tree = ast.parse(before)
    node, change = places_in(tree)[one.place]
    first, last = getattr(node, "lineno", 1), getattr(node, "end_lineno", 1)
    was = ast.unparse(node).splitlines()[0][:70]
    change()
    target.write_text(ast.unparse(ast.fix_missing_locations(tree)), encoding="utf-8")
    over = room.tests_over(target, range(first, last + 1))
    try:
        noticed = (over and not _pytest(work, over, room.within_s)) or not _pytest(
            work, [str(TESTS / one.room)], room.within_s
        )
    finally:
        target.write_text(before, encoding="utf-8")
    became = ast.unparse(node).splitlines()[0][:70]
    return None if noticed else f"{one.file}:{first}  {was}  ->  {became}"


def main() -> int:
    parser = argparse.ArgumentParser()
    parser.add_argument("rooms", nargs="*")
    parser.add_argument("--count", type=int, default=60)
    parser.add_argument("--seed", type=int, default=1)
    options = parser.parse_args()
    chosen = picked(list(mutants(options.rooms)), options.count, options.seed)
    with tempfile.TemporaryDirectory() as folder:
        work, rooms, alive = Path(folder), dict[Path, Room](), 0
        for name in ("src", "tests", "docs"):
            shutil.copytree(ROOT / name, work / name, ignore=shutil.ignore_patterns("__pycache__", ".hypothesis"))
        shutil.copy(ROOT / "pyproject.toml", work)
        (work / "coverage").mkdir()
        for done, one in enumerate(chosen, start=1):
            if one.room not in rooms:
                known = measured(work, one.room)
                if known is None:
                    print(f"The tests of {one.room} fail before anything is changed.")
                    return 1
                rooms[one.room] = known
            survivor = unnoticed(work, one, rooms[one.room])
            alive += survivor is not None
            if survivor is not None:
                print(f"{done:4}  {survivor}", flush=True)
    share = 100 * (len(chosen) - alive) / max(1, len(chosen))
    print(f"{len(chosen) - alive} of {len(chosen)} changes noticed ({share:.0f} %)")
    return 0


if __name__ == "__main__":
    sys.exit(main())
