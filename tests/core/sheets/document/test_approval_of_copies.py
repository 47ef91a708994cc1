"""A lead's new sheet for a unit that another sheet guards is a draft until a holder approves it."""

from __future__ import annotations

import pytest

from ironkettle.core.sheets.document.approval import is_draft_at_import
from ironkettle.core.shop.people import Author, Authority, Role
from tests.tiny import sheet_of, unit

LEAD = Author("tamsin", "Tamsin Orrell", Role.LEAD)


@pytest.mark.parametrize(
    ("asks", "guarded", "draft"),
    [
        ("none", [], False),
        ("none", ["none"], False),
        ("none", ["workshop"], True),
        ("workshop", ["life_support"], True),
        ("life_support", ["life_support", "workshop"], False),
        ("life_support", ["none"], False),
    ],
)
def test_a_new_key_is_a_draft_where_it_asks_for_less(asks: str, guarded: list[str], draft: bool) -> None:
    document = unit("header-tank-valve")
    sheet = sheet_of({**document, "authority": asks})
    others = [sheet_of({**document, "key": f"other-{n}", "authority": one}) for n, one in enumerate(guarded)]
    assert is_draft_at_import(LEAD, sheet, False, (), others) is draft
    assert is_draft_at_import(Author("bede", "Bede", Role.TECHNICIAN), sheet, False, (), others)
    assert Authority(asks) is sheet.authority
