"""YAML within bounds: what grows, nests or repeats is refused before anything is built of it."""

from __future__ import annotations

import time
import tracemalloc

import pytest

from ironkettle.core.base.errors import RuleError
from ironkettle.core.sheets.document.text import DEEPEST, LONGEST_SHEET, MOST_VALUES, read_document

BOMB = "a: &a [x,x,x,x,x,x,x,x,x]\n" + "".join(
    f"{chr(98 + i)}: &{chr(98 + i)} [{','.join([f'*{chr(97 + i)}'] * 9)}]\n" for i in range(8)
)


@pytest.mark.parametrize(
    ("text", "words"),
    [
        (BOMB, "anchors"),
        ("a: &x 1\nb: 2", "line 1: anchors"),
        ("a: 1\nb:\n  c: 1\n  c: 2", "line 4, column 3: the key “c” is used here twice"),
        ("{" * 60, "deeper than"),
        ("a: " + "[" * (DEEPEST + 1) + "]" * (DEEPEST + 1), f"deeper than {DEEPEST}"),
        ("a:\n" + "- 1\n" * (MOST_VALUES + 1), f"more than {MOST_VALUES} values"),
        ("a: " + "x" * LONGEST_SHEET, "longer than"),
        ("- 1\n- 2", "named fields"),
        ("just words", "named fields"),
        ("", "named fields"),
        ("a: [1", "cannot be read as YAML at line"),
        ("a: 1\n---\nb: 2", "cannot be read as YAML"),
        ("a: !!python/object/apply:os.system [echo]", "cannot be read as YAML"),
        ("? [a, b]\n: 1", "cannot be read as YAML"),
        ("a: 2026-99-99", "no sheet can hold"),
        ("a: \x00", "cannot be read as YAML"),
    ],
)
def test_refused_with_the_place(text: str, words: str) -> None:
    with pytest.raises(RuleError) as caught:
        read_document(text)
    assert words in str(caught.value)
    assert caught.value.faults[0].field == "sheet"


def test_the_deepest_and_json_are_read() -> None:
    assert read_document("a: " + "[" * (DEEPEST - 1) + "]" * (DEEPEST - 1))["a"]
    assert read_document('{"a": [1, 2.5, "x", null, true]}') == {"a": [1, 2.5, "x", None, True]}


@pytest.mark.parametrize("text", [BOMB, "a:\n" + "- 1\n" * 90_000, "a: " + "[" * 200_000])
def test_a_hostile_text_costs_next_to_nothing(text: str) -> None:
    """A bomb of nine nines would be 387 million values; the bounds are a hundred times what this takes."""
    tracemalloc.start()
    began = time.process_time()
    with pytest.raises(RuleError):
        read_document(text)
    _, most = tracemalloc.get_traced_memory()
    tracemalloc.stop()
    assert most < 50_000_000
    assert time.process_time() - began < 20
