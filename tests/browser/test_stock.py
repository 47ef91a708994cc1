"""The shelf and the order list on screen: counted anew, a part ordered and come, and its job moved on."""

from __future__ import annotations

import re

from playwright.sync_api import Page, expect

from tests.browser.steps import Shot, hand


def test_what_a_job_waits_for_is_ordered_comes_and_moves_it_on(bench: Page, shot: Shot) -> None:
    bench.goto(f"{bench.url}workshop/orders")
    line = bench.get_by_role("listitem").filter(has_text="FN-3310")
    expect(line).to_contain_text("1 × guide ring")
    expect(line).to_contain_text("to order")
    shot("orders")
    line.get_by_role("button", name=re.compile("Mark as ordered")).click()
    expect(line).to_contain_text("ordered")
    expect(line.get_by_role("button", name=re.compile("Mark as ordered"))).to_have_count(0)
    job = line.get_by_role("link").get_attribute("href")
    line.get_by_role("button", name=re.compile("Mark as arrived")).click()
    expect(bench.get_by_role("status").filter(has_text="marked as arrived")).to_be_visible()
    expect(bench.get_by_role("listitem").filter(has_text="FN-3310")).to_have_count(0)
    bench.goto(bench.url.replace("/workshop/orders", str(job)))
    expect(hand(bench)).not_to_have_attribute("data-task", re.compile("^(order|receive):"))


def test_the_shelf_is_searched_counted_and_added_to(bench: Page, shot: Shot) -> None:
    bench.goto(f"{bench.url}workshop/stock")
    bench.get_by_label("Find in stock").fill("44x3")
    listed = bench.get_by_role("list", name="Stock").get_by_role("listitem")
    row = listed.filter(has_text="O-ring 44 × 3")
    expect(listed).to_have_count(1)
    shot("stock")
    row.get_by_role("button", name="Count").click()
    row.get_by_label("Count now").fill("-4")
    row.get_by_role("button", name="Note").click()
    expect(row).to_contain_text("must be 0 or more")
    row.get_by_label("Count now").fill("2")
    bench.keyboard.press("Enter")
    expect(row).to_contain_text("below 3")
    bench.get_by_role("button", name="Add to stock").click()
    bench.get_by_role("button", name="O-ring", exact=True).click()
    bench.get_by_label("Name").fill("O-ring 214 EPDM")
    bench.get_by_label("Size: AS568 214, metric 25x3").fill("AS568 999")
    bench.get_by_label("How many").fill("4")
    bench.get_by_label("Place").fill("ring box 9")
    bench.get_by_role("button", name="Add the O-ring").click()
    expect(bench.get_by_text("AS568 has no size")).to_be_visible()
    bench.get_by_label("Size: AS568 214, metric 25x3").fill("AS568 214")
    bench.get_by_role("button", name="Add the O-ring").click()
    bench.get_by_label("Find in stock").fill("AS568 214")
    expect(listed.filter(has_text="O-ring 214 EPDM")).to_contain_text("ring box 9")


def test_the_code_on_a_bag_finds_its_line(bench: Page) -> None:
    """Without a camera the dialog takes what a scanner types."""
    bench.goto(f"{bench.url}workshop/stock")
    listed = bench.get_by_role("list", name="Stock").get_by_role("listitem")
    expect(listed.filter(has_text="FN-K-5028")).to_be_visible()
    bench.get_by_role("main").get_by_role("button", name=re.compile("^Scan ?: the code on a bag")).click()
    dialog = bench.get_by_role("dialog")
    typed = dialog.get_by_label("or type the text beside the code")
    typed.fill("FN-K-9999")
    typed.press("Enter")
    expect(dialog).to_contain_text("Nothing in stock has “FN-K-9999” on its line.")
    typed.fill("fn-k-5028")
    typed.press("Enter")
    expect(dialog).to_have_count(0)
    expect(listed).to_have_count(1)
    expect(listed).to_contain_text("FN-K-5028")


def test_a_seal_is_put_on_the_stock_list(bench: Page) -> None:
    page = bench
    page.goto(f"{bench.url}workshop/stock")
    page.get_by_role("button", name="Add to stock").click()
    page.get_by_label("Name").fill("rod lip seal 32 × 42 × 8")
    page.get_by_label("Runs on").select_option("a rod or shaft")
    page.get_by_label("Rod or bore").fill("32 mm")
    page.get_by_label("Groove diameter").fill("20 mm")
    page.get_by_label("Length", exact=True).fill("8 mm")
    page.get_by_label("How many").fill("3")
    page.get_by_label("Place").fill("drawer 9")
    page.get_by_role("button", name="Add the lip seal").click()
    expect(page.get_by_text("must be larger than the rod")).to_be_visible()
    page.get_by_label("Groove diameter").fill("42 mm")
    page.get_by_role("button", name="Add the lip seal").click()
    expect(page.get_by_role("listitem").filter(has_text="drawer 9")).to_contain_text("32 mm × 42 mm × 8 mm")
