"""Where good people differ: each practice option's ways, the careful one first, with the reason for each."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass


@dataclass(frozen=True, slots=True)
class Way:
    """One way of doing it, and why some hold to it."""

    words: str
    why: str


@dataclass(frozen=True, slots=True)
class PracticeOption:
    """A choice the shop makes once: it stands on every job and certificate, and the other way is told in a line."""

    key: str
    name: str
    ways: tuple[Way, ...]

    @property
    def rule(self) -> str:
        """Its key among the shop settings."""
        return f"{_PREFIX}{self.key}"


@dataclass(frozen=True, slots=True)
class Held:
    """A practice option as one shop has chosen it: the way in force, and the others."""

    option: PracticeOption
    way: Way
    others: tuple[Way, ...]

    @property
    def line(self) -> str:
        """The way in force alone, as a customer reads it."""
        return f"{self.option.name}: {self.way.words}"

    @property
    def sentence(self) -> str:
        """The way in force with its reason, and the other way in a line."""
        other = "; ".join(f"{option.words}, because {option.why}" for option in self.others)
        return f"{self.option.name}: {self.way.words}, because {self.way.why}. Others: {other}."


PRACTICE_OPTIONS: tuple[PracticeOption, ...] = (
    PracticeOption(
        "seals",
        "Seals",
        (
            Way("renew every seal", "the labour is already spent"),
            Way("keep one that looks sound", "a sound seal of a rare size is better than none"),
        ),
    ),
    PracticeOption(
        "fitting",
        "Fitting",
        (
            Way("clean service fluid", "it cannot disagree with what is in the unit"),
            Way("grease that suits the compound", "it stays where it is put"),
            Way("dry", "nothing is carried in"),
        ),
    ),
    PracticeOption(
        "aim",
        "Torque within its range",
        (
            Way("the middle of the range", "an error of the wrench stays inside either way"),
            Way("the top of the range", "more preload holds against shaking loose"),
        ),
    ),
    PracticeOption(
        "figure",
        "Tightening",
        (
            Way("to a figure", "it can be written down and shown"),
            Way("run down and feel", "a practised hand notices a bad thread"),
        ),
    ),
    PracticeOption(
        "locking",
        "Locking",
        (
            Way("as the sheet says, thread locker where it says nothing", "it fills the thread and keeps rust out"),
            Way("a locking nut where one fits", "it needs no cure and comes off cold"),
        ),
    ),
    PracticeOption(
        "pits",
        "A pitted rod",
        (
            Way("reject it", "rust grows on under the chrome"),
            Way("dress it within its limit", "a shallow pit under the seal does no harm for years"),
        ),
    ),
    PracticeOption(
        "place",
        "Testing",
        (
            Way("on the bench", "nobody stands beside a machine under load"),
            Way("on the machine", "it is tried where it works"),
        ),
    ),
    PracticeOption(
        "scrap",
        "Parts taken off",
        (
            Way("keep all until the job is closed", "what was thrown out is wanted at the rebuild"),
            Way("scrap at once", "an old part cannot go back by mistake"),
        ),
    ),
    PracticeOption(
        "pry",
        "Prying seals out",
        (
            Way("with brass and plastic only", "steel scratches the land the new one seals on"),
            Way("with steel picks", "a hard ring does not come otherwise"),
        ),
    ),
)
_BEFORE, _PREFIX = "school_", "practice_"


def under_their_names(own: Mapping[str, float]) -> dict[str, float]:
    """Settings as a job sealed them, under the keys of today: those of practice options began with ``school_`` once. [as each setting]

    Range: values between the bounds of each setting. Source: by definition.
    """
    return {
        f"{_PREFIX}{key.removeprefix(_BEFORE)}" if key.startswith(_BEFORE) else key: value for key, value in own.items()
    }


BY_KEY = {option.key: option for option in PRACTICE_OPTIONS}
