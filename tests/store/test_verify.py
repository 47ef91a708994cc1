"""The check command over all jobs."""

from __future__ import annotations

import pytest
from sqlalchemy import Engine, text

from ironkettle.store import verify


def test_verify_tells_each_job_and_fails_on_a_broken_chain(
    workshop: Engine, database_url: str, monkeypatch: pytest.MonkeyPatch, capsys: pytest.CaptureFixture[str]
) -> None:
    monkeypatch.setenv("KETTLE_DATABASE_URL", database_url)
    assert verify.main() == 0
    assert "1 entries, chain holds" in capsys.readouterr().out
    with workshop.begin() as connection:
        connection.execute(text("UPDATE jobs SET head = repeat('0', 64)"))
    assert verify.main() == 1
    assert "entries are missing at the end" in capsys.readouterr().out
