"""What stands behind an entry beside its payload: what the job is worked from, and the script that sent it."""

from __future__ import annotations

from pydantic import BaseModel, ConfigDict


class JobBasis(BaseModel):
    """Sealed with a job's intake: the hashes of its sheet's document and of the shop settings in force, and its number."""

    model_config = ConfigDict(frozen=True)

    sheet: str
    settings: str
    number: int


class TokenUsed(BaseModel):
    """The token a script sent an entry with: what it is called, and owner or customer."""

    model_config = ConfigDict(frozen=True)

    name: str
    whose: str

    @property
    def words(self) -> str:
        return f"sent by a script, token “{self.name}” of {self.whose}"
