"""How a fastener is kept from turning, and what does not go together."""

from __future__ import annotations

from collections.abc import Iterable
from enum import StrEnum

from ironkettle.core.base.findings import Finding, info, reject

_BASIS = "locking practice: one way of locking, whole"


class Locking(StrEnum):
    THREAD_LOCKER = "thread_locker"
    PREVAILING_NUT = "prevailing_nut"
    WIRE = "wire"
    PIN = "pin"
    SET_SCREW = "set_screw"


LOCKING_WORD = {
    Locking.THREAD_LOCKER: "thread locker",
    Locking.PREVAILING_NUT: "prevailing-torque nut",
    Locking.WIRE: "lock wire",
    Locking.PIN: "split pin",
    Locking.SET_SCREW: "set screw",
}


def locking_findings(ways: Iterable[Locking]) -> list[Finding]:
    """Thread locker and a prevailing-torque nut are never used together; what goes with the one that is.

    Parameters: ways : those that are to be used, in any order [-].
    Source: makers' practice: locker makes a prevailing nut run up wrong, and the nut wipes the locker off.
    """
    used = set(ways)
    found = []
    if {Locking.THREAD_LOCKER, Locking.PREVAILING_NUT} <= used:
        text = "thread locker and a prevailing-torque nut never go together: take the one or the other"
        found.append(reject("locker-and-locknut", text, _BASIS))
    if Locking.PREVAILING_NUT in used:
        text = "a prevailing-torque nut is new each time; its running torque comes on top of the figure"
        found.append(info("nut-new", text, _BASIS))
    if Locking.THREAD_LOCKER in used:
        found.append(info("locker-clean", "thread locker goes on clean, dry threads; torque before it grips", _BASIS))
    if Locking.SET_SCREW in used:
        found.append(info("screw-flush", "a set screw ends flush with the face or below it", _BASIS))
    return found
