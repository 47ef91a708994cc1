"""Two versions of a sheet side by side: what was added, taken out, changed, each under its path."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from typing import Any

from ironkettle.core.sheets.document.sheet import Sheet, document_of


@dataclass(frozen=True, slots=True)
class Difference:
    """``before`` and ``after`` in words; None where there was or is nothing."""

    path: str
    before: str | None
    after: str | None


@dataclass(frozen=True, slots=True)
class RawDifference:
    """A difference as the documents hold it: ``path`` by names, keys and places; None where there was or is nothing."""

    path: tuple[str, ...]
    was: Any
    now: Any


def differences(old: Sheet, new: Sheet) -> tuple[Difference, ...]:
    """Everything in which two sheets differ; things with a key are matched by it, whatever their place."""
    found = raw_differences(document_of(old), document_of(new))
    return tuple(Difference(".".join(one.path), shown(one.was), shown(one.now)) for one in found)


def raw_differences(old: Any, new: Any, path: tuple[str, ...] = ()) -> Iterator[RawDifference]:
    """Every difference of two documents, at the deepest place where both sides have something to compare."""
    if old == new:
        return
    if isinstance(old, dict) and isinstance(new, dict):
        for name in [*old, *(one for one in new if one not in old)]:
            yield from raw_differences(old.get(name), new.get(name), (*path, name))
    elif _keyed(old) and _keyed(new):
        before, after = ({str(one["key"]): one for one in listed} for listed in (old, new))
        for key in [*before, *(one for one in after if one not in before)]:
            yield from raw_differences(before.get(key), after.get(key), (*path, key))
    elif _alike(old, new):
        for place, (was, now) in enumerate(zip(old, new, strict=True), start=1):
            yield from raw_differences(was, now, (*path, str(place)))
    else:
        yield RawDifference(path, old, new)


def _keyed(value: Any) -> bool:
    return isinstance(value, list) and all(isinstance(one, dict) and "key" in one for one in value)


def _alike(old: Any, new: Any) -> bool:
    """Whether two lists of things without a key can be held against each other place by place."""
    both = isinstance(old, list) and isinstance(new, list) and len(old) == len(new)
    return both and all(isinstance(one, dict) for one in (*old, *new))


def shown(value: Any) -> str | None:
    """A value of a document in words; None for nothing."""
    if value is None:
        return None
    if isinstance(value, dict):
        return ", ".join(f"{name} {shown(one)}" for name, one in value.items() if one is not None)
    if isinstance(value, list):
        return ", ".join(str(shown(one)) for one in value)
    return str(value)
