"""Where things are, from the environment; the start command and the tests set it."""

from __future__ import annotations

from functools import lru_cache

from pydantic_settings import BaseSettings, SettingsConfigDict


class Settings(BaseSettings):
    """Settings of server and worker; every field can be set as STAIRPATH_<NAME>."""

    model_config = SettingsConfigDict(env_prefix="STAIRPATH_")

    database_url: str = "postgresql://stairpath@127.0.0.1:54329/stairpath"
    host: str = "127.0.0.1"
    port: int = 8400
    web_dir: str = "web/dist"
    largest_file_mb: int = 512
    largest_unpacked_mb: int = 2048
    reading_silence_s: float = 180.0
    reading_total_s: float = 3600.0


@lru_cache
def settings() -> Settings:
    """The settings of this process."""
    return Settings()
