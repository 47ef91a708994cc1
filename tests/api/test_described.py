"""The API in words: nothing of it is left undescribed, nothing described that is not there, and every example runs."""

from __future__ import annotations

from typing import Any

import pytest

from ironkettle.api.app import create_app
from ironkettle.api.base.described import fields, listed, operations
from tests.people import BenchClient

DOCUMENT: dict[str, Any] = create_app().openapi()
OPERATIONS = dict(listed(DOCUMENT))
SCHEMAS: dict[str, Any] = DOCUMENT["components"]["schemas"]
EXAMPLES = {name: known["example"] for name, known in operations().items() if "example" in known}


def test_every_operation_field_and_parameter_is_described() -> None:
    bare = [name for name, operation in OPERATIONS.items() if not operation.get("description")]
    bare += [name for name, operation in OPERATIONS.items() if not operation.get("summary")]
    bare += [
        f"{name}: {parameter['name']}"
        for name, operation in OPERATIONS.items()
        for parameter in operation.get("parameters", ())
        if not parameter.get("description")
    ]
    bare += [
        f"{model}.{name}"
        for model, schema in SCHEMAS.items()
        for name, field in schema.get("properties", {}).items()
        if not field.get("description")
    ]
    assert bare == []


def test_nothing_is_described_that_is_not_there() -> None:
    named = {name for schema in SCHEMAS.values() for name in schema.get("properties", {})}
    named |= {f"{model}.{name}" for model, schema in SCHEMAS.items() for name in schema.get("properties", {})}
    for operation in OPERATIONS.values():
        for parameter in operation.get("parameters", ()):
            named |= {parameter["name"], f"{parameter['name']}_parameter"}
    assert set(fields()) - named == set()
    assert set(operations()) - set(OPERATIONS) == set()


def test_a_number_that_has_a_unit_says_so() -> None:
    units = {"_mm": "[mm]", "_mpa": "[MPa]", "_bar": "[bar]", "_ml": "[ml]", "_nm": "[N·m]", "_kn": "[kN]", "_deg": "[deg]", "_j": "[J]"}  # fmt: skip
    for name, said in fields().items():
        for end, unit in units.items():
            if name.endswith(end):
                assert unit in said, name


def test_every_refusal_has_an_example() -> None:
    for name, operation in OPERATIONS.items():
        for status, answer in operation["responses"].items():
            if status[0] in "45" and "application/problem+json" in answer.get("content", {}):
                example = answer["content"]["application/problem+json"]["example"]
                assert example["status"] == int(status), name
                assert set(example) == set(SCHEMAS["Problem"]["properties"]), name


@pytest.mark.parametrize("name", EXAMPLES)
def test_an_example_is_answered(client: BenchClient, name: str) -> None:
    method, path = name.split(" ")
    answer = client.request(method, path, json=EXAMPLES[name])
    assert answer.status_code == 200, answer.json()
    content = OPERATIONS[name]["requestBody"]["content"]["application/json"]
    assert content["example"] == EXAMPLES[name]


def test_every_calculation_has_an_example() -> None:
    open_posts = {name for name, one in OPERATIONS.items() if name.startswith("POST") and "403" not in one["responses"]}
    # A first lead is set up once; a sheet that can be drawn is longer than an example.
    assert open_posts - set(EXAMPLES) == {"POST /api/session/first", "POST /api/sheets/picture"}
