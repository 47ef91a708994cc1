"""Two versions of a sheet side by side: what was added, taken out, changed, each under its path."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from typing import Any

from ironkettle.core.buildsheets.sheet import Sheet, document_of


@dataclass(frozen=True, slots=True)
class Difference:
    """``before`` and ``after`` in words; None where there was or is nothing."""

    path: str
    before: str | None
    after: str | None


def differences(old: Sheet, new: Sheet) -> tuple[Difference, ...]:
    """Everything in which two sheets differ; things with a key are matched by it, whatever their place."""
    return tuple(_between("", document_of(old), document_of(new)))


def _between(path: str, old: Any, new: Any) -> Iterator[Difference]:
    if old == new:
        return
    if isinstance(old, dict) and isinstance(new, dict):
        for name in [*old, *(one for one in new if one not in old)]:
            yield from _between(f"{path}.{name}".lstrip("."), old.get(name), new.get(name))
    elif _keyed(old) and _keyed(new):
        before, after = ({str(one["key"]): one for one in listed} for listed in (old, new))
        for key in [*before, *(one for one in after if one not in before)]:
            yield from _between(f"{path}.{key}".lstrip("."), before.get(key), after.get(key))
    else:
        yield Difference(path, _words(old), _words(new))


def _keyed(value: Any) -> bool:
    return isinstance(value, list) and all(isinstance(one, dict) and "key" in one for one in value)


def _words(value: Any) -> str | None:
    if value is None:
        return None
    if isinstance(value, dict):
        return ", ".join(f"{name} {_words(one)}" for name, one in value.items() if one is not None)
    if isinstance(value, list):
        return ", ".join(str(_words(one)) for one in value)
    return str(value)
