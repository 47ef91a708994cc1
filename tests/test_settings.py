"""Every setting is documented."""

from __future__ import annotations

import pytest
from pydantic import ValidationError

from ironkettle.config import PROJECT, Settings


def test_every_setting_stands_in_the_guide() -> None:
    guide = (PROJECT / "docs/guide/shop.md").read_text(encoding="utf-8")
    for name, field in Settings.model_fields.items():
        assert f"`KETTLE_{name.upper()}`" in guide, name
        assert field.description, name


def test_a_bad_value_names_the_setting(monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setenv("KETTLE_PORT", "kettle")
    with pytest.raises(ValidationError, match="port"):
        Settings()
