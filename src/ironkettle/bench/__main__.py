"""Print each figure beside its floor and their ratio."""

from __future__ import annotations

import sys

from ironkettle.bench import core, server
from ironkettle.bench.honest import try_match
from ironkettle.reference import ring_table

DRAWS = 20_000


def main() -> int:
    print(f"{'what':<58}{'time':>12}{'floor':>12}{'ratio':>9}")
    for figures in (core.figures(), server.figures()):
        for name, time, floor in figures:
            ratio = f"{time / floor:8.1f}x" if floor else " " * 9
            print(f"{name:<58}{_shown(time):>12}{_shown(floor):>12}{ratio}", flush=True)
    print(_honesty(), flush=True)
    return 0


def _honesty() -> str:
    """The match against the best classifier on the same draws of its stated model."""
    seen = try_match(ring_table(), DRAWS, seed=2026)
    tenths = ", ".join(f"from {low}: {gap * 100:+.1f} ({count})" for low, (count, gap) in seen.gaps.items())
    return (
        f"match, {seen.draws:,} rings drawn from the stated model: right {seen.right:.1%}, best classifier "
        f"{seen.best:.1%}, ratio {seen.against_best:.4f}\n  stated against true, points by tenth (draws): {tenths}"
    )


def _shown(seconds: float) -> str:
    if not seconds:
        return "-"
    return f"{seconds * 1e3:.2f} ms" if seconds < 1 else f"{seconds:.2f} s"


if __name__ == "__main__":
    sys.exit(main())
