"""Signing in: the first owner, somebody who is invited, and a page that is open when a sign-in ends."""

from __future__ import annotations

import os
import re
import subprocess
import sys
from urllib.parse import urlsplit

import psycopg
import pytest
from playwright.sync_api import Page, expect

from stairpath.start.postgres import free_port
from stairpath.start.processes import Watched, watching
from tests.database import run_beside
from tests.e2e.conftest import ROOT
from tests.soak.running import until

GOOD = "harbour wall at low tide"


@pytest.fixture
def door(database_url, tmp_path, monkeypatch):
    """A server of its own at empty tables, so that it closes no door of others: its address, and its command for people."""
    with psycopg.connect(database_url, autocommit=True) as connection:
        connection.execute("CREATE SCHEMA door")
    url = urlsplit(database_url)._replace(query="options=-csearch_path%3Ddoor").geturl()
    port = free_port(9100 + 200 * run_beside())
    for name, value in {"DATABASE_URL": url, "PORT": str(port), "WEB_DIR": str(ROOT / "web" / "dist-test")}.items():
        monkeypatch.setenv(f"STAIRPATH_{name}", value)

    def run(*words: str) -> str:
        return subprocess.run([sys.executable, *words], check=True, capture_output=True, text=True, cwd=ROOT).stdout

    run("-c", "from stairpath.store.migrate import migrate; migrate()")
    command = [sys.executable, "-m", "stairpath.api.server"]
    with watching([Watched("server", command, tmp_path, ROOT)]):
        address = f"http://127.0.0.1:{port}"
        until(lambda: os.system(f"curl -sf {address}/api/health > /dev/null") == 0, 60, "the server answers")
        yield address, lambda *words: run("-m", "stairpath", "people", *words)
    with psycopg.connect(database_url, autocommit=True) as connection:
        connection.execute("DROP SCHEMA door CASCADE")


def link_in(said: str) -> str:
    return next(re.finditer(r"http\S+/welcome#\S+", said))[0]


def sign_in(page: Page, name: str, password: str) -> None:
    page.get_by_label("Name", exact=True).fill(name)
    page.get_by_label("Password").fill(password)
    page.keyboard.press("Enter")


def test_people_begin_by_links_sign_in_and_out_and_strangers_stay_out(page: Page, browser, door):
    address, people = door
    first = link_in(people("first"))
    page.goto(first)
    page.get_by_label("Your name").fill("Ida Fenn")
    page.get_by_label("Name to sign in with").fill("Ida@quillhaven.example")
    page.get_by_label("Password").fill("short")
    page.keyboard.press("Enter")
    expect(page.get_by_role("alert")).to_contain_text("at least 12 characters")
    page.get_by_label("Password").fill(GOOD)
    page.keyboard.press("Enter")
    expect(page.get_by_role("heading", name="Projects")).to_be_visible()
    page.get_by_role("button", name="Start empty").click()
    page.wait_for_url(re.compile("/p/"))
    project = page.url.split("#")[0]
    expect(page.get_by_role("button", name="you are Ida Fenn; sign out")).to_be_visible()

    # The link is good no more, and a stranger sees no project.
    with browser.new_context(locale="en-GB") as elsewhere:
        other = elsewhere.new_page()
        other.goto(first)
        expect(other.get_by_text("was used or has ended")).to_be_visible()
        other.goto(project)
        expect(other.get_by_role("heading", name="Sign in")).to_be_visible()
        sign_in(other, "mara@quillhaven.example", GOOD)
        expect(other.get_by_role("alert")).to_contain_text("Name and password do not fit")
        # Who is invited sets a password by a link, and comes back to what they came for.
        page.get_by_role("button", name="sign out").click()
        page.get_by_role("menuitem", name="People").click()
        page.get_by_label("Name of who is invited").fill("Mara Oake")
        page.get_by_label("Name to sign in with").fill("mara@quillhaven.example")
        page.get_by_role("button", name="Invite").click()
        expect(page.get_by_test_id("person").filter(has_text="Mara Oake")).to_contain_text("has not set a password yet")
        other.goto(page.get_by_test_id("link-to-hand-on").inner_text())
        expect(other.get_by_role("heading", name="Welcome, Mara Oake")).to_be_visible()
        other.get_by_label("Password").fill(GOOD)
        other.get_by_role("button", name="Begin").click()
        expect(other.get_by_text("New project").first).to_be_visible()
        other.get_by_role("button", name="you are Mara Oake; sign out").click()
        expect(other.get_by_role("menuitem", name="People")).to_have_count(0)
        other.get_by_role("menuitem", name="Sign out", exact=True).click()
        expect(other.get_by_role("heading", name="Sign in")).to_be_visible()
        other.goto(project)
        sign_in(other, "MARA@quillhaven.example", GOOD)
        expect(other.get_by_role("button", name="you are Mara Oake; sign out")).to_be_visible()
        assert other.url.startswith(project)

        assert people("list").count("\n") == 2
    page.goto(project)

    # Signed out elsewhere, an open page asks again, and goes on where it was.
    with browser.new_context(locale="en-GB") as elsewhere:
        third = elsewhere.new_page()
        third.goto(address)
        sign_in(third, "ida@quillhaven.example", GOOD)
        third.get_by_role("button", name="sign out").click()
        third.get_by_role("menuitem", name="Sign out everywhere").click()
        expect(third.get_by_role("heading", name="Sign in")).to_be_visible()
    expect(page.get_by_role("heading", name="Sign in")).to_be_visible()
    sign_in(page, "ida@quillhaven.example", GOOD)
    expect(page.get_by_role("button", name="you are Ida Fenn; sign out")).to_be_visible()
    assert page.url.startswith(project)
