"""What the card says will be recorded is what the log has, word for word; the drawing tells no side before the hand has."""

from __future__ import annotations

import re

from playwright.sync_api import Locator, Page, expect

from tests.browser import steps
from tests.browser.steps import Shot, hand


def last_words(page: Page) -> str:
    """The newest line of the job's log, as the API has it."""
    root, request = steps.root_of(page), page.context.request
    number = page.url.rstrip("/").split("/jobs/")[1].split("/")[0]
    job = request.get(f"{root}/api/jobs/{number}").json()["job"]["id"]
    return str(request.get(f"{root}/api/jobs/{job}/log").json()[-1]["words"])


def said(under: Locator) -> str:
    """The sentence that an answer would put on the record."""
    found = re.search("“(.*)”", under.locator("[data-records]").inner_text())
    assert found is not None
    return found[1]


def test_a_lip_is_drawn_without_its_side_and_recorded_as_the_card_says(bench: Page, shot: Shot) -> None:
    steps.to_task(bench, "fit:rod-lip", serial="FN-0416")
    card = hand(bench)
    expect(bench.locator(".element[data-neutral]").first).to_be_attached()
    expect(card.get_by_role("radio", checked=True)).to_have_count(0)
    # Either answer tells what it would record, before its tap.
    expect(card.locator("[data-records]")).to_have_count(2)
    answer = card.get_by_role("radio", name=re.compile("^rod side"))
    words = said(answer)
    assert "open lips to rod side" in words
    answer.click()
    expect(bench.locator('[data-task="fit:rod-lip"]')).to_have_count(0)
    assert last_words(bench) == words


def test_a_kit_that_was_counted_is_told_in_one_tap_but_not_by_enter(bench: Page, shot: Shot) -> None:
    steps.to_task(bench, "count:FN-K-5028", serial="FN-0416")
    button = steps.main_button(hand(bench))
    expect(button).to_have_text("Counted, all as listed")
    expect(button).not_to_be_focused()
    shot("count")
    button.click()
    expect(bench.locator('[data-task="count:FN-K-5028"]')).to_have_count(0)
    assert last_words(bench).startswith("kit FN-K-5028 counted: piston lip seal 50 × 40 × 8 2, ")
