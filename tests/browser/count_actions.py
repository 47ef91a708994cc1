"""How many clicks, taps and filled fields a unit takes from its intake to its certificate, on the real screens.

``./kettle bench actions`` runs it and prints a line a unit beside its goal. A sound unit in a careful hand: nothing is
answered that is not asked, and a hold is recorded from the test stand.
"""

from __future__ import annotations

import re
from collections.abc import Mapping
from dataclasses import dataclass, field
from typing import Any

import pytest
from playwright.sync_api import Locator, Page, expect

from tests.browser import steps
from tests.browser.steps import Act, hand
from tests.browser.test_walk import match
from tests.people import PINS

_HELD_MS = 200_000
_ACTIONS = ("click", "fill", "check", "select_option")


@dataclass
class Count:
    """``by_task``: the actions of each task in hand, by its key."""

    total: int = 0
    by_task: dict[str, int] = field(default_factory=dict)


@pytest.fixture
def count(monkeypatch: pytest.MonkeyPatch) -> Count:
    """Counts what is clicked, tapped and filled; keys typed into a field already counted are part of it."""
    counted = Count()
    for name in _ACTIONS:
        real = getattr(Locator, name)

        def act(self: Locator, *arguments: Any, _real: Any = real, **named: Any) -> Any:
            counted.total += 1
            return _real(self, *arguments, **named)

        monkeypatch.setattr(Locator, name, act)
    return counted


def take_in(page: Page, marking: str, kit: str, serial: str) -> None:
    page.get_by_role("link", name="New job").click()
    page.get_by_label("Find by marking").fill(marking)
    page.get_by_role("button", name=re.compile(kit)).click()
    for label, text in (("Serial number", serial), ("Customer", "boats"), ("Complaint", "leaks")):
        page.get_by_label(label).fill(text)
    page.get_by_role("button", name="Open the job").click()
    expect(hand(page)).to_be_visible()


def in_the_middle(page: Page, key: str) -> dict[str, str]:
    """A reading for each question with a limit, by its label: its middle."""
    job = re.search(r"/jobs/([^/?#]+)", page.url)
    assert job is not None
    view = page.context.request.get(f"{steps.root_of(page)}/api/jobs/{job[1]}").json()
    asks = next(task["asks"] for task in view["tasks"] if task["key"] == key)
    limits = [(ask["label"], ask["limit"], ask["read"]) for ask in asks if ask["limit"] is not None]
    return {
        label: f"{round(sum(limit) / 2) if read == 'number' else sum(limit) / 2:g}"
        for label, limit, read in limits
        if max(map(abs, limit)) < 1e6
    }


def in_one_tap(card: Locator) -> bool:
    """All as it should be, where the card offers that."""
    said = steps.main_button(card)
    if said.count() and re.search("as listed|as shown|as it should|as they should", said.inner_text()):
        for left in card.get_by_role("radiogroup", name=re.compile("where does it go")).all():
            left.get_by_role("radio").first.click()
        said.click()
        return True
    return False


def work(page: Page, acts: Mapping[str, Act | Mapping[str, str]], count: Count) -> None:
    """Every task up to the signature, each in as few actions as its card takes."""
    for _ in range(120):
        key, before = steps.key_of(page), count.total
        if key == "sign":
            return
        steps.wait_out(page)
        if hand(page).get_by_role("timer").count():
            # Begun by the step before it.
            steps.forward(2400)
            page.reload()
        act: Any = acts.get(key, {})
        if callable(act):
            act(page, hand(page))
        elif key.startswith("tighten:"):
            by_clicks(hand(page))
        elif act or not in_one_tap(hand(page)):
            card, act = hand(page), {**in_the_middle(page, key), **act}
            if not steps.fill_in(card, act) and not steps.tap_clicks(card) and not by_enter(card):
                steps.main_button(card).click()
        expect(page.locator(f'[data-task="{key}"]')).to_have_count(0)
        count.by_task[key] = count.by_task.get(key, 0) + count.total - before
    raise AssertionError(f"not at the signature; in hand is {steps.key_of(page)}")


def sign(page: Page) -> None:
    hand(page).get_by_role("button", name="Sign and release").click()
    page.get_by_label("Your PIN").fill(PINS["bede"])
    page.keyboard.press("Enter")
    expect(page.get_by_role("heading", name="Released by Bede Harrowgate")).to_be_visible()


def by_enter(card: Locator) -> bool:
    """Enter in the only field records as well as its button does."""
    boxes = [box for box in card.locator("form input[data-entry]").all() if box.is_visible()]
    if len(boxes) != 1 or card.locator("form [role=radiogroup]").count():
        return False
    boxes[0].press("Enter")
    return True


def by_clicks(card: Locator) -> None:
    """The first wrench that fits, and each fastener as it clicks."""
    kept, wrench = card.get_by_role("button", name="Change wrench"), card.get_by_role("radiogroup", name="Wrench")
    expect(kept.or_(wrench).first).to_be_visible()
    if not kept.is_visible():
        wrench.get_by_role("radio").first.click()
    expect(card.get_by_role("button", name=re.compile("clicked at"))).to_be_visible()
    assert steps.tap_clicks(card)


def from_the_stand(page: Page, card: Locator) -> None:
    page.get_by_role("button", name=re.compile("From the test stand")).click()
    page.get_by_role("button", name=re.compile("^Raise to")).click()
    expect(page.get_by_text("The pressure passes.")).to_be_visible(timeout=_HELD_MS)
    steps.accept_result(page)


def told(name: str, count: Count, goal: int) -> None:
    """The line of a unit, and what costs more than a tap of it."""
    most = [task for task in sorted(count.by_task.items(), key=lambda task: -task[1]) if task[1] > 1]
    print(f"\n{name}: {count.total} actions, goal {goal}; most: {', '.join(f'{key} {n}' for key, n in most)}")


def test_filling_valve(bench: Page, count: Count) -> None:
    take_in(bench, "FN-K-HT15", "kit FN-K-HT15", "FN-2210")
    work(bench, {}, count)
    sign(bench)
    told("Filling valve", count, 25)


def test_needle_scaler(bench: Page, count: Count) -> None:
    take_in(bench, "needle scaler", "Needle scaler", "FN-2211")
    work(bench, {}, count)
    sign(bench)
    told("Needle scaler", count, 15)


def test_latch_ram(bench: Page, count: Count) -> None:
    take_in(bench, "FN-K-5028", "kit FN-K-5028", "FN-2212")
    acts: dict[str, Act | Mapping[str, str]] = {
        "measure:barrel": {"Depth": "0.01"},
        "measure:rod": {"Depth": "0.03", "Run-out": "0.05"},
        "identify:gland-ring": match(steps.no_shot),
        "test:rod-side-hold:as_left": from_the_stand,
        "test:cap-side-hold:as_left": from_the_stand,
    }
    work(bench, acts, count)
    # Lifting gear: the lead signs, who is as many actions away.
    steps.change_person(bench, "Tamsin Orrell", "tamsin")
    hand(bench).get_by_role("button", name="Sign and release").click()
    bench.get_by_label("Your PIN").fill(PINS["tamsin"])
    bench.keyboard.press("Enter")
    expect(bench.get_by_role("heading", name="Released by Tamsin Orrell")).to_be_visible()
    told("Latch ram", count, 90)
