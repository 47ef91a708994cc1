"""People, their rights and their secrets."""

from __future__ import annotations

from ironkettle.api.policies.base import EVERYBODY, LEAD, Right


class PersonPolicy:
    """The lead manages people, signed in and not by a script; everybody changes their own PIN and badge."""

    read = Right("view  people", EVERYBODY)
    manage = Right("manage people and their rights", LEAD, in_person=True)

    @staticmethod
    def set_secret(person: str) -> Right:
        return Right("change somebody else's PIN or badge", LEAD, in_person=True, own=person)
