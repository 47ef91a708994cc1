"""What a scanned code of this shop names: a unit by its label, or a certificate by the link on it."""

from __future__ import annotations

import re
from dataclasses import dataclass, replace
from enum import StrEnum

from ironkettle.core.base.errors import RuleError, fault
from ironkettle.core.shop.service.label import is_like_label, read_label

_CHECK = re.compile(
    r"^(?:https?://\S+)?/check\?job=(?P<job>\d{1,9})&record=(?P<record>[0-9a-f]{16,64})$", re.IGNORECASE
)
_ASKED = ("a label of a unit, such as K7QF-3ZTM24", "the code on a certificate or on the label of a job")
_SHOWN = 60


class CodeKind(StrEnum):
    UNIT = "unit"
    CERTIFICATE = "certificate"


@dataclass(frozen=True, slots=True)
class Code:
    """``key``: the label of the unit or the number of the job; ``record``: how its record begins, of a certificate only."""

    kind: CodeKind
    key: str
    record: str = ""


def read_code(text: str, shop: str) -> Code:
    """What a scanned or typed code names.

    Parameters: text : as the scanner gave it; shop : the letters its labels begin with. Raises RuleError, with field ``code``, for
    what is neither a unit's label nor a link to the check of a certificate. Source: no published source; the links are those that
    the shop's own papers carry.
    """
    said = text.strip()
    if check := _CHECK.match(said):
        return Code(CodeKind.CERTIFICATE, check["job"], check["record"].lower())
    if not is_like_label(said):
        raise fault("code", f"“{said[:_SHOWN]}” is no code of this shop", *_ASKED)
    try:
        return Code(CodeKind.UNIT, read_label(said, shop))
    except RuleError as refused:
        raise RuleError([replace(fault, field="code") for fault in refused.faults]) from None
