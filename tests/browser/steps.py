"""What a technician does on the screen, move by move; used by the walks and by the tests of interruptions."""

from __future__ import annotations

import re
import tempfile
import uuid
from collections.abc import Callable, Collection, Mapping
from pathlib import Path
from typing import Any

from playwright.sync_api import Locator, Page, expect

from tests import walk
from tests.people import PINS

# What the server's clock is ahead by, in seconds.
CLOCK = Path(tempfile.mkdtemp(prefix="kettle-clock-")) / "ahead"
Shot = Callable[[str], None]
Act = Callable[[Page, Locator], None]


def set_clock(seconds: float) -> None:
    """Set the server's clock ahead of the time as it is."""
    CLOCK.write_text(str(seconds))


def forward(seconds: float) -> None:
    """Set the server's clock on from where it stands."""
    set_clock(float(CLOCK.read_text()) + seconds)


def wait_out(page: Page) -> None:
    """Where the current task takes time: begin it, and let the server's clock run that."""
    begin = hand(page).get_by_role("button", name=re.compile("^Begin: it takes"))
    if begin.count() == 0:
        return
    begin.click()
    expect(hand(page).get_by_role("timer")).to_be_visible()
    forward(2400)
    page.reload()
    expect(hand(page).get_by_text(re.compile("have run"))).to_be_visible()


def no_shot(_name: str) -> None:
    """Takes no picture."""


def field(page: Page, name: str) -> Locator:
    """An entry field by its label."""
    return page.get_by_role("textbox", name=name, exact=True)


def change_person(page: Page, name: str, person: str) -> None:
    """Another person at the bench: two taps and the PIN."""
    page.get_by_role("banner").get_by_role("button", name="Signed in").click()
    page.get_by_role("dialog").get_by_role("button", name=name).first.click()
    page.get_by_role("dialog").get_by_label("PIN or password").fill(PINS[person])
    page.keyboard.press("Enter")
    expect(page.get_by_role("banner").get_by_role("button", name=name)).to_be_visible()


def open_waiting_job(page: Page) -> None:
    """The ram that was just taken in, at its first move."""
    page.get_by_role("link", name=re.compile("Swing bridge latch ram, east")).click()
    expect(hand(page)).to_have_attribute("data-task", "observe:rod-leak:as_found")


def hand(page: Page) -> Locator:
    """The current task."""
    return page.locator("[data-task]")


def pick(page: Page, words: str) -> None:
    """Take another task of the stage."""
    page.get_by_role("main").get_by_role("button", name=re.compile(words)).first.click()
    # What has just come into hand takes no key for a moment.
    expect(page.locator("[data-task] button[aria-disabled]")).to_have_count(0)


def key_of(page: Page) -> str:
    return str(hand(page).get_attribute("data-task"))


def main_button(card: Locator) -> Locator:
    return card.locator("button.btn-primary:not([type=button])").last


def right_answers(page: Page, key: str) -> dict[str, str]:
    """What a careful hand answers, by the label of the question: no screen shows it, so it is asked of the server."""
    job = re.search(r"/jobs/([^/?#]+)", page.url)
    assert job is not None
    # Asked by the page itself, whose name and certificate may be known to it alone; a server that is away knows nothing.
    asked = "job => fetch(`/api/jobs/${job}`).then(answer => answer.json()).catch(() => ({ tasks: [] }))"
    view = page.evaluate(asked, job[1])
    asks = next((task["asks"] for task in view["tasks"] if task["key"] == key), [])
    found = {ask["label"]: "Yes" if ask["right"] else "No" for ask in asks if isinstance(ask["right"], bool)}
    for ask in asks:
        said = next((one["says"] for one in ask["choices"] if one["key"] == ask["right"]), None)
        if said is not None:
            found[ask["label"]] = f"^{re.escape(said)}"
        elif ask["read"] == "number" and ask["limit"] and ask["limit"][0] == ask["limit"][1]:
            found[ask["label"]] = f"{ask['limit'][0]:g}"
    return found


def choose(row: Locator, right: Mapping[str, str]) -> None:
    """Choose what is right, else what stands first, of each question of a row."""
    for group in row.get_by_role("radiogroup").all():
        wanted = right.get(str(group.get_attribute("aria-label")))
        option = group.get_by_role("radio", name=re.compile(wanted)) if wanted else group.get_by_role("radio").first
        option.click()
        expect(option).to_have_attribute("aria-checked", "true")
    for box in row.locator("input[data-entry]").all():
        label = str(box.evaluate("node => node.labels[0].textContent.trim()"))
        box.fill(right[label])


def by_itself(page: Page, key: str) -> None:
    """What shares a card with others, taken by itself."""
    hand(page).locator(f'[data-row="{key}"]').get_by_role("link", name="Otherwise").click()
    expect(page.locator("[data-row]")).to_have_count(0)
    expect(hand(page)).to_have_attribute("data-task", key)


def fill_in(card: Locator, given: Mapping[str, str], leave: Collection[str] = ()) -> bool:
    """Fill what a task asks: what is given by its label, else what the sheet knows to be right, the first choice, and words.

    ``leave``: labels of fields that stay empty.

    Gives whether its last tap has recorded it: the only question of a task needs no button, nor do several that are all picked.
    """
    sole = card.locator("form[data-sole]")
    if sole.count():
        expect(sole).not_to_have_attribute("data-sole", "unknown")
    by_tap = sole.count() > 0 and sole.get_attribute("data-sole") == "tap"
    several = card.locator("form[data-last]")
    left = open_questions(several) if several.count() else -1
    for row in card.locator("[data-row]").all():
        # Several on one card: each has its own answers.
        choose(row, right_answers(card.page, str(row.get_attribute("data-row"))))
    if card.locator("[data-row]").count():
        return False
    right = right_answers(card.page, str(card.get_attribute("data-task")))
    for group in card.get_by_role("radiogroup").all():
        label = str(group.get_attribute("aria-label"))
        wanted = given.get(label, right.get(label))
        option = group.get_by_role("radio", name=re.compile(wanted)) if wanted else group.get_by_role("radio").first
        left -= group.locator('[aria-checked="true"]').count() == 0
        option.click()
        if by_tap or left == 0:
            return True
        expect(option, label).to_have_attribute("aria-checked", "true")
    for group in card.get_by_role("group").all():
        pressed = group.locator('[aria-pressed="true"]').count()
        if group.get_attribute("aria-label") and group.locator("[aria-pressed]").count() and not pressed:
            group.get_by_role("button").first.click()
            left -= 1
            if by_tap or left == 0:
                return True
    for box in card.locator("form input[data-entry]").all():
        # What is folded away is for another day.
        if box.is_visible() and box.input_value() == "":
            label = str(box.evaluate("node => node.labels[0].textContent.trim()"))
            if any(name in label for name in leave):
                continue
            usual = "0" if box.get_attribute("inputmode") == "decimal" else "as it should be"
            # Of many readings of one thing each has the end of its name only.
            box.fill(next((text for name, text in given.items() if name in label or name.endswith(label)), usual))
    return False


def open_questions(form: Locator) -> int:
    """How many of the questions that are answered by a pick have no answer yet."""
    looks = [group for group in form.get_by_role("group").all() if group.locator("[aria-pressed]").count()]
    asked = [*form.get_by_role("radiogroup").all(), *looks]
    return sum(group.locator('[aria-checked="true"], [aria-pressed="true"]').count() == 0 for group in asked)


def tap_clicks(card: Locator) -> bool:
    """Tap each fastener as the wrench clicks, the last of which records the pass; False where nothing clicks."""
    click = card.get_by_role("button", name=re.compile("clicked at"))
    if tick_each(card):
        return True
    key = card.get_attribute("data-task")
    by_torque = card.get_by_role("button", name="Change wrench").or_(card.get_by_role("radiogroup", name="Wrench"))
    if not by_torque.count():
        return False
    # What it is set to, and so whether it is tapped, is told by the server.
    expect(card.get_by_text(re.compile(r"^Set \d"))).to_be_visible()
    if not click.count():
        return False
    for left in reversed(range(click_count(card))):
        click.click()
        if left:
            expect(card.get_by_role("button", name=re.compile("clicked at"))).to_be_visible()
    expect(card.page.locator(f'[data-task="{key}"]')).to_have_count(0)
    return True


def tick_each(card: Locator) -> bool:
    """Tick each of several fasteners done alike, the last of which records; False where none is ticked."""
    tick = card.get_by_role("button", name=re.compile(r"^Number \d+ is done$"))
    if not tick.count():
        return False
    key = card.get_attribute("data-task")
    for left in reversed(range(click_count(card))):
        tick.click()
        if left:
            expect(tick).to_be_visible()
    expect(card.page.locator(f'[data-task="{key}"]')).to_have_count(0)
    return True


def click_count(card: Locator) -> int:
    """How many fasteners are left to be tapped."""
    left = card.page.get_by_role("button", name=re.compile(r"^Number \d+: (next|to do)$")).count()
    return max(left, 1)


def do(page: Page, given: Mapping[str, str] | None = None) -> str:
    """Do the current task and wait for the next; gives the key of the one done."""
    card, key = hand(page), key_of(page)
    wait_out(page)
    if not fill_in(card, given or {}) and not tap_clicks(card):
        main_button(card).click()
    expect(page.locator(f'[data-task="{key}"]')).to_have_count(0)
    return key


def work(page: Page, until: str, acts: Mapping[str, Act | Mapping[str, str]], most: int = 90) -> int:
    """Do tasks until the one named is in hand; gives how many were done. ``acts``: what to do otherwise, by task."""
    for count in range(most):
        expect(hand(page)).to_be_visible()
        key = key_of(page)
        rows = [str(row.get_attribute("data-row")) for row in hand(page).locator("[data-row]").all()]
        if key == until or until in rows:
            return count
        if own := next((row for row in rows if row in acts), None):
            by_itself(page, own)
            key = own
        act: Any = acts.get(key, {})
        if callable(act):
            act(page, hand(page))
            expect(page.locator(f'[data-task="{key}"]')).to_have_count(0)
        else:
            do(page, act)
    raise AssertionError(f"{until} did not come; in hand is {key_of(page)}")


def sign(page: Page, person: str) -> None:
    hand(page).get_by_role("button", name="Sign and release").click()
    page.get_by_label("Your PIN").fill(PINS[person])
    page.keyboard.press("Enter")


def accept_result(page: Page, collected: str = "0 ml") -> None:
    """Close the run in hand, with what ran into the measuring glass where there is one."""
    accept = page.get_by_role("button", name="Accept result")
    expect(accept).to_be_visible()
    glass = page.get_by_label(re.compile("Into the measuring glass"))
    if glass.count():
        glass.first.fill(collected)
    accept.click()


def start_run(page: Page, how: str = "readings typed|another run") -> None:
    expect(page.get_by_label("Gauge", exact=True)).to_have_value(re.compile("."))
    page.get_by_label("Gauge", exact=True).select_option("g1-digital")
    page.get_by_role("button", name=re.compile(how)).click()


def run_test_typed(page: Page, drop_bar: float, readings: int = 10) -> None:
    """A run whose times stand on another clock and are typed."""
    start_run(page)
    page.get_by_label("Type the times instead").check()
    field(page, "Temperature").fill("24")
    for index in range(readings):
        field(page, "Time on hold").fill(str(60 * index))
        field(page, "Pressure").fill(f"{180 - drop_bar * index:.1f}")
        page.get_by_role("button", name="Record the reading").click()
        expect(page.get_by_text(f"Readings with Digital gauge 250 bar: {index + 1};")).to_be_visible()


def root_of(page: Page) -> str:
    return re.match(r"https?://[^/]+", page.url).group(0)  # type: ignore[union-attr]


def post_next(page: Page, job: str, task: Mapping[str, Any], **given: Any) -> dict[str, Any]:
    """What a careful hand does at a task, sent over the API; what takes time is begun, or its time has run. Gives the job after it."""
    payload = walk.payload_of(task, **given)
    if task["needs"] is not None and task["needs"]["until"] is None:
        payload = task["begin"]
    elif task["needs"] is not None:
        forward(task["needs"]["seconds"])
    body = {"id": str(uuid.uuid4()), "bench_time": "2026-11-24T09:00:00Z", "payload": payload}
    answer = page.context.request.post(f"{root_of(page)}/api/jobs/{job}/entries", data=body)
    assert answer.ok, answer.text()
    after: dict[str, Any] = answer.json()
    return after


def taken_in(page: Page, sheet: str, serial: str) -> dict[str, Any]:
    """A job taken in on a sheet over the API."""
    root, request = root_of(page), page.context.request
    told = {"unit": "Test unit", "serial": serial, "customer": "Lock Gate Workshop", "complaint": "It leaks", "fluid": "as the sheet says", "pressure": "1 bar"}  # fmt: skip
    body = {
        "id": str(uuid.uuid4()),
        "entry_id": str(uuid.uuid4()),
        "bench_time": walk.WHEN,
        "sheet_key": sheet,
        "intake": told,
    }
    answer = request.post(f"{root}/api/jobs", data=body)
    assert answer.ok, answer.text()
    view: dict[str, Any] = request.get(f"{root}/api/jobs/{body['id']}").json()
    return view


def put_photo(page: Page, job: str, content: bytes, **told: Any) -> None:
    """A photo sent for a job and told of, over the API."""
    root, request, photo = root_of(page), page.context.request, str(uuid.uuid4())
    sent = request.post(
        f"{root}/api/jobs/{job}/photos?id={photo}", data=content, headers={"Content-Type": "image/jpeg"}
    )
    assert sent.ok, sent.text()
    tell_photo(page, job, photo, **told)


def tell_photo(page: Page, job: str, photo: str, **told: Any) -> None:
    """What a photo shows, told over the API."""
    root, request = root_of(page), page.context.request
    payload = {"kind": "photo_taken", "photo": photo, **told}
    body = {"id": str(uuid.uuid4()), "bench_time": walk.WHEN, "payload": payload}
    answer = request.post(f"{root}/api/jobs/{job}/entries", data=body)
    assert answer.ok, answer.text()


def to_task(page: Page, key: str, serial: str = "FN-0417", found: Mapping[str, dict[str, Any]] | None = None) -> None:
    """A job of the demo, worked over the API up to a task, and opened there."""
    root, request = root_of(page), page.context.request
    job = request.get(f"{root}/api/jobs?q={serial}").json()["jobs"][0]
    view = request.get(f"{root}/api/jobs/{job['id']}").json()
    for _ in range(90):
        task = walk.next_of(view)
        assert task is not None, f"{key} did not come"
        if task["key"] == key:
            break
        view = post_next(page, job["id"], task, **(found or {}).get(task["key"], {}))
    # The device's clock is no longer behind the server's, which the screen would say.
    set_clock(0)
    # What shares a card with others is taken by itself.
    page.goto(f"{root}/jobs/{job['number']}{f'?task={key}' if key.startswith('find:') else ''}")
    expect(hand(page)).to_have_attribute("data-task", key)
