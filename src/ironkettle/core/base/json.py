"""What JSON holds, for the type checker."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from typing import TypeAlias

Json: TypeAlias = "Mapping[str, Json] | Sequence[Json] | str | int | float | bool | None"
JsonObject: TypeAlias = "dict[str, Json]"


def json_object(value: Json) -> JsonObject:
    """A value that is an object. Raises TypeError for any other."""
    if not isinstance(value, dict):
        raise TypeError(f"an object is wanted, not {type(value).__name__}")
    return value


def json_list(value: Json) -> list[Json]:
    """A value that is a list. Raises TypeError for any other."""
    if not isinstance(value, list):
        raise TypeError(f"a list is wanted, not {type(value).__name__}")
    return value


__all__ = ["Json", "JsonObject", "json_list", "json_object"]
