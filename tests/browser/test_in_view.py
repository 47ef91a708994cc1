"""Every control of the task in hand is in view and uncovered, on each of three screens, at every task of five units."""

from __future__ import annotations

import re

import pytest
from playwright.sync_api import Page, expect

from tests import walk
from tests.browser import steps
from tests.browser.conftest import Server, sign_in_quietly
from tests.browser.steps import hand

SCREENS = ((1280, 800), (800, 1280), (390, 844))
UNITS = ("swing-bridge-ram", "needle-scaler", "jetting-pump-box", "escape-set-regulator", "rotary-jetting-head")
_MOST = 140
# The second of several alike has the card of the first.
_ONE_OF_MANY = re.compile(r"@[2-9]")

# Two frames; a page that is drawn no more, for a window over it, is measured all the same.
_DRAWN = (
    "() => new Promise(done => { requestAnimationFrame(() => requestAnimationFrame(done)); setTimeout(done, 1000); })"
)

# What of the task is out of the window or under something else; what is folded away is not asked for.
_HIDDEN = """() => {
    const card = document.querySelector('[data-task]');
    const seen = node => node.checkVisibility() && node.getClientRects().length > 0 && !node.closest('.sr-only');
    const controls = [...card.querySelectorAll('h1, button, input, select, textarea')].filter(seen)
        // Beside the question: to leave it out, and to enlarge a picture.
        .filter(node => !node.closest('[data-aside]'));
    return controls.map(node => {
        const box = node.getBoundingClientRect();
        const name = (node.getAttribute('aria-label') || node.labels?.[0]?.textContent || node.textContent || node.tagName).trim().slice(0, 40);
        if (box.top < 0 || box.bottom > innerHeight + 1 || box.left < 0 || box.right > innerWidth + 1)
            return `${name}: ${Math.round(box.left)},${Math.round(box.top)} to ${Math.round(box.right)},${Math.round(box.bottom)}`;
        const top = document.elementFromPoint(box.left + box.width / 2, box.top + box.height / 2);
        const own = top && (node.contains(top) || top.contains(node) || [...(node.labels ?? [])].some(label => label.contains(top)));
        return own ? null : `${name}: under ${top?.tagName} ${(top?.textContent ?? '').trim().slice(0, 30)}`;
    }).filter(Boolean);
}"""


def out_of_view(page: Page) -> list[str]:
    found = []
    for width, height in SCREENS:
        page.set_viewport_size({"width": width, "height": height})
        page.evaluate(_DRAWN)
        found += [f"{width}x{height} {told}" for told in page.evaluate(_HIDDEN)]
    return found


@pytest.mark.parametrize("sheet", UNITS)
def test_every_control_of_the_task_in_hand_is_in_view(bench: Page, server: Server, sheet: str) -> None:
    page = bench
    # The lead may end a timer before its time.
    sign_in_quietly(page, server, "tamsin")
    view = steps.taken_in(page, sheet, "FN-9981")
    job = view["job"]["id"]
    page.goto(f"{steps.root_of(page)}/jobs/{view['job']['number']}")
    hidden: dict[str, list[str]] = {}
    for _ in range(_MOST):
        task = walk.next_of(view)
        if task is None or task["kind"] == "sign":
            break
        if _ONE_OF_MANY.search(task["key"]) is None:
            # A page that comes back to the front looks how the job stands.
            page.evaluate("dispatchEvent(new Event('focus'))")
            expect(hand(page)).to_have_attribute("data-task", task["key"])
            if told := out_of_view(page):
                hidden[task["key"]] = told
        view = steps.post_next(page, job, task)
    assert hidden == {}
