"""Scanned codes: a label and the link on a certificate are told apart; everything else is refused by its name."""

from __future__ import annotations

import pytest

from ironkettle.core.base.errors import RuleError
from ironkettle.core.shop.service import Code, CodeKind, label_of, read_code

SHOP = "K7QF"
LABEL = label_of(SHOP, 5)
RECORD = "0123456789abcdef"


@pytest.mark.parametrize("text", [LABEL, LABEL.lower(), f" https://kettle.example/u/{LABEL}\n", f"/u/{LABEL}?x=1"])
def test_a_label_names_a_unit(text: str) -> None:
    assert read_code(text, SHOP) == Code(CodeKind.UNIT, LABEL)


@pytest.mark.parametrize(
    "text",
    [
        f"https://kettle.example/check?job=1012&record={RECORD}",
        f"http://10.0.0.5:8600/kettle/check?job=1012&record={RECORD.upper()}",
        f"/check?job=1012&record={RECORD}",
    ],
)
def test_the_link_on_a_certificate_names_its_job_and_record(text: str) -> None:
    assert read_code(text, SHOP) == Code(CodeKind.CERTIFICATE, "1012", RECORD)


@pytest.mark.parametrize(
    ("text", "said"),
    [
        ("https://example.com/menu", "“https://example.com/menu” is no code of this shop"),
        ("WIFI:S:boats;T:WPA;P:secret;;", "is no code of this shop"),
        ("", "is no code of this shop"),
        (f"/check?job=1012&record={RECORD[:15]}", "is no code of this shop"),
        (f"/check?job=1012&record={RECORD}&then=javascript:x", "is no code of this shop"),
        (f"/check?job={'9' * 10}&record={RECORD}", "is no code of this shop"),
        (LABEL[:-1] + ("1" if LABEL[-1] != "1" else "2"), "is mistyped"),
        (label_of("AAAA", 5), "is a label of another shop"),
        ("x" * 5000, f"“{'x' * 60}” is no code of this shop"),
    ],
)
def test_what_is_none_is_refused_by_its_name(text: str, said: str) -> None:
    with pytest.raises(RuleError) as refused:
        read_code(text, SHOP)
    (told,) = refused.value.faults
    assert told.field == "code"
    assert said in told.message
