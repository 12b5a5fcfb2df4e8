"""Where things are, from the environment; the start command and the tests set it."""

from __future__ import annotations

from functools import lru_cache
from typing import Literal

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
    project_storage_mb: int = 50_000
    project_components: int = 2_000_000
    project_tasks: int = 20
    """What a project may hold for which nobody set other limits; with the two before."""
    server_storage_mb: int = 0
    """What all projects may hold together; 0 for no limit but the disk."""
    person_requests_per_minute: int = 6000
    person_connections: int = 60
    """How often somebody may ask, and how many pages they may have open at once."""
    address: str = ""
    """The address under which people open the page, such as https://models.firm.example; mails carry it."""
    smtp_host: str = ""
    """The server for mail; without one the mailbox of the application shows what would be sent."""
    smtp_port: int = 587
    smtp_security: Literal["starttls", "tls", "none"] = "starttls"
    smtp_user: str = ""
    smtp_password: str = ""
    mail_from: str = "stair-path@localhost"
    oidc_issuer: str = ""
    """The address of the provider of accounts (OpenID Connect); without one people sign in with passwords alone."""
    oidc_name: str = "the firm's account"
    oidc_client_id: str = ""
    oidc_client_secret: str = ""
    demo: bool = False
    """Whether a visitor on this machine may be one of the demo's people with one click; the start command of the demo says so."""
    reading_silence_s: float = 180.0
    reading_total_s: float = 3600.0
    child_memory_mb: int = 6144
    """What a process that works on somebody's file may take; over it the file fails with a sentence."""
    allowed_hosts: str = "127.0.0.1,localhost,[::1]"
    """Names under which the server may be asked, with commas between."""
    worker_silence_s: float = 15.0
    """After so long without a sign of life a worker counts as dead and its jobs are taken up."""


@lru_cache
def settings() -> Settings:
    """The settings of this process."""
    return Settings()
