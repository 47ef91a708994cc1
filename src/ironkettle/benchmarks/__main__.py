"""Print each figure beside its floor and their ratio."""

from __future__ import annotations

import sys

from ironkettle.benchmarks import core, faults, proof, published, server, units


def main() -> int:
    if sys.argv[1:] == ["faults"]:
        return faults.main()
    if sys.argv[1:2] == ["honest"]:
        return published.main(write="--write" in sys.argv[2:])
    print(f"{'what':<58}{'time':>12}{'floor':>12}{'ratio':>9}")
    for figures in (core.figures(), proof.figures(), units.figures(), server.figures()):
        for name, time, floor in figures:
            ratio = f"{time / floor:8.1f}x" if floor else " " * 9
            print(f"{name:<58}{_shown(time):>12}{_shown(floor):>12}{ratio}", flush=True)
    return 0


def _shown(seconds: float) -> str:
    if not seconds:
        return "-"
    return f"{seconds * 1e3:.2f} ms" if seconds < 1 else f"{seconds:.2f} s"


if __name__ == "__main__":
    sys.exit(main())
