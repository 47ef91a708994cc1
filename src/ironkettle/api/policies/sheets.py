"""Build sheets."""

from __future__ import annotations

from ironkettle.api.policies.base import EVERYBODY, LEAD, WORKERS, Right


class SheetPolicy:
    """Everybody signed in reads; who works on units brings sheets in, as drafts until they are approved.

    Who may approve a sheet depends on what it guards: core/sheets/document/approval.py asks for it.
    """

    read = Right("view  build sheets", EVERYBODY)
    bring_in = Right("import build sheets", WORKERS)
    approve = Right("approve build sheets", LEAD, signatories=True, in_person=True)
    withdraw = Right("withdraw build sheets or put them back", LEAD)
