"""Settings of the server: name, default and help in one typed list, read from KETTLE_… variables."""

from __future__ import annotations

from pathlib import Path

from pydantic import Field
from pydantic_settings import BaseSettings, SettingsConfigDict

PROJECT = Path(__file__).resolve().parents[2]


class Settings(BaseSettings):
    """Each setting can be given as an environment variable with the prefix ``KETTLE_``."""

    model_config = SettingsConfigDict(env_prefix="KETTLE_")

    database_url: str = Field(
        default="postgresql://kettle_app@127.0.0.1:8441/kettle",
        description="where the database is; ./kettle start sets it to the private cluster",
    )
    owner_database_url: str = Field(
        default="",
        description="the same database under the role that owns the tables, for migrations; empty: one role for both",
    )
    host: str = Field(default="127.0.0.1", description="address the server listens on")
    port: int = Field(default=8440, ge=1, le=65535, description="port the server listens on")
    allowed_hosts: str = Field(
        default="127.0.0.1,localhost,::1",
        description="names and addresses the server answers to, by comma; a page under any other name is refused",
    )
    cert: str = Field(default="", description="certificate file (PEM); without one the server speaks plain HTTP")
    key: str = Field(default="", description="key file (PEM) of the certificate")
    stand_port: int = Field(default=8442, ge=1, le=65535, description="port of the test stand (Modbus TCP)")
    stand_host: str = Field(default="127.0.0.1", description="address of the test stand")
    web_dir: Path = Field(default=PROJECT / "web" / "build", description="the built interface")

    @property
    def host_names(self) -> frozenset[str]:
        return frozenset(name.strip().lower() for name in self.allowed_hosts.split(",") if name.strip())


def sqlalchemy_url(url: str) -> str:
    """The address with the driver named, as SQLAlchemy wants it."""
    for prefix in ("postgresql://", "postgres://"):
        if url.startswith(prefix):
            return "postgresql+psycopg://" + url.removeprefix(prefix)
    return url
