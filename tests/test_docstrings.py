"""Public functions of the core say what they give, and quantities carry their units."""

from __future__ import annotations

import importlib
import inspect
import pkgutil

import pytest

import ironkettle.core

NOUNS = [m.name for m in pkgutil.iter_modules(ironkettle.core.__path__) if m.ispkg]


@pytest.mark.parametrize("noun", NOUNS)
def test_public_functions_are_documented(noun: str) -> None:
    package = importlib.import_module(f"ironkettle.core.{noun}")
    for name in package.__all__:
        item = getattr(package, name)
        if inspect.isfunction(item):
            assert item.__doc__, f"{noun}.{name} has no docstring"
            words = item.__doc__
            takes_number = any(
                str(p.annotation) in {"float", "Floats", "ArrayLike"}
                for p in inspect.signature(item).parameters.values()
            )
            if takes_number and str(inspect.signature(item).return_annotation) in {"float", "Floats"}:
                assert "[" in words, f"{noun}.{name} gives a number without a unit"
