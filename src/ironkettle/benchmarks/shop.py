"""Figures of a full shop: list, search, history and what is due with fifty thousand jobs, against five hundred."""

from __future__ import annotations

import http.client
import json
import time
from collections.abc import Callable, Iterator
from functools import partial
from http import HTTPStatus
from urllib.parse import urlsplit

from sqlalchemy import Engine, text

from ironkettle.benchmarks.jobs import Bench, Figure
from ironkettle.benchmarks.timing import median_time
from ironkettle.demo.load import shipped_pins
from ironkettle.store.base import make_engine

FEW, MANY = 500, 50_000
# A unit for five jobs; one job of twenty is open, over ten years.
_UNITS = """
INSERT INTO units (id, sheet_key, serial, serial_key, by_hand, name, customer, first_at)
SELECT gen_random_uuid(), 'swing-bridge-ram', 'FN-S' || lpad(n::text, 5, '0'), 'fn-s' || lpad(n::text, 5, '0'), false, 'Ram of gate ' || n % 400, 'Fennimoor Navigation, bridges ' || n % 30,
       now() - (n % 3650) * interval '1 day'
FROM generate_series(:first / 5, :last / 5) n
"""
_JOBS = """
INSERT INTO jobs (id, sheet_key, sheet_version, unit, serial, customer, complaint, stage, next_need, released, tasks_done,
                  tasks_total, timer_for, entry_count, head, opened_at, touched_at, touched_by, short, causes, settings, ended,
                  unit_id, quick_service, family, waits, promised, words)
SELECT gen_random_uuid(), 'swing-bridge-ram', like_it.sheet_version, units.name, units.serial, units.customer, said.complaint,
       'strip', 'Gland out', n % 20 > 0, 10, 60, '', 0, '', told.at, told.at, 'Bede Harrowgate', '[]', '[]', '{}', '', units.id, '',
       like_it.family, CASE WHEN n % 60 = 0 THEN 'part' ELSE '' END,
       CASE WHEN n % 20 = 0 THEN current_date + n % 90 END,
       units.name || ' ' || units.serial || ' ' || units.customer || ' ' || said.complaint
FROM generate_series(:first, :last - 1) n
JOIN units ON units.serial = 'FN-S' || lpad((n / 5)::text, 5, '0')
CROSS JOIN LATERAL (SELECT now() - n % 3650 * interval '1 day' - n * interval '1 second' AS at) told
CROSS JOIN LATERAL (SELECT 'leaks at the rod since ' || md5(n::text) AS complaint) said
CROSS JOIN (SELECT sheet_version, family FROM jobs WHERE sheet_key = 'swing-bridge-ram' LIMIT 1) like_it
"""
_DUES = """
INSERT INTO dues (unit_id, interval, by, unknown_from)
SELECT units.id, 'reseal-unit', current_date + (units.number % 700)::int - 3, CASE WHEN units.number % 3 > 0 THEN current_date - 1 END FROM units
WHERE serial LIKE 'FN-S%' ON CONFLICT DO NOTHING
"""


def figures(url: str, owner: str, port: int) -> Iterator[Figure]:
    """Each as its time with many jobs beside the same with few, asked of a running server with the demo in it."""
    engine = make_engine(url, patient=True)
    bench = Bench(engine)
    _ = [bench.job(20) for _ in range(5)]
    _fill(engine, owner, 0, FEW)
    few = {name: median_time(act, 15) for name, act in _Asked(port).acts().items()}
    _fill(engine, owner, FEW, MANY)
    for name, act in _Asked(port).acts().items():
        yield f"{name}, {MANY:,} jobs / {FEW}", median_time(act, 15), few[name]
    engine.dispose()


def _fill(engine: Engine, owner: str, first: int, last: int) -> None:
    with engine.begin() as connection:
        for statement in (_UNITS, _JOBS, _DUES):
            wanted = {"first": first, "last": last} if ":first" in statement else {}
            connection.execute(
                text(statement.replace(":first / 5", ":first / 5 + (CASE WHEN :first > 0 THEN 1 ELSE 0 END)")), wanted
            )
    # As the database does by itself within minutes.
    tidy = make_engine(owner, patient=True)
    # What was just written counts as seen by all once it is on the disk.
    time.sleep(1)
    with tidy.connect().execution_options(isolation_level="AUTOCOMMIT") as connection:
        connection.execute(text("VACUUM ANALYZE jobs, units, dues"))
    tidy.dispose()


class _Asked:
    """A device that is signed in, and what it asks."""

    def __init__(self, port: int) -> None:
        self._connection = http.client.HTTPConnection("127.0.0.1", port)
        body = json.dumps({"person": "tamsin", "pin": shipped_pins()["tamsin"]})
        self._connection.request("POST", "/api/session", body, {"Content-Type": "application/json"})
        answer = self._connection.getresponse()
        answer.read()
        self._cookie = str(answer.getheader("Set-Cookie")).partition(";")[0]
        found = json.loads(self._get("/api/units?q=FN-0000"))
        self._unit = found["units"][0]["label"]
        listed = json.loads(self._get("/api/sheets"))
        self._version = max(version["version"] for version in listed if version["key"] == "swing-bridge-ram")
        self._feed = urlsplit(json.loads(self._ask("POST", "/api/due/feed"))["link"])

    def _get(self, path: str) -> bytes:
        return self._ask("GET", path)

    def _ask(self, method: str, path: str, body: dict[str, str] | None = None) -> bytes:
        headers = {"Cookie": self._cookie, "Content-Type": "application/json"}
        self._connection.request(method, path, None if body is None else json.dumps(body), headers)
        answer = self._connection.getresponse()
        content = answer.read()
        if answer.status != HTTPStatus.OK:
            raise RuntimeError(f"{path}: {answer.status} {content[:200]!r}")
        return content

    def _import_next(self) -> None:
        """Import the next version of the sheet of every unit: the due days of all of them are to be updated."""
        sheet = self._get(f"/api/sheets/swing-bridge-ram/{self._version}/export").decode()
        newer = sheet.replace(f"\nversion: {self._version}\n", f"\nversion: {self._version + 1}\n")
        self._version += 1
        self._ask("POST", "/api/sheets", {"text": newer})

    def acts(self) -> dict[str, Callable[[], object]]:
        paths = {
            "list of what is overdue": "/api/jobs?state=open&only=overdue",
            "list of open jobs": "/api/jobs?state=open",
            "list of released jobs": "/api/jobs?state=released",
            "search by serial": "/api/jobs?q=FN-S00077",
            "search by words": "/api/jobs?q=rod%20FN-S00044",
            "search that finds all": "/api/jobs?q=leaks",
            "search for %": "/api/jobs?q=%25",
            "filter by stage and family": "/api/jobs?state=open&stage=as_found&family=cylinder",
            "history of a unit": f"/api/units/{self._unit}",
            "what is due, the first five units": "/api/due?days=0&limit=5",
            "what is due, the first page": "/api/due",
            "what is due as a calendar": f"{self._feed.path}?{self._feed.query}",
        }
        return {
            **{name: partial(self._get, path) for name, path in paths.items()},
            "a new version of their sheet": self._import_next,
        }
