"""What is wrong with the shape of an input is told in plain words."""

from __future__ import annotations

from typing import Any

import pytest
from pydantic import ValidationError

from ironkettle.core.base.wording import plain_words
from ironkettle.core.sheets.document.findings import validation_faults
from ironkettle.core.sheets.document.sheet import Sheet
from tests.tiny import plug


@pytest.mark.parametrize(
    ("changes", "field", "words"),
    [
        ({"name": None}, "name", "is needed"),
        ({"colour": "red"}, "colour", "does not belong here"),
        ({"name": ""}, "name", "must not be empty"),
        ({"name": 5}, "name", "must be text"),
        ({"key": "Big Key"}, "key", "must be lower-case letters, digits, - or _, 60 at most"),
        ({"zones": {"a": 1}}, "zones", "must be a list"),
        ({"zones": []}, "zones", "needs 2 or more, 0 came"),
        ({"service": 5}, "service", "must hold named fields"),
        ({"version": 0}, "version", "must be 1 or more"),
        ({"version": "many"}, "version", "must be a whole number"),
        ({"version": 1e9}, "version", "must be 100000 or less"),
        ({"authority": "king"}, "authority", "is none of these"),
        ({"parts__1__solid": {"bar": {"from": 1, "to": float("inf"), "outer": 2}}}, "parts.1.solid.0.bar.to", "must be a finite number"),
        ({"parts__1__solid": {"bar": {"from": "one", "to": 2, "outer": 2}}}, "parts.1.solid.0.bar.from", "must be a number"),
        ({"steps__1__photo": "perhaps"}, "steps.1.photo", "must be yes or no"),
        ({"stations__0__between": ["oil", "air", "oil"]}, "stations.0.between", "takes 2 at most, 3 came"),
    ],
)  # fmt: skip
def test_shapes_of_a_sheet(changes: dict[str, Any], field: str, words: str) -> None:
    with pytest.raises(ValidationError) as caught:
        Sheet.model_validate(plug(**changes))
    told = {fault.field: fault.message for fault in validation_faults(caught.value)}
    assert told.get(field) == words, told


def test_a_rule_s_own_words_stand() -> None:
    assert plain_words("value_error", "Value error, from 5 to 2 runs backwards") == "from 5 to 2 runs backwards"
    assert plain_words("greater_than", "", {"gt": 0}) == "must be above 0"
    assert plain_words("less_than", "", {"lt": 2.5}) == "must be below 2.5"
    assert plain_words("string_too_short", "", {"min_length": 5}) == "needs 5 characters or more"
    assert plain_words("string_too_long", "", {"max_length": 60}) == "must be no longer than 60 characters"


def test_no_message_of_a_machine_is_left_for_what_people_get_wrong() -> None:
    """Whatever is put in the place of a value, nothing of the validator's own language comes out."""
    for path in (
        "name",
        "version",
        "zones",
        "zones__0__seeds",
        "parts__0__solid",
        "stations__0__seats__0__at",
        "steps__0__after",
    ):
        for value in (None, 5, -1, 1e400, "x", "", [], {}, [[]], {"a": 1}, True):
            try:
                Sheet.model_validate(plug(**{path: value}))
            except ValidationError as error:
                for fault in validation_faults(error):
                    assert "Input" not in fault.message, (path, value, fault)
                    assert "String should" not in fault.message, (path, value, fault)
