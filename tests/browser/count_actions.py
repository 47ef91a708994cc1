"""How many clicks, taps and filled fields each unit takes from its intake to its certificate, on the real screens.

``./kettle bench actions`` runs it and prints a line a unit. A sound unit in a careful hand: nothing is answered that is
not asked, and a hold is recorded from the test stand.
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
from tests.tiny import UNITS

# What the three units are to take at most.
GOALS = {"swing-bridge-ram": 90, "header-tank-valve": 25}
_HELD_MS = 200_000
_ACTIONS = ("click", "fill", "check", "select_option")
_MOST_TASKS = 160
_QUESTION_BELOW = """box => [...box.form.querySelectorAll('[role=radiogroup], [role=group]')]
    .some(group => box.compareDocumentPosition(group) & Node.DOCUMENT_POSITION_FOLLOWING)"""
# As far as a device stays signed in.
_LATER_S = 7200


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


def job_in(page: Page) -> dict[str, Any]:
    """The job on the screen, as the server answers it."""
    job = re.search(r"/jobs/([^/?#]+)", page.url)
    assert job is not None
    view: dict[str, Any] = page.context.request.get(f"{steps.root_of(page)}/api/jobs/{job[1]}").json()
    return view


def task_in(page: Page, key: str) -> dict[str, Any]:
    task: dict[str, Any] = next(task for task in job_in(page)["tasks"] if task["key"] == key)
    return task


def take_in(page: Page, name: str) -> None:
    page.get_by_role("link", name="New job").click()
    page.get_by_label("Find by marking").fill(name)
    page.keyboard.press("Enter")
    expect(page.get_by_label("Serial number"), name).to_be_visible()
    for label, text in (("Serial number", "FN-2210"), ("Customer", "boats"), ("Complaint", "leaks")):
        page.get_by_label(label).fill(text)
    page.get_by_role("button", name="Open the job").click()
    expect(hand(page)).to_be_visible()


def in_the_middle(task: Mapping[str, Any]) -> dict[str, str]:
    """A reading for each question with a limit, by its label: its middle; what the sheet knows to be right."""
    found = {
        ask["label"]: str(ask["right"]) for ask in task["asks"] if ask["read"] == "text" and ask["right"] is not None
    }
    for ask in task["asks"]:
        if ask["limit"] is not None and max(map(abs, ask["limit"])) < 1e6:
            low, high = ask["limit"]
            middle = (low + high) / 2
            whole = ask["read"] == "number" and low <= round(middle) <= high
            found[ask["label"]] = f"{round(middle) if whole else middle:g}"
    return found


def may_stay_empty(task: Mapping[str, Any]) -> list[str]:
    return [ask["label"] for ask in task["asks"] if ask["optional"]]


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
    for _ in range(_MOST_TASKS):
        key, before = steps.key_of(page), count.total
        if key == "sign":
            return
        steps.wait_out(page)
        while hand(page).get_by_role("timer").count():
            # Begun by the step before it, or a soak.
            steps.forward(_LATER_S)
            page.reload()
            expect(hand(page)).to_be_visible()
        if steps.key_of(page) == key:
            do(page, key, acts.get(key, {}))
            expect(page.locator(f'[data-task="{key}"]'), key).to_have_count(0)
        count.by_task[key] = count.by_task.get(key, 0) + count.total - before
    raise AssertionError(f"not at the signature; in hand is {steps.key_of(page)}")


def do(page: Page, key: str, act: Act | Mapping[str, str]) -> None:
    """One task, as its card is best worked."""
    task, card = task_in(page, key), hand(page)
    if callable(act):
        act(page, card)
    elif task["screen"]["kind"] == "hold":
        from_the_stand(page, card)
    elif task["screen"]["kind"] == "setting":
        set_to(card, task)
    elif task["screen"]["kind"] == "torque":
        by_wrench(card, task)
    elif act or not in_one_tap(card):
        if task["screen"]["kind"] == "size":
            card.get_by_role("button", name="Use the groove alone").click()
        given = {**in_the_middle(task), **act}
        if not steps.fill_in(card, given, may_stay_empty(task)) and not steps.tap_clicks(card) and not by_enter(card):
            steps.main_button(card).click()


def set_to(card: Locator, task: Mapping[str, Any]) -> None:
    """Set already: its readings in the middle of what is wanted."""
    outright = card.get_by_role("button", name="Already set?")
    if outright.count():
        outright.click()
    if not steps.fill_in(card, in_the_middle(task), may_stay_empty(task)) and not by_enter(card):
        steps.main_button(card).click()


def sign(page: Page) -> None:
    """Whoever may, signs: the lead, where lifting or breathing hangs on it."""
    who = "bede"
    if not job_in(page)["signing"]["may_release"]:
        who = "tamsin"
        steps.change_person(page, "Tamsin Orrell", who)
    hand(page).get_by_label("PIN or password", exact=True).fill(PINS[who])
    page.keyboard.press("Enter")
    expect(page.get_by_role("heading", name=re.compile("^Released by "))).to_be_visible()


def by_enter(card: Locator) -> bool:
    """Enter in the last field records as well as its button does, unless a question stands below it."""
    boxes = [box for box in card.locator("form input[data-entry]").all() if box.is_visible()]
    if not boxes or boxes[-1].evaluate(_QUESTION_BELOW):
        return False
    boxes[-1].press("Enter")
    return True


def by_wrench(card: Locator, task: Mapping[str, Any]) -> None:
    """The first wrench that fits, and each fastener as it clicks, or with what it shows."""
    kept, wrench = card.get_by_role("button", name="Change wrench"), card.get_by_role("radiogroup", name="Wrench")
    expect(kept.or_(wrench).first).to_be_visible()
    if not kept.is_visible():
        wrench.get_by_role("radio").first.click()
    expect(kept).to_be_visible()
    if "click wrench" in card.inner_text():
        expect(card.get_by_role("button", name=re.compile("clicked at"))).to_be_visible()
        assert steps.tap_clicks(card)
    else:
        steps.fill_in(card, in_the_middle(task), may_stay_empty(task))
        assert by_enter(card)


def from_the_stand(page: Page, card: Locator) -> None:
    page.get_by_role("button", name=re.compile("^Raise to")).click()
    # With a measuring glass the pressure alone does not decide.
    passed = page.get_by_text("The pressure passes.").or_(page.locator('[data-verdict="pass"]'))
    expect(passed.first).to_be_visible(timeout=_HELD_MS)
    steps.accept_result(page)


def told(name: str, count: Count, goal: int | None) -> None:
    """The line of a unit, and what costs more than a tap of it."""
    most = [task for task in sorted(count.by_task.items(), key=lambda task: -task[1]) if task[1] > 1]
    wanted = "" if goal is None else f", goal {goal}"
    print(f"\n{name}: {count.total} actions{wanted}; most: {', '.join(f'{key} {n}' for key, n in most)}")


ACTS: dict[str, dict[str, Act | Mapping[str, str]]] = {
    "swing-bridge-ram": {
        "measure:barrel": {"Depth": "0.01"},
        "measure:rod": {"Depth": "0.03", "Run-out": "0.05"},
        "identify:gland-ring": match(steps.no_shot),
    },
}


@pytest.mark.parametrize("key", sorted(sheet.stem for sheet in UNITS.glob("*.yaml")))
def test_unit(bench: Page, count: Count, key: str) -> None:
    answer = bench.context.request.get(f"{steps.root_of(bench)}/api/sheets").json()
    name = str(next(sheet["name"] for sheet in answer if sheet["key"] == key))
    take_in(bench, name)
    work(bench, ACTS.get(key, {}), count)
    sign(bench)
    told(name, count, GOALS.get(key))
