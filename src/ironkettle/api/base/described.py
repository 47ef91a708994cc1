"""The API in words: every field, parameter and operation of the OpenAPI document gets its description, and bodies an example."""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from functools import cache
from pathlib import Path
from typing import Any

from ironkettle.core.sheets.document.text import read_document

_FOLDER = Path(__file__).parent


@cache
def fields() -> Mapping[str, str]:
    """What each field is, by its name or by ``Model.name``."""
    return _read("fields.yaml")


@cache
def operations() -> Mapping[str, Mapping[str, Any]]:
    """What each operation ``says`` and an ``example`` of its body, by ``POST /api/…``."""
    return _read("operations.yaml")


def describe(document: dict[str, Any]) -> dict[str, Any]:
    """The document with every description it lacks and that is known; what it has of its own stays."""
    for model, schema in document["components"]["schemas"].items():
        for name, field in schema.get("properties", {}).items():
            _say(field, fields().get(f"{model}.{name}") or fields().get(name))
    for name, operation in listed(document):
        known = operations().get(name, {})
        _say(operation, known.get("says"))
        for parameter in operation.get("parameters", ()):
            said = fields().get(f"{parameter['name']}_parameter") or fields().get(parameter["name"])
            _say(parameter, said)
        for content in operation.get("requestBody", {}).get("content", {}).values():
            if "example" in known:
                content["example"] = known["example"]
    return document


def listed(document: Mapping[str, Any]) -> Iterator[tuple[str, dict[str, Any]]]:
    """Every operation of the document as ``POST /api/…``."""
    for path, methods in document["paths"].items():
        for method, operation in methods.items():
            yield f"{method.upper()} {path}", operation


def _say(what: dict[str, Any], text: str | None) -> None:
    # Beside a reference a description may stand as it is: OpenAPI 3.1.
    if text is not None:
        what.setdefault("description", text)


def _read(name: str) -> Mapping[str, Any]:
    document: Mapping[str, Any] = read_document((_FOLDER / name).read_text(encoding="utf-8"), name)
    return document
