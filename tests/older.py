"""A whole job of the ram as its log was written before jobs were worked by tasks: seal format 2, a sheet of format 1."""

from __future__ import annotations

import hashlib
import json
import math
import uuid
from collections.abc import Iterator, Sequence
from datetime import UTC, datetime, timedelta
from pathlib import Path
from typing import Any

import yaml

SHEET = yaml.safe_load((Path(__file__).parent / "data/ram_format_1.yaml").read_text(encoding="utf-8"))
INTAKE = {
    "kind": "intake_recorded", "unit": "Latch ram", "serial": "FN-0300", "customer": "bridges", "complaint": "leaks",
    "fluid": "mineral oil ISO VG 46", "pressure": "180 bar", "hours": None,
}  # fmt: skip
RUNS = {key: str(uuid.uuid5(uuid.NAMESPACE_OID, key)) for key in ("rod-side-hold", "cap-side-hold")}
LARGE = {"name": "Large click wrench", "low": "60 N·m", "high": "340 N·m", "accuracy_pct": 4}
SMALL = {"name": "Small click wrench", "low": "5 N·m", "high": "25 N·m", "accuracy_pct": 4}
GAUGE = {"name": "Digital gauge 250 bar", "range": "250 bar", "resolution": "0.1 bar", "accuracy_pct": 0.5}

ELEMENTS: dict[str, str | None] = {
    "piston-lip-cap": "cap_side",
    "piston-band": None,
    "piston-lip-rod": "rod_side",
    "rod-spigot-ring": None,
    "gland-ring": None,
    "gland-backup": None,
    "rod-lip": "rod_side",
    "rod-band": None,
    "rod-wiper-ring": "outside",
}
ONE_USE = {key for key in ELEMENTS if key not in {"piston-band", "rod-band"}}


def samples(leak_bar_per_s: float = 0.002, count: int = 60) -> list[dict[str, float]]:
    """A hold from 180 bar read every 10 s, with a small ripple so that it is no perfect line."""
    return [
        {
            "t_s": 10.0 * i,
            "pressure_mpa": round(max(180.0 - leak_bar_per_s * 10 * i + 0.02 * math.sin(1.7 * i), 0.0) / 10, 4),
            "temperature_c": 24.0,
        }
        for i in range(count)
    ]


def payloads(*, reversed_rod_lip: bool = True, leak_bar_per_s: float = 0.002) -> Iterator[dict[str, Any]]:
    """Everything after the intake, in working order, up to the release."""
    for step in ("isolate", "bleed", "cool", "drain"):
        yield {"kind": "step_done", "step": step, "note": "140 ml, grey" if step == "drain" else ""}
    yield {"kind": "observation_noted", "observation": "rod-leak", "when": "as_found", "value": "12"}
    for step in ("lay-tools", "witness-marks", "wire-out", "rod-out", "piston-off"):
        note = "punch marks at 12 o'clock, photo 3" if step == "witness-marks" else ""
        yield {"kind": "step_done", "step": step, "note": note}
    for element, zone in ELEMENTS.items():
        faced = "outside" if element == "rod-lip" and reversed_rod_lip else zone
        present = element != "gland-backup"
        yield {"kind": "element_found", "element": element, "present": present, "faced": faced, "tray": "later"}
    yield {
        "kind": "ring_chosen",
        "element": "gland-ring",
        "series": "AS568",
        "designation": "224",
        "inside_diameter": "44.1 mm",
        "section": "3.5 mm",
        "condition": "used",
        "probability": 0.53,
        "groove_verdict": "good",
        "reason": "fits the groove best and the kit holds it",
    }
    for line in ("k-lip-cap", "k-lip-rod", "k-rod-lip", "k-wiper", "k-gland-ring", "k-backup", "k-spigot", "k-nut"):
        yield {"kind": "kit_counted", "line": line, "counted": 1}
    yield {"kind": "kit_counted", "line": "k-wire-round", "counted": 1}
    yield {"kind": "kit_counted", "line": "k-wire-plain", "counted": 1, "decision": "unused"}
    for element, zone in ELEMENTS.items():
        yield {"kind": "element_fitted", "element": element, "faces": zone, "reused": element not in ONE_USE}
    for step in ("clean-dry", "gland-on", "piston-on", "rod-in", "wire-in", "free-stroke"):
        yield {"kind": "step_done", "step": step, "note": "even, no catch" if step == "free-stroke" else ""}
    yield tightened("piston-nut", 1, 1, "202 N·m", LARGE)
    for turn, reading in ((1, "14 N·m"), (2, "21 N·m")):
        for number in (1, 3, 2, 4):
            yield tightened("port-flange", turn, number, reading, SMALL)
    for number in (1, 2, 3, 4):
        yield tightened("port-flange", 3, number, "21 N·m", SMALL)
    for test, run in RUNS.items():
        yield {"kind": "test_started", "test": test, "run": run, "gauge": GAUGE, "source": "typed"}
        yield {"kind": "test_samples", "run": run, "samples": samples(leak_bar_per_s)}
        yield {"kind": "test_closed", "run": run}
    yield {"kind": "observation_noted", "observation": "rod-leak", "when": "as_left", "value": "0"}


def tightened(group: str, turn: int, number: int, reading: str, wrench: dict[str, Any]) -> dict[str, Any]:
    return {
        "kind": "fastener_tightened",
        "group": group,
        "round": turn,
        "number": number,
        "reading": reading,
        "wrench": wrench,
    }


RELEASE = {"kind": "released", "statement": "Resealed, tested and fit for service", "next_service": "in 12 months"}
PASSED = {"verdict": "pass", "limit": "0.5 ml/min", "wanted": "180 bar", "rate_ml_min": 0.004, "words": []}
TOLD = ["Repaired as recorded, and tested, and fit for service."]


def sealed(job: uuid.UUID, entries: Sequence[dict[str, Any]]) -> list[dict[str, Any]]:
    """The rows that version wrote for these payloads: each text hashed with the link before it."""
    rows, previous, start = [], "0" * 64, datetime(2026, 11, 20, 9, tzinfo=UTC)
    for place, payload in enumerate(entries):
        moment = start + timedelta(minutes=place)
        released = payload["kind"] == "released"
        who = "tamsin" if released else "bede"
        document = {
            "format": 2, "previous": previous, "job": str(job), "id": str(uuid.uuid5(job, str(place))), "seq": place + 1,
            "who": who, "who_name": "Tamsin Orrell" if released else "Bede Harrowgate",
            "bench_time": moment.isoformat(), "server_time": moment.isoformat(), "clock_ahead_s": 0.0,
            "signature": {"how": "pin", "role": "lead", "authority": "lifting", "until": "2027-11-20"} if released else None,
            "judgement": PASSED if payload["kind"] == "test_closed" else None,
            "told": TOLD if released else None, "payload": payload,
        }  # fmt: skip
        text = json.dumps(document, sort_keys=True, separators=(",", ":"), ensure_ascii=False)
        previous = hashlib.sha256(text.encode()).hexdigest()
        rows.append(
            {
                "id": uuid.UUID(document["id"]), "job_id": job, "seq": place + 1, "kind": payload["kind"], "who": who,
                "bench_time": moment, "server_time": moment, "sealed": text, "seal_format": 2, "hash": previous,
            }
        )  # fmt: skip
    return rows
