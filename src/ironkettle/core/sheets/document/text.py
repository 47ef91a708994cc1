"""YAML text to a document, within bounds that are checked before anything is built from it."""

from __future__ import annotations

from typing import Any

import yaml

from ironkettle.core.base.errors import fault

LONGEST_SHEET = 400_000
DEEPEST = 24
MOST_VALUES = 40_000
# The C loader where PyYAML was built with it: ten times as fast, the same language.
_FAST: Any = getattr(yaml, "CSafeLoader", yaml.SafeLoader)


class _Loader(_FAST):  # type: ignore[misc]
    """Refuses a key that stands twice in one mapping: the second would silently win."""

    def construct_mapping(self, node: yaml.MappingNode, deep: bool = False) -> dict[Any, Any]:
        seen: set[str] = set()
        for key, _value in node.value:
            if isinstance(key, yaml.ScalarNode):
                if key.value in seen:
                    raise yaml.constructor.ConstructorError(
                        None, None, f"the key “{key.value[:60]}” is used here twice", key.start_mark
                    )
                seen.add(key.value)
        mapping: dict[Any, Any] = super().construct_mapping(node, deep)
        return mapping


def read_document(text: str, what: str = "sheet") -> dict[str, Any]:
    """The document in a YAML text (JSON is YAML).

    Raises RuleError when it is too long, too deep, holds too many values, anchors or aliases (a few of
    them grow into millions of values), a key twice, or is no mapping.
    """
    if len(text) > LONGEST_SHEET:
        raise fault(what, f"is longer than {LONGEST_SHEET} characters")
    try:
        _check_bounds(text, what)
        document = yaml.load(text, Loader=_Loader)
    except yaml.YAMLError as error:
        mark = getattr(error, "problem_mark", None)
        where = f"line {mark.line + 1}, column {mark.column + 1}" if mark else "somewhere"
        problem = getattr(error, "problem", None) or "it is not YAML"
        raise fault(what, f"cannot be read as YAML at {where}: {problem}") from None
    except (RecursionError, ValueError, TypeError, OverflowError):
        raise fault(what, "cannot be read as YAML: it holds a value no sheet can hold") from None
    if not isinstance(document, dict):
        raise fault(what, "is not a document with named fields")
    return document


def _check_bounds(text: str, what: str) -> None:
    depth = values = 0
    for event in yaml.parse(text, Loader=_FAST):
        if isinstance(event, yaml.AliasEvent) or getattr(event, "anchor", None) is not None:
            raise fault(what, f"line {_line(event)}: anchors (&) and aliases (*) are not taken; write it out")
        if isinstance(event, yaml.CollectionStartEvent):
            depth += 1
        elif isinstance(event, yaml.CollectionEndEvent):
            depth -= 1
        elif isinstance(event, yaml.ScalarEvent):
            values += 1
        if depth > DEEPEST:
            raise fault(what, f"line {_line(event)}: is nested deeper than {DEEPEST} levels")
        if values > MOST_VALUES:
            raise fault(what, f"holds more than {MOST_VALUES} values")


def _line(event: yaml.Event) -> int:
    return event.start_mark.line + 1 if event.start_mark else 0
