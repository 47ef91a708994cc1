"""Parts that inspection condemned stay out: what waits for the new one, and who may overrule that in writing."""

from __future__ import annotations

from ironkettle.core.base.errors import NotAllowedError
from ironkettle.core.jobs.case import Case
from ironkettle.core.jobs.inspecting import Verdict
from ironkettle.core.sheets.document.approval import asked_by, may_approve, words_of
from ironkettle.core.shop.people import Authority

CONDEMNED = frozenset({Verdict.REPLACE, Verdict.SEND_OUT})


def waits_for_new(case: Case, part: str) -> dict[str, str]:
    """The tasks that are not done with a condemned part, with the reason: what puts it on, fits its seats, tightens it, tests it."""
    sheet = case.resolved.sheet
    on_it = {group.key for group in sheet.fasteners if group.part == part}
    tasks = [f"step:{step.key}" for step in sheet.steps if part in step.puts_on or on_it & set(step.tightens)]
    tasks += [
        f"fit:{element.key}" for station, _, element in sheet.elements if part in {station.carrier, station.counterface}
    ]
    tasks += [f"test:{test.key}:as_left" for test in sheet.tests if test.when != "as_found"]
    return dict.fromkeys(tasks, f"the {case.resolved.parts[part].name.lower()} is condemned")


def check_may_overrule(case: Case, part: str) -> None:
    """Raises NotAllowedError where the author may not overrule the verdict on a condemned part: a holder of the authority may."""
    guard = asked_by(case.resolved.whole)
    if case.author is None or may_approve(case.author, [guard], case.now.date()):
        return
    who = (
        "the lead" if guard in {Authority.NONE, Authority.WORKSHOP} else f"a person authorised for {words_of([guard])}"
    )
    name = case.resolved.parts[part].name.lower() if part in case.resolved.parts else part
    text = f"the {name} is condemned and stays out until a new one has come; only {who} overrules that, in writing"
    raise NotAllowedError("condemned", text)
