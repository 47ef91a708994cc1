"""Authorities and the day they end."""

from __future__ import annotations

from datetime import date

from ironkettle.core.shop.people import AUTHORITY_WORD, ROLE_WORD, Author, Authorisation, Authority, Role

LAST = date(2026, 11, 24)


def test_an_authority_holds_to_the_end_of_its_last_day() -> None:
    held = Authorisation(Authority.LIFTING, LAST)
    assert held.holds_on(date(2026, 11, 23))
    assert held.holds_on(LAST)
    assert not held.holds_on(date(2026, 11, 25))


def test_the_one_that_lasts_longest_counts_and_only_its_own_kind() -> None:
    longer = Authorisation(Authority.LIFTING, date(2027, 1, 1))
    author = Author("t", "T", Role.LEAD, (Authorisation(Authority.LIFTING, LAST), longer))
    assert author.authorisation(Authority.LIFTING, LAST) == longer
    assert author.authorisation(Authority.LIFTING, date(2027, 1, 2)) is None
    assert author.authorisation(Authority.LIFE_SUPPORT, LAST) is None


def test_every_role_and_authority_has_its_word() -> None:
    assert set(ROLE_WORD) == set(Role)
    assert set(AUTHORITY_WORD) == set(Authority)
