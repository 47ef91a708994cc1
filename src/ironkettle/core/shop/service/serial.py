"""What makes two serials one: how they were typed does not."""

from __future__ import annotations


def serial_key(serial: str) -> str:
    """A serial without what differs only by hand: spaces and the case of letters. [letters]

    Parameters: serial : any. Dashes, dots and leading noughts stay: makers tell units apart by them. Source: the trade's use.
    """
    return "".join(serial.split()).casefold()
