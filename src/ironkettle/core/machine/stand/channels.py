"""The register map of a stand: which register holds what, in which format, scale and unit."""

from __future__ import annotations

import math
import struct
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from enum import StrEnum
from typing import Annotated, Self

from pydantic import BaseModel, ConfigDict, Field, StringConstraints, model_validator

from ironkettle.core.base.errors import fault
from ironkettle.core.base.quantities import Dimension, find_unit, from_base, to_base
from ironkettle.core.base.text import Figure, Plain

Name = Annotated[str, StringConstraints(min_length=1, max_length=60, strip_whitespace=True), Plain]
Key = Annotated[str, StringConstraints(pattern=r"^[a-z][a-z0-9_]{0,29}$")]


class Reads(StrEnum):
    """What a channel tells: a quantity, the state of the hold, the number of the reading, or (``target``, written) the
    pressure to hold."""

    PRESSURE = "pressure"
    TEMPERATURE = "temperature"
    FLOW = "flow"
    POSITION = "position"
    FORCE = "force"
    HELD = "held"
    HOLD = "hold"
    READING = "reading"
    SIMULATED = "simulated"
    TARGET = "target"


DIMENSION = {
    Reads.PRESSURE: Dimension.PRESSURE, Reads.TEMPERATURE: Dimension.TEMPERATURE, Reads.FLOW: Dimension.FLOW,
    Reads.POSITION: Dimension.LENGTH, Reads.FORCE: Dimension.FORCE, Reads.HELD: Dimension.TIME,
    Reads.TARGET: Dimension.PRESSURE,
}  # fmt: skip
# Of these a stand has one at most.
_ONE = (Reads.HELD, Reads.HOLD, Reads.READING, Reads.SIMULATED, Reads.TARGET)
_MOST_CHANNELS, _MOST_REGISTERS, _LONGEST_READ, _BRIDGED = 24, 65_536, 120, 16


class RegisterFormat(StrEnum):
    """How a number stands in its registers, the high byte first."""

    FLOAT32 = "float32"
    INT16 = "int16"
    UINT16 = "uint16"
    INT32 = "int32"
    UINT32 = "uint32"

    @property
    def words(self) -> int:
        """Registers it takes, 1 or 2."""
        return 1 if self in {RegisterFormat.INT16, RegisterFormat.UINT16} else 2

    @property
    def code(self) -> str:
        return {"float32": ">f", "int16": ">h", "uint16": ">H", "int32": ">i", "uint32": ">I"}[self.value]


@dataclass(frozen=True, slots=True)
class Block:
    """Registers read in one go."""

    first: int
    count: int


class StandChannel(BaseModel):
    """One channel: value = number in the register · ``scale`` + ``offset``, in ``unit``.

    ``low`` and ``high``: what it can show, in its unit; a reading beyond is no reading. ``swapped``: the low register first.
    """

    model_config = ConfigDict(extra="forbid", frozen=True)

    key: Key
    name: Name
    reads: Reads
    register_at: int = Field(ge=0, lt=_MOST_REGISTERS)
    format: RegisterFormat = RegisterFormat.FLOAT32
    swapped: bool = False
    scale: Figure = 1.0
    offset: Figure = 0.0
    unit: Annotated[str, StringConstraints(max_length=12), Plain] = ""
    low: Figure | None = None
    high: Figure | None = None

    @model_validator(mode="after")
    def _fits(self) -> Self:
        if self.scale == 0 or not 1e-9 <= abs(self.scale) <= 1e9:
            raise ValueError(f"scale {self.scale:g} of {self.name} is none; it lies between 1e-9 and 1e9")
        wanted = DIMENSION.get(self.reads)
        unit = find_unit(self.unit) if self.unit else None
        if wanted is not None and (unit is None or unit.dimension is not wanted or unit.absolute or unit.vacuum):
            gauge = " (gauge)" if wanted is Dimension.PRESSURE else ""
            raise ValueError(f"{self.name} reads a {wanted.value}{gauge}; “{self.unit}” is not a unit for it")
        if self.low is not None and self.high is not None and self.low >= self.high:
            raise ValueError(f"{self.name} cannot show from {self.low:g} to {self.high:g}: the first is not below")
        if self.register_at + self.format.words > _MOST_REGISTERS:
            raise ValueError(f"{self.name} runs over the last register, {_MOST_REGISTERS - 1}")
        return self

    def base(self, shown: float) -> float:
        """What it shows, any [its unit], in the base unit. Source: the definition of the unit."""
        unit = find_unit(self.unit) if self.unit else None
        return shown if unit is None else to_base(shown, unit)


class Numbered(BaseModel):
    """A stand that numbers its readings, one each ``every_s`` [s]; the last ``rows`` of them it keeps from register ``first`` on.

    What is kept of a reading is a copy of the registers that are read, from the lowest to the highest; that of reading n stands
    in place n modulo ``rows``.
    """

    model_config = ConfigDict(extra="forbid", frozen=True)

    every_s: Figure = Field(ge=0.005, le=60)
    rows: int = Field(default=0, ge=0, le=2000)
    first: int = Field(default=0, ge=0, lt=_MOST_REGISTERS)


class StandMap(BaseModel):
    """The channels of a stand, in the order they are shown; the first pressure is the one a hold is judged by.

    ``numbered``: how often it takes a reading and which it keeps, where a channel tells the number of the reading.
    """

    model_config = ConfigDict(extra="forbid", frozen=True)

    unit_id: int = Field(default=1, ge=0, le=247)
    rate_hz: Figure = Field(default=5.0, ge=0.2, le=50)
    channels: tuple[StandChannel, ...] = Field(min_length=1, max_length=_MOST_CHANNELS)
    numbered: Numbered | None = None

    @model_validator(mode="after")
    def _fits(self) -> Self:
        for what, names in (
            ("key", [channel.key for channel in self.channels]),
            ("name", [channel.name for channel in self.channels]),
        ):
            twice = sorted({name for name in names if names.count(name) > 1})
            if twice:
                raise ValueError(f"two channels have the {what} “{twice[0]}”")
        for reads in _ONE:
            if sum(channel.reads is reads for channel in self.channels) > 1:
                raise ValueError(f"two channels read “{reads.value}”; a stand has one")
        if not self.of(Reads.PRESSURE):
            raise ValueError("no channel reads a pressure; a hold is judged by one")
        taken: dict[int, str] = {}
        for channel in self.channels:
            for register in range(channel.register_at, channel.register_at + channel.format.words):
                if register in taken:
                    raise ValueError(f"{taken[register]} and {channel.name} both take register {register}")
                taken[register] = channel.name
        self._check_numbered(taken)
        return self

    def _check_numbered(self, taken: Mapping[int, str]) -> None:
        has_number = self.channel_of(Reads.READING) is not None
        if self.numbered is None:
            if has_number:
                raise ValueError("a channel reads the number of the reading; enter every how many seconds it takes one")
            return
        if not has_number:
            raise ValueError("the stand numbers its readings; no channel reads that number")
        span, rows, first = self.span, self.numbered.rows, self.numbered.first
        if not rows:
            return
        if span.count > _LONGEST_READ:
            text = f"a kept reading is a copy of {span.count} registers; {_LONGEST_READ} are the most of one read"
            raise ValueError(text)
        end = first + rows * span.count
        if end > _MOST_REGISTERS:
            raise ValueError(f"{rows} kept readings of {span.count} registers run over the last, {_MOST_REGISTERS - 1}")
        inside = next((name for at, name in taken.items() if first <= at < end), None)
        if inside is not None:
            raise ValueError(f"{inside} lies among the kept readings, registers {first} to {end - 1}")

    @property
    def span(self) -> Block:
        """The registers that are read, from the lowest to the highest."""
        read = [channel for channel in self.channels if channel.reads is not Reads.TARGET]
        first = min(reading.register_at for reading in read)
        return Block(first, max(reading.register_at + reading.format.words for reading in read) - first)

    def of(self, reads: Reads) -> tuple[StandChannel, ...]:
        """The channels that read this."""
        return tuple(channel for channel in self.channels if channel.reads is reads)

    def channel_of(self, reads: Reads) -> StandChannel | None:
        """The first channel that reads this, or None."""
        return next(iter(self.of(reads)), None)

    @property
    def measured(self) -> tuple[StandChannel, ...]:
        """The channels that read a quantity of the unit, as they are shown."""
        return tuple(channel for channel in self.channels if channel.reads not in _ONE)

    def pressure(self, key: str | None) -> StandChannel:
        """The pressure channel of that key, the first for None. Raises RuleError for one that is none."""
        able = self.of(Reads.PRESSURE)
        found = able[0] if key is None else next((channel for channel in able if channel.key == key), None)
        if found is None:
            raise fault("channel", f"“{key}” is no pressure channel of the stand", *(channel.key for channel in able))
        return found


def blocks_of(stand: StandMap) -> tuple[Block, ...]:
    """The registers of all channels that are read, in as few reads as a hundred and twenty registers a read allow.

    Small holes are read along. Source: 125 registers are the most of one Modbus answer.
    """
    spans = sorted(
        (channel.register_at, channel.register_at + channel.format.words)
        for channel in stand.channels
        if channel.reads is not Reads.TARGET
    )
    blocks: list[list[int]] = []
    for first, end in spans:
        if blocks and first - blocks[-1][1] <= _BRIDGED and end - blocks[-1][0] <= _LONGEST_READ:
            blocks[-1][1] = max(blocks[-1][1], end)
        else:
            blocks.append([first, end])
    return tuple(Block(first, end - first) for first, end in blocks)


def kept_blocks(stand: StandMap, numbers: Sequence[int]) -> tuple[tuple[Block, tuple[int, ...]], ...]:
    """Where the readings of those numbers (0 or above, rising) are kept: the registers of each read, and what they hold. [-]

    Those of a stand that keeps none are nowhere. Source: ``Numbered``; 125 registers are the most of one Modbus answer.
    """
    if stand.numbered is None or not stand.numbered.rows:
        return ()
    span, rows, first = stand.span.count, stand.numbered.rows, stand.numbered.first
    blocks: list[tuple[int, list[int]]] = []
    # Those before have been written over.
    for number in (row for row in numbers[-rows:] if row > numbers[-1] - rows):
        at = first + number % rows * span
        if blocks:
            begins, held = blocks[-1]
            if at == begins + len(held) * span and (len(held) + 1) * span <= _LONGEST_READ:
                held.append(number)
                continue
        blocks.append((at, [number]))
    return tuple((Block(at, len(held) * span), tuple(held)) for at, held in blocks)


def value_in(words: Sequence[int], channel: StandChannel) -> float:
    """The number in a channel's registers; NaN where they hold none. [unit of the channel]

    Parameters: words : its 1 or 2 registers, 0 to 65535 each. Source: IEEE 754 and two's complement, high byte first.
    """
    ordered = tuple(reversed(words)) if channel.swapped else tuple(words)
    raw = b"".join(struct.pack(">H", word & 0xFFFF) for word in ordered)
    number = float(struct.unpack(channel.format.code, raw)[0])
    return number * channel.scale + channel.offset if math.isfinite(number) else math.nan


def encode(base: float, channel: StandChannel) -> tuple[int, ...]:
    """The registers that make a channel hold a value, any [base unit]. Source: the reverse of ``value_in``.

    Raises RuleError for a value its format cannot hold.
    Range: what the format of the register can hold, from its least up to its most.
    """
    unit = find_unit(channel.unit) if channel.unit else None
    shown = base if unit is None else from_base(base, unit)
    number = (shown - channel.offset) / channel.scale
    whole = number if channel.format is RegisterFormat.FLOAT32 else round(number)
    try:
        raw = struct.pack(channel.format.code, whole)
    except (struct.error, OverflowError):
        text = f"{shown:g} {channel.unit} does not fit the register of {channel.name} ({channel.format.value})"
        raise fault(channel.key, text) from None
    words = tuple(int.from_bytes(raw[at : at + 2], "big") for at in range(0, len(raw), 2))
    return tuple(reversed(words)) if channel.swapped else words


def _shipped() -> StandMap:
    """What the simulated stand answers to, and any stand that keeps to docs/guide/stand.md."""
    rows: tuple[tuple[str, str, Reads, int, str, float | None, float | None], ...] = (
        ("pressure", "Pressure", Reads.PRESSURE, 0, "bar", -1.0, 640.0),
        ("other_side", "Pressure of the other side", Reads.PRESSURE, 2, "bar", -1.0, 640.0),
        ("supply", "Supply pressure", Reads.PRESSURE, 4, "bar", -1.0, 640.0),
        ("temperature", "Temperature of the fluid", Reads.TEMPERATURE, 6, "°C", -40.0, 150.0),
        ("room", "Temperature of the room", Reads.TEMPERATURE, 8, "°C", -40.0, 80.0),
        ("flow", "Flow", Reads.FLOW, 10, "ml/min", None, None),
        ("position", "Position", Reads.POSITION, 12, "mm", None, None),
        ("force", "Force", Reads.FORCE, 14, "N", None, None),
        ("held", "Held for", Reads.HELD, 16, "s", None, None),
        ("hold", "Number of the hold", Reads.HOLD, 18, "", None, None),
        ("simulated", "Simulated", Reads.SIMULATED, 20, "", None, None),
        ("reading", "Number of the reading", Reads.READING, 22, "", None, None),
        ("target", "Raise to", Reads.TARGET, 40, "bar", None, None),
    )
    channels = tuple(
        StandChannel(
            key=key, name=name, reads=reads, register_at=at, unit=unit, low=low, high=high,
            # A number of 32 bits in a float would repeat itself after four days.
            format=RegisterFormat.UINT32 if reads is Reads.READING else RegisterFormat.FLOAT32,
        )
        for key, name, reads, at, unit, low, high in rows
    )  # fmt: skip
    return StandMap(channels=channels, numbered=Numbered(every_s=0.02, rows=500, first=100))


SHIPPED = _shipped()
