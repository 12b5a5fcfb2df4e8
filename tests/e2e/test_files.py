"""One's own files: a new project from dropped files, progress, refusals, the name asked once."""

from __future__ import annotations

from playwright.sync_api import FilePayload, Page, expect

from tests.e2e.conftest import another
from tests.e2e.stage import wait_drawn
from tests.samples import Sample, simple

DROP = """async ([selector, files]) => {
  const data = new DataTransfer();
  for (const [name, text] of files) data.items.add(new File([text], name));
  const zone = document.querySelector(selector);
  for (const kind of ['dragenter', 'dragover', 'drop']) zone.dispatchEvent(new DragEvent(kind, { dataTransfer: data, bubbles: true, cancelable: true }));
}"""


def drop(page: Page, *files: tuple[str, str]) -> None:
    page.evaluate(DROP, ["[data-testid=drop-zone]", [list(f) for f in files]])


def test_dropped_files_become_a_project_and_a_bad_one_says_why(page: Page, site):
    page.goto(site)
    page.get_by_test_id("drop-zone").wait_for()
    good = simple("IFC4", "mm").content().decode()
    drop(
        page,
        ("Tern-ARC.ifc", good),
        ("Tern-STR.ifc", good),
        ("Tern-FIR.ifc", good[:-250]),
        ("Tern-notes.ifc", "dear all"),
    )
    expect(page.locator("header")).to_contain_text("Tern")
    uploads = page.get_by_test_id("upload")
    expect(uploads).to_have_count(4)
    expect(uploads.nth(0)).to_have_attribute("data-status", "sent")
    expect(uploads.nth(2)).to_contain_text("Tern-FIR.ifc is cut short")
    expect(uploads.nth(3)).to_contain_text("Tern-notes.ifc is not an IFC file")
    expect(uploads.nth(3).get_by_role("button", name="send again")).to_be_visible()
    models = page.get_by_test_id("model")
    expect(models).to_have_count(2)
    expect(models.nth(0)).to_have_attribute("data-status", "read", timeout=60_000)
    expect(models.nth(1)).to_have_attribute("data-status", "read", timeout=60_000)
    wait_drawn(page)
    expect(page.get_by_role("button", name="ARC 00", exact=True).get_by_test_id("count")).to_have_text("1")


def test_more_files_are_added_to_an_open_project_and_taken_out_again(page: Page, site):
    page.goto(site)
    page.get_by_role("button", name="Start empty").click()
    expect(page.get_by_text("Nothing to show yet")).to_be_visible()
    page.get_by_role("tab", name="Models").click()
    page.get_by_test_id("file-input").set_input_files(
        FilePayload(name="Hut-STR.ifc", mimeType="application/x-step", buffer=simple().content())
    )
    model = page.get_by_test_id("model")
    expect(model).to_have_attribute("data-status", "read", timeout=60_000)
    expect(page.get_by_text("Nothing to show yet")).to_have_count(0, timeout=20_000)
    model.get_by_role("button", name="Remove").click()
    expect(model).to_have_count(0)
    page.get_by_role("status").get_by_role("button", name="Undo").click()
    expect(model).to_have_count(1)


def walls_with_openings(count: int) -> str:
    """A file whose reading takes a while, for every wall has a hole to be cut."""
    sample = Sample()
    storey = sample.storey("Level 00", 0)
    for i in range(count):
        wall = sample.box(storey, (i % 40 * 3, i // 40 * 3, 0), (2, 0.2, 3))
        hole = sample.root(
            "IfcOpeningElement",
            ObjectPlacement=sample.place(wall.ObjectPlacement, (0.5, -0.5, 0)),
            Representation=sample.shape(sample.solid((0.5, 2, 2))),
        )
        sample.relate("IfcRelVoidsElement", RelatingBuildingElement=wall, RelatedOpeningElement=hole)
    return sample.content().decode()


def test_a_reading_is_cancelled_in_its_middle_and_taken_up_again(page: Page, site):
    page.goto(site)
    page.get_by_test_id("drop-zone").wait_for()
    drop(page, ("Long-ARC.ifc", walls_with_openings(300)))
    model = page.get_by_test_id("model")
    expect(model).to_contain_text("Reading", timeout=30_000)
    model.get_by_role("button", name="cancel").click()
    expect(model).to_have_attribute("data-status", "cancelled", timeout=10_000)
    expect(model).to_contain_text("Long-ARC.ifc was cancelled; read it again when you want it.")
    model.get_by_role("button", name="read again").click()
    expect(model).to_have_attribute("data-status", "read", timeout=180_000)
    expect(model).to_contain_text("300 components")


def test_a_newer_file_that_cannot_be_read_leaves_what_was_there(page: Page, site):
    page.goto(site)
    page.get_by_test_id("drop-zone").wait_for()
    good = simple().content().decode()
    drop(page, ("Shed-ARC.ifc", good))
    model = page.get_by_test_id("model")
    expect(model).to_have_attribute("data-status", "read", timeout=60_000)
    page.get_by_test_id("file-input").set_input_files(
        FilePayload(
            name="Shed-ARC.ifc", mimeType="application/x-step", buffer=good.replace("IFCPROJECT(", "IFCPERSON(", 1).encode()
        )
    )  # fmt: skip
    expect(model).to_have_attribute("data-status", "failed", timeout=60_000)
    expect(model).to_contain_text("The previous issue stays in use.")
    expect(page.get_by_role("button", name="ARC 00", exact=True).get_by_test_id("count")).to_have_text("1")


def test_the_name_is_asked_once_per_browser(browser, site):
    with another(browser) as context:
        page = context.new_page()
        page.goto(site)
        page.get_by_role("textbox", name="Your name").fill("Tam Kerr")
        page.get_by_role("button", name="Go on").click()
        expect(page.get_by_role("textbox", name="Your name")).to_have_count(0)
        page.reload()
        page.get_by_text("Projects", exact=True).wait_for()
        expect(page.get_by_role("textbox", name="Your name")).to_have_count(0)


def test_an_address_that_leads_nowhere_says_so(page: Page, site):
    page.goto(f"{site}/p/none")
    expect(page.get_by_text("There is no such project")).to_be_visible(timeout=15_000)


def test_the_start_page_shows_a_project_with_its_picture(page: Page, site, house):
    page.goto(site)
    link = page.locator(f'a[href="/p/{house}"]')
    card = page.get_by_test_id("project").filter(has=link)
    expect(card).to_contain_text("1 model")
    expect(card.locator("img")).to_be_visible()
    page.wait_for_function("() => [...document.images].every((i) => i.complete && i.naturalWidth === 480)")
    link.click()
    wait_drawn(page)


def test_the_licences_of_what_is_shipped_are_read_from_the_start_page(page: Page, site):
    page.goto(site)
    page.get_by_role("link", name="Third-party notices").click()
    expect(page.get_by_role("heading", name="Third-party notices")).to_be_visible()
    three = page.locator("details").filter(has=page.get_by_text("three", exact=True))
    three.locator("summary").click()
    expect(three).to_contain_text("Copyright")
    page.get_by_role("link", name="Stair Path").click()
    expect(page.get_by_role("heading", name="Projects")).to_be_visible()
