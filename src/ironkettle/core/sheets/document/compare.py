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
    return tuple(
        Difference(".".join(difference.path), shown(difference.was), shown(difference.now)) for difference in found
    )


def raw_differences(old: Any, new: Any, path: tuple[str, ...] = ()) -> Iterator[RawDifference]:
    """Every difference of two documents, at the deepest place where both sides have something to compare."""
    if old == new:
        return
    if isinstance(old, dict) and isinstance(new, dict):
        for name in [*old, *(item for item in new if item not in old)]:
            yield from raw_differences(old.get(name), new.get(name), (*path, name))
    elif _keyed(old) and _keyed(new):
        before, after = ({str(item["key"]): item for item in listed} for listed in (old, new))
        for key in [*before, *(added for added in after if added not in before)]:
            yield from raw_differences(before.get(key), after.get(key), (*path, key))
    elif _alike(old, new):
        for place, (was, now) in enumerate(zip(old, new, strict=True), start=1):
            yield from raw_differences(was, now, (*path, str(place)))
    else:
        yield RawDifference(path, old, new)


def _keyed(value: Any) -> bool:
    return isinstance(value, list) and all(isinstance(item, dict) and "key" in item for item in value)


def _alike(old: Any, new: Any) -> bool:
    """Whether two lists of things without a key can be held against each other place by place."""
    both = isinstance(old, list) and isinstance(new, list) and len(old) == len(new)
    return both and all(isinstance(item, dict) for item in (*old, *new))


def shown(value: Any) -> str | None:
    """A value of a document in words; None for nothing."""
    if value is None:
        return None
    if isinstance(value, dict):
        return ", ".join(f"{name} {shown(item)}" for name, item in value.items() if item is not None)
    if isinstance(value, list):
        return ", ".join(str(shown(item)) for item in value)
    return str(value)
