"""An answer that records by its tap and is taken back, a drawing enlarged, a search by one key, a certificate checked."""

from __future__ import annotations

import re

from playwright.sync_api import Page, expect

from tests.browser import steps
from tests.browser.steps import hand
from tests.people import PINS


def log_of(page: Page) -> list[str]:
    job = re.search(r"/jobs/([^/?#]+)", page.url)
    assert job is not None
    root, request = steps.root_of(page), page.context.request
    key = request.get(f"{root}/api/jobs/{job[1]}").json()["job"]["id"]
    return [entry["words"] for entry in request.get(f"{root}/api/jobs/{key}/log").json()]


def test_an_only_question_is_recorded_by_its_tap_and_undone_by_another(bench: Page) -> None:
    page = bench
    steps.to_task(page, "leak")
    hand(page).get_by_role("radio", name="open air").click()
    expect(hand(page)).to_have_attribute("data-task", "step:isolate")
    page.get_by_role("button", name="Undo").click()
    expect(hand(page)).to_have_attribute("data-task", "leak")
    expect(hand(page).get_by_role("radio", checked=True)).to_have_count(0)
    assert log_of(page)[-2:] == ["leak seen: open air", "an entry struck out: taken back with Undo"]
    expect(page.get_by_role("button", name="Undo")).to_have_count(0)


def test_without_a_connection_it_is_undone_on_the_device_and_never_sent(bench: Page) -> None:
    page = bench
    steps.to_task(page, "leak")
    before = len(log_of(page))
    page.context.set_offline(True)
    hand(page).get_by_role("radio", name="open air").click()
    expect(hand(page)).to_have_attribute("data-task", "step:isolate")
    page.get_by_role("button", name="Undo").click()
    expect(hand(page)).to_have_attribute("data-task", "leak")
    page.context.set_offline(False)
    # What is recorded next tells that nothing waits on the device any more.
    hand(page).get_by_role("radio", name="nowhere").click()
    expect(hand(page)).to_have_attribute("data-task", "step:isolate")
    expect(page.get_by_role("status").filter(has_text="not sent")).to_have_count(0)
    assert log_of(page)[before:] == ["nothing wet"]


def test_what_a_scanner_types_answers_nothing_and_a_finger_does(bench: Page) -> None:
    page = bench
    steps.to_task(page, "leak")
    page.get_by_role("group", name="It is seen in").focus()
    before = len(log_of(page))
    page.keyboard.type("1204172")
    page.keyboard.press("Enter")
    assert log_of(page)[before:] == []
    # A finger comes later than the next key of a scanner would.
    page.evaluate("new Promise(done => setTimeout(done, 60))")
    expect(page.get_by_role("radio").first).to_be_enabled()
    page.keyboard.press("2")
    expect(hand(page)).to_have_attribute("data-task", "step:isolate")
    assert log_of(page)[before:] == ["leak seen: open air"]


def test_what_is_to_be_added_keeps_the_answer_until_the_button(bench: Page) -> None:
    page = bench
    steps.to_task(page, "leak")
    hand(page).get_by_role("button", name="Otherwise").click()
    hand(page).get_by_role("radio", name="open air").click()
    steps.main_button(hand(page)).click()
    expect(hand(page)).to_have_attribute("data-task", "step:isolate")


def test_a_drawing_is_enlarged_moved_and_whole_again(bench: Page) -> None:
    page = bench
    steps.to_task(page, "find:rod-lip")
    frame = page.locator("[data-zoom]").last
    page.get_by_role("button", name="Larger").last.click()
    expect(frame).to_have_attribute("data-zoom", "1.4")
    frame.press("+")
    expect(frame).to_have_attribute("data-zoom", "2.0")
    moved = frame.locator("> div")
    before = moved.get_attribute("style")
    frame.press("ArrowRight")
    expect(moved).not_to_have_attribute("style", before or "")
    frame.press("0")
    expect(frame).to_have_attribute("data-zoom", "1.0")


def test_one_key_finds_a_job_a_size_and_a_page(bench: Page) -> None:
    page = bench
    page.keyboard.press("/")
    page.keyboard.type("fn0417")
    expect(page.get_by_role("option").first).to_contain_text("FN-0417")
    page.keyboard.press("Enter")
    expect(hand(page)).to_be_visible()
    page.keyboard.press("/")
    page.keyboard.type("as568 214")
    page.get_by_role("option", name=re.compile("AS568 214")).click()
    expect(page.get_by_role("textbox", name="Size contains")).to_have_value("214")
    page.keyboard.press("Escape")
    page.get_by_role("button", name="Search").click()
    page.keyboard.type("order list")
    page.keyboard.press("Enter")
    expect(page.get_by_role("heading", name="Order list")).to_be_visible()


def test_anybody_is_told_whether_a_certificate_was_signed_here(bench: Page) -> None:
    page = bench
    page.context.clear_cookies()
    page.goto(f"{steps.root_of(page)}/check?job=1001&record={'0' * 16}")
    expect(page.get_by_text("No certificate of job 1001 with this record was signed here.")).to_be_visible()


def test_what_came_off_together_is_answered_on_one_card_and_undone_by_one_tap(bench: Page) -> None:
    page = bench
    steps.to_task(page, "find:piston-lip-rod")
    page.goto(page.url.partition("?")[0])
    rows = page.locator("[data-row]")
    expect(rows).to_have_count(3)
    before = log_of(page)
    steps.main_button(hand(page)).click()
    expect(hand(page)).to_contain_text("Still to be answered: piston lip seal (rod side), piston lip seal (cap side).")
    assert log_of(page) == before
    for row, side in ((rows.nth(0), "rod side"), (rows.nth(2), "cap side")):
        row.get_by_role("radio", name=side).click()
        expect(row).to_contain_text(f"open lips to {side}, no sign seen on it")
    steps.main_button(hand(page)).click()
    expect(hand(page)).to_have_attribute("data-task", "find:gland-ring")
    assert [words.partition(" found")[0] for words in log_of(page)[len(before) :]] == [
        "piston lip seal (rod side)", "piston wear band", "piston lip seal (cap side)",
    ]  # fmt: skip
    page.get_by_role("button", name="Undo").click()
    expect(hand(page)).to_have_attribute("data-task", "find:piston-lip-rod")
    expect(rows).to_have_count(3)
    assert log_of(page)[-3:] == ["an entry struck out: taken back with Undo"] * 3
    for row, side in ((rows.nth(0), "rod side"), (rows.nth(2), "cap side")):
        row.get_by_role("radio", name=side).click()
    steps.main_button(hand(page)).click()
    # The rest of what came off with that step is the next card.
    expect(rows).to_have_count(2)
    rows.nth(1).get_by_role("radio", name="rod side").click()
    steps.main_button(hand(page)).click()
    expect(hand(page)).to_have_attribute("data-task", "step:piston-off")


def test_what_has_a_sign_on_it_leaves_the_card_of_the_others(bench: Page) -> None:
    page = bench
    steps.to_task(page, "find:piston-lip-rod")
    page.goto(page.url.partition("?")[0])
    steps.by_itself(page, "find:piston-band")
    # Its address is its own: it is in hand after a reload too.
    assert page.url.endswith("?task=find%3Apiston-band")
    page.reload()
    expect(hand(page)).to_have_attribute("data-task", "find:piston-band")
    card = hand(page)
    card.get_by_role("group").get_by_role("button").nth(1).click()
    steps.main_button(card).click()
    # What was next in line has come up.
    rows = page.locator("[data-row]")
    left = ["find:piston-lip-rod", "find:piston-lip-cap", "find:gland-ring"]
    for place, key in enumerate(left):
        expect(rows.nth(place)).to_have_attribute("data-row", key)
    expect(rows).to_have_count(3)
    assert "?" not in page.url
    page.goto(f"{page.url}?task=no-such-task")
    expect(page.get_by_role("alert").first).to_contain_text(
        "This job has no task “no-such-task”; the next one is shown."
    )
    expect(rows).to_have_count(3)


def test_the_last_of_several_picks_is_the_record(bench: Page) -> None:
    page = bench
    steps.to_task(page, "step:wire-in")
    card = hand(page)
    questions = card.locator("form[data-last]").get_by_role("radiogroup")
    count = questions.count()
    assert count > 1
    for place in range(count):
        expect(card).to_have_attribute("data-task", "step:wire-in")
        questions.nth(place).get_by_role("radio", name="Yes").click()
    expect(hand(page)).not_to_have_attribute("data-task", "step:wire-in")
    page.get_by_role("button", name="Undo").click()
    expect(hand(page)).to_have_attribute("data-task", "step:wire-in")


def test_a_pick_that_is_changed_before_the_last_records_nothing(bench: Page) -> None:
    page = bench
    steps.to_task(page, "step:wire-in")
    before = len(log_of(page))
    first = hand(page).locator("form[data-last]").get_by_role("radiogroup").first
    for answer in ("No", "Yes", "No"):
        first.get_by_role("radio", name=answer).click()
        expect(first.get_by_role("radio", name=answer)).to_be_checked()
    assert log_of(page)[before:] == []


def test_the_only_wrench_that_fits_lies_ready_and_another_is_a_tap_away(bench: Page) -> None:
    page = bench
    steps.to_task(page, "tighten:hold-down:0:1", "FN-5203")
    card = hand(page)
    expect(card.get_by_text("with Middle click wrench")).to_be_visible()
    expect(card.get_by_role("button", name=re.compile("^Number 1 clicked at"))).to_be_visible()
    card.get_by_role("button", name="Change wrench").click()
    card.get_by_role("radio", name=re.compile("^Middle click wrench")).click()
    expect(card.get_by_text("with Middle click wrench")).to_be_visible()


def test_a_wrench_of_the_pass_before_that_does_not_reach_is_asked_for_again(bench: Page) -> None:
    page = bench
    steps.to_task(page, "tighten:hold-down:0:1", "FN-5203")
    job = page.context.request.get(f"{steps.root_of(page)}/api/jobs?q=FN-5203").json()["jobs"][0]["id"]
    page.evaluate("key => localStorage.setItem(key, 'w1-small')", f"kettle-wrench-{job}-hold-down")
    page.reload()
    wrenches = hand(page).get_by_role("radiogroup", name="Wrench")
    expect(wrenches).to_be_visible()
    expect(wrenches.get_by_role("radio", checked=True)).to_have_count(0)
    expect(hand(page).get_by_role("button", name=re.compile("clicked at"))).to_have_count(0)


def test_enter_takes_the_only_unit_that_is_found_and_of_several_none(bench: Page) -> None:
    page = bench
    page.get_by_role("link", name="New job").click()
    # A page that has just come takes the cursor out of its fields once.
    expect(page.locator("#found button").nth(2)).to_be_visible()
    page.get_by_label("Find by marking").fill("ram")
    page.get_by_label("Find by marking").press("Enter")
    first = page.locator("#found button").first
    expect(first).to_be_focused()
    expect(page.get_by_label("Serial number")).to_have_count(0)
    # Faster than the list can follow: what stands in the field counts, not what stands in the list.
    page.get_by_label("Find by marking").fill("swing bridge latch ram")
    page.keyboard.press("Enter")
    expect(page.get_by_label("Unit", exact=True)).to_have_value("Swing bridge latch ram")


def test_the_card_of_the_signature_takes_the_pin_itself_and_says_at_its_field_what_is_wrong(bench: Page) -> None:
    page = bench
    steps.to_task(page, "sign", serial="FN-2207")
    pin = hand(page).get_by_label("PIN or password", exact=True)
    pin.fill("000000")
    pin.press("Enter")
    expect(pin).to_have_attribute("aria-invalid", "true")
    expect(pin).to_have_value("")
    pin.fill(PINS["bede"])
    pin.press("Enter")
    expect(page.get_by_role("heading", name=re.compile("^Released by "))).to_be_visible()
