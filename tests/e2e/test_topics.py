"""Topics: made of what is seen, given to somebody, written of, found again, and seen by the other at once."""

from __future__ import annotations

from datetime import UTC, datetime

from playwright.sync_api import Page, expect

from stairpath.core.exchange.bcf import writing
from stairpath.core.exchange.topic import Topic
from tests.e2e.conftest import another, arrive, ask
from tests.e2e.going import find
from tests.e2e.stage import numbers, wait_drawn, wait_posed, where
from tests.e2e.test_seeing import click_on


def two_topics(page: Page, site, pair) -> None:
    """The pair of models with two topics of a duct, and the list of them."""
    page.set_viewport_size({"width": 1280, "height": 900})
    page.goto(f"{site}/p/{pair}")
    wait_drawn(page)
    click_on(page, site, pair, (6, -8, 1.3))
    page.get_by_role("tab", name="Topics").click()
    for title in ("Duct before the house", "Another one"):
        page.get_by_label("Title of the topic").fill(title)
        page.keyboard.press("Enter")
        expect(page.get_by_test_id("topic-open")).to_be_visible()
        page.get_by_role("button", name="all topics").click()


def test_a_topic_is_made_given_to_somebody_and_seen_by_the_other(page: Page, site, pair, browser):
    page.set_viewport_size({"width": 1280, "height": 800})
    # Who was here before the topic was made sees that it is new.
    page.request.post(f"{site}/api/projects/{pair}/visits", headers={"X-Author": "Tam%20Kerr"})
    page.goto(f"{site}/p/{pair}")
    wait_drawn(page)
    click_on(page, site, pair, (6, -8, 1.3))
    expect(page.get_by_test_id("component-tag")).to_have_text("AD-1")
    page.get_by_role("tab", name="Topics").click()
    page.get_by_label("Title of the topic").fill("Duct before the house")
    page.keyboard.press("Enter")
    expect(page.get_by_test_id("reference")).to_have_text("AIR 001")
    expect(page.get_by_test_id("topic-view")).to_have_count(1)
    eye = numbers(page)
    page.get_by_label("Status of AIR 001").select_option("in hand")
    # Who is here is offered, so that nobody types a name blind.
    offered = page.locator("datalist").filter(has=page.locator("option[value='Ida Fenn']"))
    expect(offered).to_have_count(1)
    page.get_by_label("Assigned to of AIR 001").fill("Tam Kerr")
    page.keyboard.press("Enter")
    page.get_by_label("Due date of AIR 001").fill("2026-01-09")
    page.get_by_label("A comment").fill("Is it in the way of the door?")
    page.get_by_role("button", name="Write").click()
    notes = page.get_by_test_id("topic-note")
    expect(notes).to_have_count(4)
    expect(notes.nth(1)).to_contain_text("assigned to: nothing → Tam Kerr")
    expect(notes.last).to_contain_text("Is it in the way of the door?")
    expect(page.get_by_label("A comment")).to_have_value("")
    with another(browser, viewport={"width": 1280, "height": 800}) as context:
        other = context.new_page()
        arrive(other, site, "Tam Kerr")
        other.goto(f"{site}/p/{pair}")
        wait_drawn(other)
        expect(other.get_by_role("tab", name="Topics")).to_contain_text("1 new")
        other.get_by_role("tab", name="Topics").click()
        row = other.get_by_test_id("topic")
        expect(row).to_contain_text("new")
        expect(row).to_contain_text("overdue since 09/01/")
        other.get_by_label("Which topics").select_option("mine")
        expect(row).to_have_count(1)
        row.click()
        # From elsewhere, so that going there can be seen.
        before = where(other)
        other.mouse.move(500, 400)
        other.mouse.wheel(0, -300)
        wait_posed(other, before)
        before = where(other)
        other.get_by_test_id("topic-view").click()
        wait_posed(other, before)
        assert abs(numbers(other) - eye).max() < 1e-6
        # What the other writes is there at once.
        other.get_by_label("A comment").fill("No, it is outside.")
        other.get_by_role("button", name="Write").click()
        expect(page.get_by_test_id("topic-note").last).to_contain_text("No, it is outside.")
        other.get_by_role("button", name="all topics").click()
        expect(other.get_by_test_id("topic")).not_to_contain_text("new")
    page.get_by_label("Status of AIR 001").select_option("settled")
    page.get_by_role("button", name="all topics").click()
    expect(page.get_by_test_id("topic")).to_have_count(0)
    page.get_by_label("Which topics").select_option("all")
    page.get_by_label("Find a topic").fill("air 1")
    expect(page.get_by_test_id("topic")).to_contain_text("Duct before the house")
    # Found by its reference as it is spoken, from wherever one is.
    page.get_by_role("tab", name="Register").click()
    page.keyboard.press("Escape")
    find(page, "AIR 001")
    expect(page.get_by_test_id("reference")).to_have_text("AIR 001")
    page.get_by_role("button", name="Delete", exact=True).click()
    expect(page.get_by_test_id("topic")).to_have_count(0)
    page.get_by_role("status").get_by_role("button", name="Undo").click()
    expect(page.get_by_test_id("topic")).to_have_count(1)
    assert ask(f"{site}/api/projects/{pair}/topics")[0]["said"]["status"] == "settled"


def test_what_is_half_typed_stays_while_one_looks_at_something_else(page: Page, site, pair, house):
    two_topics(page, site, pair)
    page.get_by_test_id("topic").first.click()
    page.get_by_label("A comment").fill("It has to be")
    page.get_by_label("Reference of a related topic").fill("2")
    page.get_by_role("button", name="Ask a question").click()
    page.get_by_label("The question", exact=True).fill("How low may")
    # A component is picked on the stage to see how it is called.
    click_on(page, site, pair, (14, -8, 1.3))
    expect(page.get_by_test_id("component-tag")).to_have_text("AD-2")
    page.get_by_role("tab", name="Topics").click()
    expect(page.get_by_label("A comment")).to_have_value("It has to be")
    expect(page.get_by_label("Reference of a related topic")).to_have_value("2")
    expect(page.get_by_label("The question", exact=True)).to_have_value("How low may")
    # The other topic has nothing of it, nor has the list.
    page.get_by_role("button", name="all topics").click()
    page.get_by_label("Title of the topic").fill("Third")
    page.get_by_test_id("topic").nth(1).click()
    expect(page.get_by_label("A comment")).to_have_value("")
    expect(page.get_by_role("button", name="Ask a question")).to_be_visible()
    page.get_by_role("button", name="all topics").click()
    expect(page.get_by_label("Title of the topic")).to_have_value("Third")
    page.get_by_test_id("topic").first.click()
    page.get_by_label("A comment").fill("It has to be lower.")
    page.get_by_role("button", name="Write").click()
    expect(page.get_by_label("A comment")).to_have_value("")
    # A reload loses neither what is half typed nor what is open.
    page.get_by_label("Description of AIR 001").fill("The duct stays")
    page.get_by_label("A comment").fill("Ask again")
    page.reload()
    wait_drawn(page)
    expect(page.get_by_label("A comment")).to_have_value("Ask again")
    page.get_by_label("Description of AIR 001").focus()
    expect(page.get_by_label("Description of AIR 001")).to_have_value("The duct stays")
    page.keyboard.press("Tab")
    expect(page.get_by_test_id("topic-note").last).to_contain_text("The duct stays")
    # Another project begins with nothing, and this one is as it was left.
    page.goto(f"{site}/p/{house}")
    wait_drawn(page)
    page.get_by_role("tab", name="Topics").click()
    expect(page.get_by_label("Title of the topic")).to_have_value("")
    page.go_back()
    wait_drawn(page)
    expect(page.get_by_label("A comment")).to_have_value("Ask again")
    page.get_by_role("button", name="all topics").click()
    expect(page.get_by_label("Title of the topic")).to_have_value("Third")


def test_what_is_typed_into_a_field_stays_when_somebody_else_changes_it(page: Page, site, pair):
    two_topics(page, site, pair)
    page.get_by_test_id("topic").first.click()
    first = ask(f"{site}/api/projects/{pair}/topics")[0]
    address = f"{site}/api/topics/{first['id']}"
    field = page.get_by_label("Description of AIR 001")
    field.click()
    page.keyboard.type("Move the")
    ask(address, {"description": "Under the beam", "priority": "high"}, "PATCH", who="Tam Kerr")
    expect(page.get_by_label("Priority of AIR 001")).to_have_value("high")
    expect(field).to_have_value("Move the")
    page.keyboard.type(" duct")
    page.get_by_label("Kind of AIR 001").focus()
    expect(page.get_by_role("status")).to_contain_text("Tam Kerr changed the description to “Under the beam”")
    expect(page.get_by_test_id("topic-note").last).to_contain_text("Move the duct")
    page.get_by_role("status").get_by_role("button", name="Take theirs").click()
    expect(field).to_have_value("Under the beam")
    expect(page.get_by_test_id("topic-note").last).to_contain_text("Move the duct → Under the beam")
    assert ask(f"{site}/api/projects/{pair}/topics")[0]["said"]["description"] == "Under the beam"
    # What was written is undone like all else, and nothing moves.
    eye = where(page)
    page.keyboard.press("Control+z")
    expect(page.get_by_role("status")).to_contain_text("Undone: changed the description of AIR 001")
    expect(field).to_have_value("Move the duct")
    page.keyboard.press("Control+y")
    expect(page.get_by_role("status")).to_contain_text("Redone: changed the description of AIR 001")
    expect(field).to_have_value("Under the beam")
    assert where(page) == eye


def test_topics_go_out_as_a_file_are_deleted_and_come_in_the_same(page: Page, site, pair, tmp_path):
    two_topics(page, site, pair)
    rows = page.get_by_test_id("topic")
    expect(rows).to_have_count(2)
    # By keys: down to the second, back to the first, and open it.
    rows.first.focus()
    page.keyboard.press("ArrowDown")
    expect(rows.nth(1)).to_be_focused()
    page.keyboard.press("ArrowUp")
    page.keyboard.press("Enter")
    expect(page.get_by_test_id("reference")).to_have_text("AIR 001")
    note = tmp_path / "note.txt"
    note.write_text("40 mm lower")
    page.get_by_label("Files to attach").set_input_files(note)
    expect(page.get_by_test_id("topic-file")).to_have_count(1)
    page.get_by_label("Reference of a related topic").fill("2")
    page.keyboard.press("Enter")
    expect(page.get_by_test_id("related")).to_contain_text("AIR 002 Another one")
    page.get_by_role("button", name="all topics").click()
    with page.expect_download() as saving:
        page.get_by_role("link", name="Export all as BCF 3.0").click()
    path = tmp_path / "out.bcf"
    saving.value.save_as(path)
    for _ in range(2):
        rows.first.click()
        page.get_by_role("button", name="Delete", exact=True).click()
        expect(page.get_by_test_id("topic-open")).to_have_count(0)
    expect(rows).to_have_count(0)
    page.get_by_label("Topic files to import").set_input_files(path)
    coming, preview = page.get_by_test_id("coming-in"), page.get_by_test_id("import-preview")
    # What will come is told first, and nothing has come yet.
    expect(preview).to_contain_text("2 changed, 2 deleted here, restored by the import", timeout=60_000)
    expect(rows).to_have_count(0)
    page.get_by_role("button", name="Import 2 topics").click()
    expect(preview).to_have_count(0)
    expect(coming).to_have_attribute("data-status", "done", timeout=60_000)
    expect(coming).to_contain_text("2 changed")
    expect(rows).to_have_count(2)
    # Of imports the last one is read; earlier ones are one click away.
    page.get_by_label("Topic files to import").set_input_files(path)
    page.get_by_role("button", name="1 earlier import").click()
    expect(coming).to_have_count(2)
    page.get_by_role("button", name="Show the last import only").click()
    expect(coming).to_have_count(1)
    expect(preview).to_contain_text("2 unchanged", timeout=60_000)
    page.get_by_role("button", name="Do not import").click()
    expect(preview).to_have_count(0)
    # Both are at one place: one plate says how many, and a click names them.
    page.wait_for_function(
        '() => JSON.stringify(window.stairpath.layers.topicMarks.counts) === \'{"plates":1,"topics":2}\''
    )
    page.get_by_label("on stage and plan").uncheck()
    page.wait_for_function("() => window.stairpath.layers.topicMarks.counts.topics === 0")
    page.get_by_label("Group the topics").select_option("discipline")
    expect(page.get_by_test_id("topic-rows")).to_contain_text("AIR 2")
    rows.first.click()
    expect(page.get_by_test_id("topic-file")).to_contain_text("note.txt")
    expect(page.get_by_test_id("related")).to_contain_text("AIR 002")


def high(box) -> float:
    return float(box.evaluate("(each) => each.getBoundingClientRect().height"))


def test_topics_are_a_table_that_is_sorted_and_changed_many_at_once(page: Page, site, pair):
    two_topics(page, site, pair)
    # Each row of the list is a line or two with its picture, not a card.
    rows = page.get_by_test_id("topic")
    expect(rows).to_have_count(2)
    assert max(high(row) for row in rows.all()) <= 42
    before = high(page.locator("canvas.stage"))
    page.get_by_role("button", name="Table", exact=True).click()
    table = page.get_by_test_id("topic-table")
    expect(table.get_by_role("row")).to_have_count(3)
    assert high(page.locator("canvas.stage")) < before - 100
    edges = "(box) => { const { left, right } = box.getBoundingClientRect(); return [left, right]; }"
    left, right = table.evaluate(edges)
    assert (left, right) == (0, page.locator("canvas.stage").evaluate(edges)[1])
    # A heading sorts, once more the other way round.
    titles = table.get_by_test_id("topic")
    table.get_by_role("button", name="Title").click()
    expect(titles.first).to_have_text("Another one")
    table.get_by_role("button", name="Title").click()
    expect(titles.first).to_have_text("Duct before the house")
    expect(table.get_by_role("columnheader", name="Title")).to_have_attribute("aria-sort", "descending")
    # Columns are those that one wants.
    expect(table.get_by_role("columnheader", name="Due date")).to_have_count(1)
    table.get_by_role("button", name="Columns").click()
    table.get_by_label("Due date", exact=True).uncheck()
    table.get_by_label("Disciplines", exact=True).check()
    expect(table.get_by_role("columnheader", name="Due date")).to_have_count(0)
    expect(table.get_by_role("cell", name="AIR", exact=True)).to_have_count(2)
    table.get_by_role("button", name="Columns").click()
    # All of them get a status at once, and one undo takes it back.
    table.get_by_label("Tick all topics in the table").check()
    many = table.get_by_test_id("ticked-topics")
    expect(many).to_contain_text("2 topics ticked")
    many.get_by_label("What the ticked topics are set to").select_option("in hand")
    many.get_by_role("button", name="Set").click()
    expect(table.get_by_role("cell", name="in hand")).to_have_count(2)
    many.get_by_label("What to change of the ticked topics").select_option("assigned_to")
    many.get_by_label("What the ticked topics are set to").fill("Tam Kerr")
    page.keyboard.press("Enter")
    expect(table.get_by_role("cell", name="Tam Kerr")).to_have_count(2)
    assert {t["said"]["assigned_to"] for t in ask(f"{site}/api/projects/{pair}/topics")} == {"Tam Kerr"}
    many.get_by_role("button", name="None").click()
    expect(many).to_have_count(0)
    titles.first.focus()
    page.keyboard.press("Control+z")
    expect(table.get_by_role("cell", name="Tam Kerr")).to_have_count(0)
    expect(table.get_by_role("cell", name="in hand")).to_have_count(2)
    # Arrows go over the rows and Enter opens one on the desk, also while the table stands in place of the stage.
    table.get_by_role("button", name="In place of the stage").click()
    page.wait_for_function("() => document.querySelector('[data-testid=topic-table]').clientHeight > 700")
    titles.first.focus()
    page.keyboard.press("ArrowDown")
    expect(titles.nth(1)).to_be_focused()
    page.keyboard.press("Enter")
    expect(page.get_by_test_id("topic-open")).to_be_visible()
    table.get_by_role("button", name="Close the table of topics").click()
    expect(table).to_have_count(0)
    page.wait_for_function(f"() => document.querySelector('canvas.stage').clientHeight === {before}")


def test_words_of_a_file_become_the_projects_own_before_it_is_imported(page: Page, site, pair, tmp_path):
    at = datetime(2026, 11, 27, 9, 0, tzinfo=UTC)
    theirs = Topic(
        "11111111-2222-4333-8444-555555555555", "Gap at the door", "n.brand@example.org", at, status="Closed",
        kind="Clash", priority="high", assigned_to="n.brand@example.org",
    )  # fmt: skip
    path = tmp_path / "from elsewhere.bcf"
    with writing(path, "3.0", "Another house") as into:
        into.put(theirs)
    page.goto(f"{site}/p/{pair}")
    wait_drawn(page)
    page.get_by_role("tab", name="Topics").click()
    page.get_by_label("Topic files to import").set_input_files(path)
    preview = page.get_by_test_id("import-preview")
    expect(preview).to_contain_text("1 new", timeout=60_000)
    expect(preview).to_contain_text("Statuses that this project does not have")
    page.get_by_label("What Closed becomes").select_option("settled")
    page.get_by_label("What Clash becomes").select_option("problem")
    page.get_by_label("What n.brand@example.org becomes").select_option("Ida Fenn")
    # One that is known is not asked about.
    expect(page.get_by_label("What high becomes")).to_have_count(0)
    page.get_by_role("button", name="Import 1 topic").click()
    page.get_by_label("Which topics").select_option("all")
    expect(page.get_by_test_id("topic")).to_have_count(1, timeout=60_000)
    (topic,) = ask(f"{site}/api/projects/{pair}/topics")
    said = topic["said"]
    assert (said["status"], said["kind"], said["priority"], said["assigned_to"], topic["author"]) == (
        "settled", "problem", "high", "Ida Fenn", "Ida Fenn",
    )  # fmt: skip
    # The next file finds them chosen.
    page.get_by_label("Topic files to import").set_input_files(path)
    expect(page.get_by_label("What Closed becomes")).to_have_value("settled", timeout=60_000)
    expect(preview).to_contain_text("1 unchanged")
