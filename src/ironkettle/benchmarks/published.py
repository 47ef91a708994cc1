"""The tables of honesty in the guide: printed, and written into it when asked."""

from __future__ import annotations

import math
from collections.abc import Callable, Iterator
from concurrent.futures import ProcessPoolExecutor
from functools import partial
from itertools import pairwise
from pathlib import Path

from ironkettle.benchmarks.holds import Rig, Share, rigs, try_rig, worlds
from ironkettle.benchmarks.honest import EDGES, Honesty, try_match
from ironkettle.benchmarks.kinds import SHARES, WORLDS, verdicts
from ironkettle.core.sealing.rings import Condition
from ironkettle.reference import ring_table

RINGS, RING_SEED, PARTS = 20_000, 2026, 8
HOLDS, HOLD_SEED = 1000, 2026
KIND_RUNS, KIND_SEED = 1000, 2026
TOLD_WRONG = (0.05, 0.12, 0.25)
LEAKS = (0.5, 1.05, 1.2, 2.0)
_GUIDE = Path(__file__).resolve().parents[3] / "docs" / "guide"


def main(*, write: bool) -> int:
    """Print the tables as they come; with ``write`` put each into the guide between its marks."""
    pages: tuple[tuple[str, str, Callable[[], Iterator[str]]], ...] = (
        ("ring-match.md", "rings", ring_lines),
        ("ring-match.md", "other worlds", world_lines),
        ("pressure-tests.md", "holds", hold_lines),
        ("kinds-of-test.md", "kinds", kind_lines),
    )
    for name, mark, lines in pages:
        text = "\n".join(lines())
        print(f"\n{text}\n", flush=True)
        if write:
            put_between(_GUIDE / name, mark, text)
    return 0


def put_between(path: Path, mark: str, text: str) -> None:
    """Replace what stands between the two marks of a page of the guide."""
    page = path.read_text(encoding="utf-8")
    begin, end = f"<!-- bench honest: {mark} -->\n", f"<!-- end: {mark} -->"
    head, _, rest = page.partition(begin)
    _, _, tail = rest.partition(end)
    if not tail:
        raise ValueError(f"{path.name} has no marks for {mark!r}")
    path.write_text(f"{head}{begin}{text}\n{end}{tail}", encoding="utf-8")


def ring_lines() -> Iterator[str]:
    """Reliability of the ring match, condition by condition."""
    found = _rings(None)
    bins = [f"{low:g} to {high:g}" for low, high in pairwise(EDGES)]
    yield "| told to be | rings | first right | best possible | decided | of these right | " + " | ".join(bins) + " |"
    yield "|---" * (6 + len(bins)) + "|"
    for condition in Condition:
        whole = found[condition]
        gaps = {low: f"{100 * gap:+.1f} ({count})" for low, count, gap in whole.bins.gaps()}
        cells = " | ".join(gaps.get(low, "") for low in EDGES[:-1])
        yield (
            f"| {condition} | {whole.draws} | {whole.right / whole.draws:.1%} | {whole.best / whole.draws:.1%} | "
            f"{whole.decided / whole.draws:.1%} | {whole.decided_right_share:.1%} | {cells} |"
        )


def world_lines() -> Iterator[str]:
    """Of what is decided, how much is right where conditions are told wrong more or less often, or only half told."""
    found = {f"{wrong:.0%} told wrong": _rings(wrong) for wrong in TOLD_WRONG}
    found["flattened as well, and not entered"] = _rings(None, Condition.FLATTENED)
    yield "| told to be | " + " | ".join(found) + " |"
    yield "|---" * (1 + len(found)) + "|"
    for condition in Condition:
        ones = [measured[condition] for measured in found.values()]
        yield (
            f"| {condition} | "
            + " | ".join(f"{measured.decided_right_share:.1%} ({measured.decided})" for measured in ones)
            + " |"
        )


def kind_lines() -> Iterator[str]:
    """How every kind of test is judged where what is true is a share of what is allowed."""
    yield "| kind | " + " | ".join(f"{share:g} of it" for share in SHARES) + " |"
    yield "|---" * (1 + len(SHARES)) + "|"
    for world in WORLDS:
        cells = []
        for share in SHARES:
            found = verdicts(world, share, KIND_RUNS, KIND_SEED)
            cells.append(f"{found['pass']:.1%} / {found['fail']:.1%}")
        yield f"| {world.name} | " + " | ".join(cells) + " |"


def _rings(told_wrong: float | None, as_well: Condition | None = None) -> dict[Condition, Honesty]:
    whole = {condition: Honesty() for condition in Condition}
    with ProcessPoolExecutor() as pool:
        for part in pool.map(partial(_some_rings, told_wrong, as_well), range(PARTS)):
            for condition, measured in part.items():
                whole[condition].take(measured)
    return whole


def _some_rings(told_wrong: float | None, as_well: Condition | None, part: int) -> dict[Condition, Honesty]:
    return try_match(ring_table(), RINGS // PARTS, RING_SEED + part, told_wrong=told_wrong, as_well=as_well)


def hold_lines() -> Iterator[str]:
    """Verdicts on simulated holds, looked at as they go and closed at the first verdict."""
    cells = [(rig, leak) for rig in (*rigs(), *worlds()) for leak in LEAKS]
    with ProcessPoolExecutor() as pool:
        shares = list(pool.map(_some_holds, cells))
    yield "| hold | leak, in limits | holds | pass | fail | interval covers | median to pass | × least | median to fail |"
    yield "|---" * 9 + "|"
    for share in shares:
        yield (
            f"| {share.rig} | {share.leak:g} | {share.holds} | {share.passed:.1%} | {share.failed:.1%} | {share.covered:.1%} | "
            f"{_seconds(share.median_pass_s)} | {_times(share.against_least)} | {_seconds(share.median_fail_s)} |"
        )


def _some_holds(cell: tuple[Rig, float]) -> Share:
    rig, leak = cell
    return try_rig(rig, leak, HOLDS, HOLD_SEED)


def _seconds(value: float) -> str:
    return "" if math.isnan(value) else f"{value:.0f} s"


def _times(value: float) -> str:
    return "" if math.isnan(value) else f"{value:.2f}"
