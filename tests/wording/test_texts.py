"""No text of the application holds a phrase of a private dialect; the lister sees what it must see."""

from __future__ import annotations

from tests.wording.texts import banned, texts


def test_no_text_holds_a_phrase_that_is_not_used() -> None:
    assert [f"{text} (say: {instead})" for text, instead in banned()] == []


def test_texts_of_every_kind_are_listed() -> None:
    listed = list(texts())
    assert {text.path.suffix for text in listed} == {".py", ".svelte", ".ts", ".md", ".yaml", ".csv"}
    said = {text.text for text in listed}
    # One of the core, one of a screen.
    assert "the first entry of a job is its intake" in said
    assert any("This stage is complete." in text for text in said)
