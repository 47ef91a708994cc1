"""What is wrong with the shape of an input, in plain words instead of a validator's."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from typing import Any

_WORDS: dict[str, Callable[[Mapping[str, Any]], str]] = {
    "missing": lambda c: "is needed",
    "extra_forbidden": lambda c: "does not belong here",
    "string_type": lambda c: "must be text",
    "string_too_short": lambda c: (
        "must not be empty" if c.get("min_length") == 1 else f"needs {c.get('min_length')} characters or more"
    ),
    "string_too_long": lambda c: f"must be no longer than {c.get('max_length')} characters",
    "string_pattern_mismatch": lambda c: "must be lower-case letters, digits, - or _, 60 at most",
    "list_type": lambda c: "must be a list",
    "tuple_type": lambda c: "must be a list",
    "dict_type": lambda c: "must hold named fields",
    "model_type": lambda c: "must hold named fields",
    "model_attributes_type": lambda c: "must hold named fields",
    "invalid_key": lambda c: "field names must be text",
    "bool_type": lambda c: "must be yes or no",
    "bool_parsing": lambda c: "must be yes or no",
    "int_type": lambda c: "must be a whole number",
    "int_parsing": lambda c: "must be a whole number",
    "int_from_float": lambda c: "must be a whole number",
    "float_type": lambda c: "must be a number",
    "float_parsing": lambda c: "must be a number",
    "finite_number": lambda c: "must be a finite number",
    "greater_than": lambda c: f"must be above {_shown(c.get('gt'))}",
    "greater_than_equal": lambda c: f"must be {_shown(c.get('ge'))} or more",
    "less_than": lambda c: f"must be below {_shown(c.get('lt'))}",
    "less_than_equal": lambda c: f"must be {_shown(c.get('le'))} or less",
    "too_short": lambda c: f"needs {c.get('min_length')} or more, {c.get('actual_length')} came",
    "too_long": lambda c: f"takes {c.get('max_length')} at most, {c.get('actual_length') or 'more'} came",
    "enum": lambda c: "is none of these",
    "literal_error": lambda c: "is none of these",
    "union_tag_invalid": lambda c: f"“{c.get('tag')}” is none of these",
    "union_tag_not_found": lambda c: "does not say what it is",
    "uuid_type": lambda c: "must be an identifier",
    "uuid_parsing": lambda c: "must be an identifier",
    "datetime_parsing": lambda c: "must be a date with time",
    "date_parsing": lambda c: "must be a date",
    "json_invalid": lambda c: "cannot be read as JSON",
}


def _shown(value: Any) -> str:
    return f"{value:g}" if isinstance(value, int | float) else str(value)


def plain_words(kind: str, message: str, context: Mapping[str, Any] | None = None) -> str:
    """The words for one finding of the validator: its kind, its own message where there are none better, its figures.

    >>> plain_words("less_than_equal", "Input should be less than or equal to 5", {"le": 5})
    'must be 5 or less'
    """
    found = _WORDS.get(kind)
    return message.removeprefix("Value error, ") if found is None else found(context or {})
