"""Know the ring, on the screen: the finder, the groove check, the new groove, and a job's own station."""

from __future__ import annotations

import io
import re
from collections.abc import Callable

import pytest
from axe_playwright_python.sync_playwright import Axe
from playwright.sync_api import Locator, Page, expect
from pypdf import PdfReader

from tests.browser import steps
from tests.browser.conftest import AT_REST
from tests.browser.steps import field

Shot = Callable[[str], None]


def desk(page: Page, *names: str) -> None:
    """Go to a desk by the links a person would follow."""
    for name in names:
        link = page.get_by_role("link", name=name, exact=True)
        link.click()
        # The screen before may have fields of the same names.
        expect(link).to_have_attribute("aria-current", "page")


def first(page: Page) -> Locator:
    return page.get_by_role("list", name="Sizes, most probable first").get_by_role("listitem").first


def groove(page: Page, across: str, diameter: str, width: str) -> None:
    field(page, "Bore").fill(across)
    field(page, "Groove diameter (bottom)").fill(diameter)
    field(page, "Groove width").fill(width)


def no_fault(page: Page) -> None:
    page.wait_for_function(AT_REST)
    found = Axe().run(page)
    assert found.violations_count == 0, found.generate_report()


def test_a_clean_inch_ring_with_a_caliper_that_types(bench: Page) -> None:
    page = bench
    desk(page, "Rings")
    page.get_by_role("button", name="New", exact=True).click()
    # The caliper types its value and Enter; the next field has the focus then.
    field(page, "Inside diameter").focus()
    page.keyboard.type("1.474")
    page.keyboard.press("ArrowDown")
    page.keyboard.press("Enter")
    page.keyboard.type("0.210")
    expect(page.get_by_text("Settled: AS568 325")).to_be_visible()
    expect(first(page)).to_contain_text("37.47 ±0.38 × 5.33 ±0.13 mm")
    expect(first(page)).to_contain_text("1.475 × 0.210 in")
    expect(first(page).get_by_role("img", name=re.compile("within the tolerance"))).to_be_visible()
    page.get_by_role("button", name="Next ring").click()
    expect(field(page, "Inside diameter")).to_have_value("")


def test_a_look_alike_stays_open_until_the_advised_reading(bench: Page, shot: Shot) -> None:
    page = bench
    desk(page, "Rings")
    # A ruler reads 37.2 × 5.2: AS568-325 is 37.47 × 5.33 mm, metric stock has 37 × 5 and more beside it.
    page.get_by_label("Reading good to ±").fill("0.8")
    field(page, "Inside diameter").fill("37.2")
    field(page, "Section").fill("5.2")
    expect(page.get_by_text("Not decided. Measure next:")).to_be_visible()
    shot("ring-finder")
    no_fault(page)
    field(page, "Inside diameter").fill("22")
    page.get_by_label("Reading good to ±").fill("")
    field(page, "Section").fill("1.66")
    expect(page.get_by_text("Settled: AS568 020")).to_be_visible()


def test_a_reading_near_no_size_is_never_called_settled(bench: Page) -> None:
    page = bench
    desk(page, "Rings")
    page.get_by_role("button", name="New", exact=True).click()
    field(page, "Inside diameter").fill("5000")
    field(page, "Section").fill("7")
    expect(page.get_by_text("larger than any known size")).to_be_visible()
    expect(page.get_by_text("Settled")).to_have_count(0)
    # A share of 100 % would read as if it were sure.
    expect(first(page)).to_contain_text("not near")
    expect(first(page)).not_to_contain_text("%")


def test_swapped_readings_are_noticed(bench: Page) -> None:
    page = bench
    desk(page, "Rings")
    page.get_by_role("button", name="New", exact=True).click()
    field(page, "Inside diameter").fill("3.53")
    field(page, "Section").fill("24.99")
    expect(page.get_by_text("seem to be swapped")).to_be_visible()


def test_a_caliper_replaces_its_reading_and_half_a_unit_is_no_unit(bench: Page) -> None:
    page = bench
    desk(page, "Rings")
    inside = field(page, "Inside diameter")
    # A second reading sent into the last field takes the place of the first.
    field(page, "Section").focus()
    page.keyboard.type("3.53")
    page.keyboard.press("Enter")
    page.keyboard.type("4.08")
    expect(field(page, "Section")).to_have_value("4.08")
    inside.press_sequentially("4120 um", delay=60)
    expect(page.get_by_text("= 4120.00 µm")).to_be_visible()
    inside.press("ArrowLeft")
    inside.press("Backspace")
    expect(inside).to_have_value("4120 m")
    expect(page.get_by_text("finish the unit")).to_be_visible()
    # The unit that was typed belonged to that value: the next bare number is in the field's own.
    inside.fill("24.99")
    expect(page.get_by_text("= 24.99 mm (0.984 in)")).to_be_visible()


@pytest.mark.parametrize(
    ("way", "reading", "section"),
    # AS568-325: 37.47 × 5.33 mm; outside 48.13; round the inside π·37.47 = 117.7; cut π·42.80 = 134.5.
    [
        ("Outside diameter", "48.13", "5.33"),
        ("On a cone gauge", "37.47", "5.33"),
        ("Round the inside", "117.7", "5.33"),
        ("Cut, laid straight", "134.5", "5.33"),
    ],
)
def test_every_way_to_read_across_a_ring(bench: Page, way: str, reading: str, section: str) -> None:
    page = bench
    desk(page, "Rings")
    page.get_by_role("button", name="New", exact=True).click()
    page.get_by_label("Read across the ring").select_option(way)
    field(page, way).fill(reading)
    field(page, "Section").fill(section)
    expect(first(page)).to_contain_text("AS568 325")


def test_a_wrong_ring_is_caught_by_its_groove(bench: Page) -> None:
    page = bench
    desk(page, "Rings")
    page.get_by_role("button", name="New", exact=True).click()
    page.get_by_text("The groove (if known").click()
    groove(page, "53.7", "45", "7.2")
    field(page, "Inside diameter").fill("44.1")
    field(page, "Section").fill("3.53")
    expect(first(page)).to_contain_text("AS568 224")
    expect(first(page)).to_contain_text("does not fit")
    expect(first(page)).to_contain_text(re.compile(r"squeeze −?-?\d+\.\d % is below 10 %"))
    desk(page, "Grooves")
    fits = page.get_by_role("region", name="Sizes that fit, best first")
    expect(fits).to_contain_text("AS568 327")
    fits.get_by_text("Close sizes that do not fit").click()
    expect(fits).to_contain_text("hangs loose")


def test_a_missing_backup_is_caught_by_pressure(bench: Page, shot: Shot) -> None:
    page = bench
    desk(page, "Grooves")
    groove(page, "50 +0.039/-0", "44.4 +0/-0.06", "5.4")
    expect(page.get_by_text("= 50.00 mm (1.969 in), +0.039/0")).to_be_visible()
    field(page, "Clearance on the diameter").fill("0.10 ±0.04")
    field(page, "Pressure").fill("160")
    page.get_by_role("textbox", name="Ring size").fill("224")
    expect(page.get_by_text("Do not use: AS568 224")).to_be_visible()
    expect(page.get_by_text("fit 1 backup ring (side away from pressure)").first).to_be_visible()
    expect(page.get_by_text("1 backup ring, solid, side away from pressure")).to_be_visible()
    page.get_by_label("Backup rings in it").select_option("1")
    expect(page.get_by_text("Good: AS568 224")).to_be_visible()
    expect(page.get_by_role("img", name=re.compile("Groove to scale: depth 2.80 mm.*1 backup"))).to_be_visible()
    # 0.139 in = 3.5306 mm, stretched 0.8 %, is 3.518 mm; by hand (3.518 − 2.8)/3.518 = 20.4 %.
    page.get_by_text("Show the formula").first.click()
    expect(page.get_by_text("(3.518 − 2.800) / 3.518 = 20.4 %")).to_be_visible()
    expect(page.get_by_text("210 bar (3046 psi)")).to_be_visible()
    shot("groove-check")
    no_fault(page)


def test_a_housing_that_gives_under_pressure(bench: Page) -> None:
    page = bench
    desk(page, "Grooves")
    groove(page, "80", "71.3", "7.2")
    field(page, "Clearance on the diameter").fill("0.06")
    field(page, "Pressure").fill("70")
    page.get_by_role("textbox", name="Ring size").fill("335")
    expect(page.get_by_text("Good: AS568 335")).to_be_visible()
    page.get_by_text("Swelling, and a housing that gives").click()
    field(page, "Wall of the housing").fill("4")
    page.get_by_label("Housing of").select_option("aluminium")
    expect(page.get_by_text("of it growth under pressure")).to_be_visible()
    expect(page.get_by_text("Do not use: AS568 335")).to_be_visible()


def test_bad_grooves_are_told_at_the_field(bench: Page) -> None:
    page = bench
    desk(page, "Grooves")
    groove(page, "40", "44.4", "5.4")
    expect(page.get_by_text("must be smaller than the bore of a piston seat")).to_be_visible()
    groove(page, "50", "44.4", "wide")
    expect(page.get_by_text("“wide” is not a length with a unit").first).to_be_visible()
    groove(page, "50", "44.4", "5.4")
    page.get_by_role("textbox", name="Ring size").fill("999")
    expect(page.get_by_text("AS568 has no size “999”")).to_be_visible()


def test_an_interruption_loses_nothing_that_was_typed(bench: Page) -> None:
    page = bench
    desk(page, "Rings")
    page.get_by_role("button", name="New", exact=True).click()
    field(page, "Inside diameter").fill("44.1")
    field(page, "Section").fill("3.53")
    page.get_by_text("The groove (if known").click()
    groove(page, "53.7", "45", "7.2")
    expect(first(page)).to_contain_text("does not fit")
    page.reload()
    expect(first(page)).to_contain_text("does not fit")
    expect(field(page, "Inside diameter")).to_have_value("44.1")
    expect(page.get_by_role("button", name="New", exact=True)).to_have_attribute("aria-pressed", "true")
    # The groove was typed once; the check has it too, until the next groove is asked for.
    desk(page, "Grooves")
    expect(field(page, "Bore")).to_have_value("53.7")
    expect(page.get_by_role("region", name="Sizes that fit, best first")).to_contain_text("AS568 327")
    page.get_by_role("button", name="Next groove").click()
    expect(field(page, "Bore")).to_have_value("")
    # No answer stands beside a groove that is gone.
    expect(page.get_by_text("Enter the three dimensions of the groove")).to_be_visible()
    desk(page, "Rings")
    page.get_by_role("button", name="Next ring").click()
    expect(field(page, "Inside diameter")).to_have_value("")


def test_a_groove_from_scratch(bench: Page, shot: Shot) -> None:
    page = bench
    desk(page, "Grooves", "New groove")
    field(page, "Bore").fill("50")
    field(page, "Pressure").fill("160")
    best = page.get_by_role("article").first
    expect(best).to_contain_text("with 1 backup ring")
    expect(best).to_contain_text("Groove diameter")
    expect(best).to_contain_text(re.compile(r"44\.31 ±0\.05 mm\s*1\.74\d in"))
    expect(best).to_contain_text("Supposed: bore +0.043/-0 mm (IT8)")
    shot("new-groove")
    page.get_by_role("button", name="Rod", exact=True).click()
    page.get_by_role("button", name="Reciprocating").click()
    field(page, "Rod").fill("1-1/4 in")
    expect(page.get_by_role("article").first).to_contain_text("fits the groove")


def test_a_further_reading_goes_into_the_job_with_the_evidence(bench: Page) -> None:
    page = bench
    steps.to_task(page, "identify:gland-ring")
    field(page, "Inside diameter").fill("44.1")
    field(page, "Section").fill("3.5")
    expect(page.get_by_text("Not decided")).to_be_visible()
    field(page, "Outside diameter").fill("51.1")
    field(page, "Outside diameter").press("Enter")
    # What is asked next changes with the answer: until then the list below still moves.
    expect(field(page, "Outside diameter")).to_have_count(0)
    row = page.get_by_role("listitem").filter(has_text="AS568 224").first
    # Choosing is one act: the size, what was measured and what spoke for it go into the job together.
    row.get_by_role("button", name="Choose").click()
    expect(steps.hand(page)).to_have_attribute("data-task", "count:FN-K-5028")
    root = steps.root_of(page)
    job = page.context.request.get(f"{root}/api/jobs?q=FN-0417").json()["jobs"][0]["id"]
    told = page.context.request.get(f"{root}/api/jobs/{job}/log").json()[-1]["payload"]
    assert told["size"] == "AS568 224"
    assert "from inside diameter 44.1 mm, section 3.5 mm, outside diameter 51.1 mm" in told["reason"]


def test_the_chart_is_printed_whole_on_as_many_pages_as_it_says(bench: Page) -> None:
    page = bench
    page.goto(f"{steps.root_of(page)}/rings/chart")
    page.get_by_label("Series").select_option("JIS B 2401")
    button = page.get_by_role("button", name=re.compile(r"^Print, about \d+ pages?$"))
    expect(page.get_by_role("status").filter(has_text="sizes")).to_contain_text("the first 60 shown")
    told = int(re.findall(r"\d+", button.inner_text())[0])
    page.evaluate("window.print = () => { document.title = 'printed' }")
    button.click()
    expect(page).to_have_title("printed")
    expect(page.get_by_role("status").filter(has_text="sizes")).not_to_contain_text("shown")
    content = page.pdf(format="A4", margin=dict.fromkeys(("top", "right", "bottom", "left"), "10mm"))
    assert len(PdfReader(io.BytesIO(content)).pages) == told
