"""Moves: a job as a list of clear next things, computed from its resolved sheet and its log."""

from ironkettle.core.moves.chart import check_entry, moves_of, next_move
from ironkettle.core.moves.log import Case, Mark, Marked, Payload, State, Tables
from ironkettle.core.moves.model import CHAPTER_WORD, Ask, Chapter, Choice, Kind, Move, Status
from ironkettle.core.moves.preview import preview, work_faults
from ironkettle.core.moves.register import AnyPayload, fold, payload_words, read_payload
from ironkettle.core.moves.resolved import Resolved, resolve

__all__ = [
    "CHAPTER_WORD",
    "AnyPayload",
    "Ask",
    "Case",
    "Chapter",
    "Choice",
    "Kind",
    "Mark",
    "Marked",
    "Move",
    "Payload",
    "Resolved",
    "State",
    "Status",
    "Tables",
    "check_entry",
    "fold",
    "moves_of",
    "next_move",
    "payload_words",
    "preview",
    "read_payload",
    "resolve",
    "work_faults",
]
