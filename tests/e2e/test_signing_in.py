"""Signing in: the first owner, somebody who is invited, and a page that is open when a sign-in ends."""

from __future__ import annotations

import os
import re
import subprocess
import sys
from urllib.parse import parse_qs, urlencode, urlsplit

import psycopg
import pyotp
import pytest
from authlib.oauth2.rfc7636 import create_s256_code_challenge
from playwright.sync_api import Page, expect

from stairpath.start.processes import Watched, watching
from tests.e2e.conftest import ROOT, another
from tests.ports import port_of_own
from tests.soak.running import until

GOOD = "harbour wall at low tide"


@pytest.fixture(scope="module")
def own_server(database_url, tmp_path_factory):
    """A server of its own at tables of their own, so that it closes no door of others: the database, the address, the command."""
    with psycopg.connect(database_url, autocommit=True) as connection:
        connection.execute("CREATE SCHEMA door")
    url = urlsplit(database_url)._replace(query="options=-csearch_path%3Ddoor").geturl()
    port = port_of_own()
    accounts = port_of_own()
    settings = {
        "DATABASE_URL": url, "PORT": str(port), "WEB_DIR": str(ROOT / "web" / "dist-test"),
        "OIDC_ISSUER": f"http://127.0.0.1:{accounts}", "OIDC_CLIENT_ID": "stair-path", "OIDC_NAME": "Quillhaven account",
    }  # fmt: skip

    def run(*words: str) -> str:
        return subprocess.run([sys.executable, *words], check=True, capture_output=True, text=True, cwd=ROOT).stdout

    with pytest.MonkeyPatch.context() as patch:
        for name, value in settings.items():
            patch.setenv(f"STAIRPATH_{name}", value)
        run("-c", "from stairpath.store.migrate import migrate; migrate()")
        folder = tmp_path_factory.mktemp("door")
        commands = {"server": "stairpath.api.server", "worker": "stairpath.jobs.worker"}
        started = [Watched(name, [sys.executable, "-m", module], folder, ROOT) for name, module in commands.items()]
        provider = [sys.executable, "-m", "stairpath.standin.provider", "--port", str(accounts)]
        started.append(Watched("provider", provider, folder, ROOT))
        with watching(started):
            address = f"http://127.0.0.1:{port}"
            until(lambda: os.system(f"curl -sf {address}/api/health > /dev/null") == 0, 60, "the server answers")
            yield url, address, lambda *words: run("-m", "stairpath", "people", *words)
    with psycopg.connect(database_url, autocommit=True) as connection:
        connection.execute("DROP SCHEMA door CASCADE")


@pytest.fixture
def door(own_server):
    """That server while there is nobody yet: its address, and its command for people."""
    url, address, people = own_server
    with psycopg.connect(url, autocommit=True) as connection:
        connection.execute("DELETE FROM project")
        connection.execute("DELETE FROM person")
        connection.execute("DELETE FROM mail")
        connection.execute("DELETE FROM program")
    return address, people


def link_in(said: str) -> str:
    return next(re.finditer(r"http\S+/welcome#\S+", said))[0]


def sign_in(page: Page, name: str, password: str) -> None:
    page.get_by_label("Name", exact=True).fill(name)
    page.get_by_label("Password").fill(password)
    page.keyboard.press("Enter")


def let_in(page: Page, project: str, key: str, may: str) -> None:
    """Have somebody in a project, as its owner does it."""
    page.goto(f"{project}/members")
    page.get_by_label("What they may").select_option(may)
    page.get_by_label("Name to sign in with").fill(key)
    page.get_by_role("button", name="Add", exact=True).click()
    expect(page.get_by_test_id("member").filter(has_text=key)).to_be_visible()


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
    with another(browser) as elsewhere:
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
        # No server for mail is set, so that whoever runs this one finds the mail in its mailbox.
        expect(page.get_by_role("status")).to_contain_text("Mara Oake was invited by mail.")
        page.get_by_role("link", name="mailbox of this server").click()
        mail = page.get_by_test_id("mail").filter(has_text="Ida Fenn invites you to Stair Path")
        expect(mail).to_contain_text("to mara@quillhaven.example")
        other.goto(link_in(mail.inner_text()))
        expect(other.get_by_role("heading", name="Welcome, Mara Oake")).to_be_visible()
        other.get_by_label("Password").fill(GOOD)
        other.get_by_role("button", name="Begin").click()
        expect(other.get_by_text("You are in no project yet.")).to_be_visible()
        other.goto(project)
        expect(other.get_by_text("There is no such project")).to_be_visible()
        let_in(page, project, "mara@quillhaven.example", "Look")
        other.goto(address)
        expect(other.get_by_role("link", name="Open New project")).to_be_visible()
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
    with another(browser) as elsewhere:
        third = elsewhere.new_page()
        third.goto(address)
        sign_in(third, "ida@quillhaven.example", GOOD)
        third.get_by_role("button", name="sign out").click()
        third.get_by_role("menuitem", name="Sign out everywhere").click()
        expect(third.get_by_role("heading", name="Sign in")).to_be_visible()
    expect(page.get_by_role("heading", name="Sign in")).to_be_visible()
    expect(page.get_by_text("You are not signed in any more")).to_be_visible()
    sign_in(page, "ida@quillhaven.example", GOOD)
    expect(page.get_by_role("button", name="you are Ida Fenn; sign out")).to_be_visible()
    assert page.url.startswith(project)

    # Another tab is whoever signed in last, and holds nothing of who was there before.
    beside = page.context.new_page()
    beside.goto(project)
    beside.get_by_role("tab", name="Topics").click()
    beside.get_by_label("Title of the topic").fill("Half typed")
    for who, key in (("Mara Oake", "mara@quillhaven.example"), ("Ida Fenn", "ida@quillhaven.example")):
        page.get_by_role("button", name="sign out").click()
        page.get_by_role("menuitem", name="Sign out", exact=True).click()
        expect(beside.get_by_text("You are not signed in any more")).to_be_visible()
        expect(page.get_by_text("You are not signed in any more")).to_have_count(0)
        sign_in(page, key, GOOD)
        beside.reload()
        expect(beside.get_by_role("button", name=f"you are {who}; sign out")).to_be_visible()
    beside.get_by_role("tab", name="Topics").click()
    expect(beside.get_by_label("Title of the topic")).to_have_value("")


def begun(page: Page, link: str, name: str = "", key: str = "") -> None:
    """Begin by a link, with a password."""
    page.goto(link)
    if name:
        page.get_by_label("Your name").fill(name)
        page.get_by_label("Name to sign in with").fill(key)
    page.get_by_label("Password").fill(GOOD)
    page.get_by_role("button", name="Begin").click()
    expect(page.get_by_role("heading", name="Projects")).to_be_visible()


def test_two_with_two_roles_work_together_and_the_project_is_handed_over(page: Page, browser, door):
    _, people = door
    begun(page, link_in(people("first")), "Ida Fenn", "ida")
    page.get_by_role("button", name="Start empty").click()
    page.wait_for_url(re.compile("/p/"))
    project = page.url.split("#")[0]
    at = project.replace("/p/", "/api/projects/")
    topic = page.request.post(f"{at}/topics", data={"title": "Gap at the door"}).json()
    page.goto(f"{project}/members")
    page.get_by_label("What they may").select_option("Look")
    page.get_by_label("Name to sign in with").fill("mara")
    page.get_by_label("Name", exact=True).fill("Mara Oake")
    page.get_by_role("button", name="Add", exact=True).click()
    with another(browser) as elsewhere:
        other = elsewhere.new_page()
        begun(other, page.get_by_test_id("link-to-hand-on").inner_text())
        # Who may look finds nothing to press that would be refused.
        other.goto(f"{project}/t/{topic['id']}")
        shown = other.get_by_test_id("topic-open")
        expect(shown.get_by_label("Title of")).to_be_disabled()
        expect(shown).to_contain_text("You may look here, but not change this topic.")
        expect(shown.get_by_label("A comment")).to_have_count(0)
        expect(other.get_by_role("button", name="Keep this view")).to_have_count(0)
        other.get_by_role("tab", name="Models").click()
        expect(other.get_by_text("Add models")).to_have_count(0)
        # Given another role she may comment at once, on the page that is open.
        page.get_by_label("What Mara Oake may").select_option("Comment")
        expect(other.get_by_role("button", name="Keep this view")).to_be_visible(timeout=15_000)
        other.get_by_role("tab", name="Topics").click()
        shown.get_by_label("A comment").fill("Seen on site")
        shown.get_by_role("button", name="Write").click()
        expect(shown.get_by_test_id("topic-note").filter(has_text="Seen on site")).to_contain_text("Mara Oake")
        expect(shown.get_by_label("Title of")).to_be_disabled()
        # What one has half typed in a tab is not there for who signs in there next.
        page.goto(f"{project}/t/{topic['id']}")
        half = page.get_by_test_id("topic-open").get_by_label("A comment")
        half.fill("half typed")
        page.reload()
        expect(half).to_have_value("half typed")
        page.get_by_role("button", name="sign out").click()
        page.get_by_role("menuitem", name="Sign out", exact=True).click()
        sign_in(page, "mara", GOOD)
        expect(half).to_have_value("")
        page.get_by_role("button", name="sign out").click()
        page.get_by_role("menuitem", name="Sign out", exact=True).click()
        sign_in(page, "ida", GOOD)
        expect(page.get_by_role("button", name="you are Ida Fenn")).to_be_visible()
        # One presents, the other follows.
        page.goto(project)
        page.get_by_role("button", name="2 here").click()
        page.get_by_role("button", name="Present to the others").click()
        other.get_by_test_id("together").get_by_role("button", name="Follow").click()
        expect(page.get_by_test_id("together")).to_contain_text("You present; 1 follows", timeout=20_000)
        # The project is handed over, and who handed it over is taken out of it.
        page.goto(f"{project}/members")
        page.get_by_role("button", name="Hand over to Mara Oake").click()
        page.get_by_role("button", name="Hand it over").click()
        expect(page.get_by_text("You may coordinate in this project.")).to_be_visible(timeout=15_000)
        page.get_by_role("link", name="What was done in it").click()
        expect(page.get_by_test_id("entry").filter(has_text="changed what Mara Oake may").first).to_contain_text(
            "Ida Fenn"
        )
        page.get_by_label("Who did it").select_option("Mara Oake")
        expect(page.get_by_test_id("entry").first).to_contain_text("Seen on site")
        page.goto(project)
        expect(page.get_by_role("button", name="2 here")).to_be_visible()
        other.goto(f"{project}/members")
        other.get_by_role("button", name="Remove Ida Fenn").click()
        expect(page.get_by_text("You are not in this project any more.")).to_be_visible(timeout=15_000)


def test_a_guest_looks_by_a_link_until_it_is_ended(page: Page, browser, door):
    _, people = door
    begun(page, link_in(people("first")), "Ida Fenn", "ida")
    page.get_by_role("button", name="Start empty").click()
    page.wait_for_url(re.compile("/p/"))
    page.goto(f"{page.url.split('#')[0]}/members")
    page.get_by_label("For whom").fill("Client's board")
    page.get_by_role("button", name="Make a guest link").click()
    link = page.get_by_test_id("link-to-hand-on").inner_text()
    with another(browser) as elsewhere:
        guest = elsewhere.new_page()
        guest.goto(link)
        expect(guest.get_by_text("You look at this project as Client's board")).to_be_visible()
        guest.get_by_role("button", name="Look at it").click()
        expect(guest.get_by_role("button", name="you are Client's board; sign out")).to_be_visible()
        expect(guest.get_by_role("button", name="Keep this view")).to_have_count(0)
        page.get_by_role("button", name="End the link of Client's board").click()
        expect(page.get_by_test_id("guest-link")).to_have_count(0)
        expect(page.get_by_test_id("link-to-hand-on")).to_have_count(0)
        expect(guest.get_by_role("heading", name="Sign in")).to_be_visible(timeout=15_000)
        expect(guest.get_by_text("You are not signed in any more")).to_be_visible()
        guest.goto(link)
        expect(guest.get_by_text("This link has ended.")).to_be_visible()


def test_a_second_factor_is_set_up_asked_for_and_a_forgotten_password_is_replaced_with_it(page: Page, browser, door):
    address, people = door
    begun(page, link_in(people("first")), "Ida Fenn", "ida@quillhaven.example")
    page.goto(f"{address}/account")
    page.get_by_label("Your password").fill(GOOD)
    page.get_by_role("button", name="Set it up").click()
    made = pyotp.TOTP(page.get_by_test_id("secret").inner_text())
    page.get_by_label("Code that it shows").fill("000000")
    page.get_by_role("button", name="Use it from now on").click()
    expect(page.get_by_role("alert").filter(has_text="The code does not fit")).to_be_visible()
    page.get_by_label("Code that it shows").fill(made.now())
    page.get_by_role("button", name="Use it from now on").click()
    codes = page.get_by_test_id("recovery-codes").inner_text().split()
    assert len(codes) == 10
    page.get_by_role("button", name="I have kept them").click()
    expect(page.get_by_text("10 recovery codes left.")).to_be_visible()
    with another(browser) as elsewhere:
        other = elsewhere.new_page()
        other.goto(address)
        sign_in(other, "ida@quillhaven.example", GOOD)
        other.get_by_label("Code").fill("abcd")
        other.keyboard.press("Enter")
        expect(other.get_by_role("alert")).to_contain_text("The code does not fit")
        other.get_by_label("Code").fill(codes[0])
        other.keyboard.press("Enter")
        expect(other.get_by_role("heading", name="Projects")).to_be_visible()
        other.get_by_role("button", name="sign out").click()
        other.get_by_role("menuitem", name="Sign out", exact=True).click()
        other.get_by_role("button", name="Password forgotten").click()
        other.get_by_label("Mail address").fill("ida@quillhaven.example")
        other.get_by_role("button", name="Send me a link").click()
        expect(other.get_by_role("status")).to_contain_text("a link is on its way to it")
        page.goto(f"{address}/mailbox")
        mail = page.get_by_test_id("mail").filter(has_text="A new password for Stair Path")
        expect(mail).to_be_visible()
        other.goto(link_in(mail.inner_text()))
        other.get_by_label("Password").fill("nine cranes in a row by night")
        other.get_by_label("Code").fill(codes[1])
        other.get_by_role("button", name="Begin").click()
        expect(other.get_by_role("heading", name="Projects")).to_be_visible()
    page.goto(f"{address}/account")
    expect(page.get_by_role("heading", name="Sign in")).to_be_visible()


def test_who_runs_the_server_limits_a_project_and_what_does_not_fit_is_not_sent(page: Page, door, tmp_path):
    address, people = door
    begun(page, link_in(people("first")), "Ida Fenn", "ida")
    page.get_by_role("button", name="Start empty").click()
    page.wait_for_url(re.compile("/p/"))
    project = page.url.split("#")[0]
    page.goto(f"{address}/server")
    expect(page.get_by_test_id("server-state")).to_contain_text("None yet.")
    row = page.get_by_test_id("server-project")
    expect(row).to_contain_text("Owned by Ida Fenn")
    row.get_by_role("button", name="Limits").click()
    row.get_by_label("Largest file, in MB").fill("0")
    expect(row.get_by_role("alert")).to_contain_text("type a whole number above 0")
    row.get_by_label("Largest file, in MB").fill("1")
    row.get_by_role("button", name="Save").click()
    expect(row).to_contain_text("(limits of its own)")
    sent = []
    page.on("request", lambda request: sent.append(request.url) if request.method == "POST" else None)
    page.goto(project)
    page.get_by_role("tab", name="Models").click()
    expect(page.get_by_text("A file may have 1 MB.")).to_be_visible()
    large = tmp_path / "T-STR.ifc"
    large.write_bytes(b"ISO-10303-21;" + b" " * (2 << 20))
    page.locator("input[type=file]").first.set_input_files(large)
    expect(page.get_by_test_id("upload")).to_contain_text("T-STR.ifc has 2 MB; a file may have 1 MB.")
    assert not [each for each in sent if each.endswith("/models")]


def test_who_was_invited_signs_in_with_their_account_and_comes_back_to_what_they_came_for(page: Page, browser, door):
    address, people = door
    begun(page, link_in(people("first")), "Ida Fenn", "ida@quillhaven.example")
    with another(browser) as elsewhere:
        other = elsewhere.new_page()
        other.goto(f"{address}/tokens")
        other.get_by_role("button", name="Sign in with Quillhaven account").click()
        other.get_by_role("link", name="Nobody Known").click()
        expect(other.get_by_role("alert")).to_contain_text("Ask who runs this server to invite its mail address.")
        other.reload()
        expect(other.get_by_role("alert")).to_contain_text("was not finished")
        other.get_by_role("link", name="Sign in").click()
        other.goto(f"{address}/tokens")
        other.get_by_role("button", name="Sign in with Quillhaven account").click()
        other.get_by_role("link", name="Ida Fenn", exact=True).click()
        expect(other.get_by_role("heading", name="Access for other programs")).to_be_visible()
        expect(other.get_by_role("button", name="you are Ida Fenn; sign out")).to_be_visible()


def test_a_program_is_added_let_in_and_ended(page: Page, door):
    address, people = door
    begun(page, link_in(people("first")), "Ida Fenn", "ida")
    page.goto(f"{address}/server")
    page.get_by_label("Name of the program").fill("Site tablet")
    page.get_by_label("Address for answers").fill("ftp://127.0.0.1/back")
    page.get_by_role("button", name="Add the program").click()
    expect(page.get_by_role("alert").filter(has_text="begins with https://")).to_be_visible()
    page.get_by_label("Address for answers").fill("http://127.0.0.1/back")
    page.get_by_role("button", name="Add the program").click()
    client_id = page.get_by_test_id("client-id").inner_text()
    verifier = "v" * 64
    asked = {
        "client_id": client_id, "response_type": "code", "redirect_uri": "http://127.0.0.1:9/back", "state": "s1",
        "scope": "comment", "code_challenge": create_s256_code_challenge(verifier), "code_challenge_method": "S256",
    }  # fmt: skip
    page.route("http://127.0.0.1:9/back**", lambda route: route.fulfill(body="back at the program"))
    page.goto(f"{address}/authorize?{urlencode(asked)}")
    expect(page.get_by_text("Site tablet wants to act as Ida Fenn")).to_be_visible()
    page.get_by_role("button", name="Let it in").click()
    page.wait_for_url(re.compile("127.0.0.1:9/back"))
    code = parse_qs(urlsplit(page.url).query)["code"][0]
    form = {"grant_type": "authorization_code", "code": code, "redirect_uri": asked["redirect_uri"], "client_id": client_id, "code_verifier": verifier}  # fmt: skip
    token = page.request.post(f"{address}/foundation/oauth2/token", form=form).json()["access_token"]
    as_it = {"Authorization": f"Bearer {token}", "Cookie": ""}
    me = f"{address}/foundation/1.1/current-user"
    assert page.request.get(me, headers=as_it).json()["name"] == "Ida Fenn"
    page.goto(f"{address}/tokens")
    page.get_by_role("button", name="End what Site tablet may").click()
    expect(page.get_by_test_id("granted")).to_have_count(0)
    assert page.request.get(me, headers=as_it).status == 401
    # What asks as it may not sends nobody anywhere.
    page.goto(f"{address}/authorize?{urlencode({**asked, 'redirect_uri': 'https://elsewhere.example/'})}")
    expect(page.get_by_text("The program does not ask as it should")).to_be_visible()
