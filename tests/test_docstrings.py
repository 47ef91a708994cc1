"""Public functions of the core say units, ranges, errors and where the rule comes from; their examples run."""

from __future__ import annotations

import ast
import doctest
import importlib
import inspect
import linecache
import pkgutil
import re
import textwrap
from collections.abc import Callable, Iterator
from typing import Any

import pytest

import ironkettle
import ironkettle.core

CORE = "ironkettle.core."
CORE_MODULES = [m.name for m in pkgutil.walk_packages(ironkettle.core.__path__, CORE)]
MODULES = [
    m.name
    for m in pkgutil.walk_packages(ironkettle.__path__, "ironkettle.")
    if not m.name.endswith("__main__") and ".migrations" not in m.name
]
# What a number may be: a bound, an end, or a word for one.
RANGE = re.compile(r"(?i)[<>≤≥]|\bup to\b|\babove\b|\bbelow\b|\bat least\b|\d to \d|\bbetween\b|\bfrom 1\b|\brising\b")
NUMBER = re.compile(r"\b(float|int|Floats|ArrayLike|Toleranced)\b")
SOURCE = re.compile(r"\bSources?\b|\bBasis\b|\bby definition\b")


def public() -> Iterator[tuple[str, Callable[..., Any]]]:
    for name in CORE_MODULES:
        module = importlib.import_module(name)
        for called, item in vars(module).items():
            if inspect.isfunction(item) and item.__module__ == name and not called.startswith("_"):
                yield f"{name.removeprefix(CORE)}.{called}", item


FUNCTIONS = dict(public())


def takes_numbers(item: Callable[..., Any]) -> bool:
    parameters = inspect.signature(item).parameters.values()
    return any(NUMBER.search(str(p.annotation)) for p in parameters)


def gives_numbers(item: Callable[..., Any]) -> bool:
    return bool(NUMBER.search(str(inspect.signature(item).return_annotation)))


def raises(item: Callable[..., Any]) -> bool:
    tree = ast.parse(textwrap.dedent(inspect.getsource(item)))
    return any(isinstance(node, ast.Raise) for node in ast.walk(tree))


@pytest.mark.parametrize("name", FUNCTIONS)
def test_a_public_function_says_what_it_gives(name: str) -> None:
    item = FUNCTIONS[name]
    words = item.__doc__ or ""
    assert words, f"{name} has no docstring"
    if takes_numbers(item) or gives_numbers(item):
        assert "[" in words, f"{name} has numbers without a unit"
    if takes_numbers(item):
        assert RANGE.search(words), f"{name} takes numbers and says no range"
    if raises(item):
        assert "Raises" in words, f"{name} raises and does not say so"
    if gives_numbers(item) and takes_numbers(item):
        assert SOURCE.search(words), f"{name} works out a number and names no source"


@pytest.mark.parametrize("name", MODULES)
def test_examples_run(name: str, monkeypatch: pytest.MonkeyPatch) -> None:
    # Before each docstring the debugger would look whether any file has changed meanwhile.
    monkeypatch.setattr(linecache, "checkcache", lambda filename=None: None)
    found = doctest.testmod(importlib.import_module(name))
    assert found.failed == 0


def test_there_are_examples_to_run() -> None:
    modules = [importlib.import_module(name) for name in MODULES]
    assert sum(len(test.examples) for module in modules for test in doctest.DocTestFinder().find(module)) >= 5
