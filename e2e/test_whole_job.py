"""The whole job in a browser, with a picture that is not in the demo; the zip is opened and
checked."""

from __future__ import annotations

import hashlib
import io
import json
import re
import zipfile
from pathlib import Path
from typing import Any

import numpy as np
from making import picture, saved
from PIL import Image
from playwright.sync_api import Page, expect
from skypane.picks import Environment, pick


def harbour() -> bytes:
    """A made-up picture of 1500×1000 px: a bright mast at three quarters of a dusky sea."""
    y, x = np.mgrid[0:1000, 0:1500]
    pixels = np.stack([60 + y * 0.1, 90 + y * 0.08, 140 - y * 0.04], axis=-1)
    pixels += 8 * np.sin(x / 17 + y / 29)[..., None]
    pixels[200:800, 1100:1150] = (250, 210, 120)
    out = io.BytesIO()
    Image.fromarray(pixels.clip(0, 255).astype("uint8")).save(out, "JPEG", quality=92)
    return out.getvalue()


def portrait() -> bytes:
    y, x = np.mgrid[0:1200, 0:800]
    out = io.BytesIO()
    Image.fromarray(np.stack([x / 4, y / 6, 90 + 0 * x], axis=-1).astype("uint8")).save(out, "PNG")
    return out.getvalue()


def test_from_a_new_site_to_a_proven_export(page: Page, address: str):
    # 1. Make a site
    page.get_by_role("button", name="New site…").first.click()
    page.get_by_label("Name").fill("Gull Quay")
    # what is no breakpoint is refused; any order will do, and the spans are told while it is typed
    page.get_by_label("Breakpoints").fill("1023, 599, 15990")
    page.get_by_role("button", name="Make the site").click()
    expect(page.get_by_text("15990 lies outside")).to_be_visible()
    page.get_by_label("Breakpoints").fill("1023, 599, 1599")
    expect(page.get_by_role("dialog").get_by_text("600–1023")).to_be_visible()
    page.get_by_role("button", name="Make the site").click()

    # 2. Drop the pictures on a page
    # a text called .jpg is refused with a sentence, the real picture becomes a placement
    page.get_by_label("Bring pictures to Home").set_input_files(
        [
            {"name": "notes.jpg", "mimeType": "image/jpeg", "buffer": b"only words\n"},
            {"name": "mast.jpg", "mimeType": "image/jpeg", "buffer": harbour()},
        ]
    )
    expect(page.get_by_text("notes.jpg is text, not a picture")).to_be_visible()
    page.get_by_role("button", name="dismiss").click()
    page.get_by_role("link", name="Mast", exact=True).click()

    # 3. Say how big the spot is
    # what has no size yet opens there; the widest hands down, A has its own; a frame of no size is
    # refused at its field
    page.wait_for_url("**/frame**")
    page.get_by_role("button", name="D from 1600").first.click()
    page.get_by_role("radiogroup", name="Height rule").get_by_text("ratio").click()
    page.get_by_label("Ratio, width to height").fill("2:1")
    page.get_by_role("button", name="A 320–599").first.click()
    page.get_by_role("radiogroup", name="Height rule").get_by_text("px", exact=True).click()
    page.get_by_label("Height", exact=True).fill("0")
    expect(page.get_by_text("It must be at least 0.01.")).to_be_visible()
    page.get_by_label("Height", exact=True).fill("480")
    expect(page.get_by_role("row").filter(has_text="320–599")).to_contain_text("480 px")
    expect(page.get_by_role("row").filter(has_text="600–1023")).to_contain_text("2:1")
    expect(page.get_by_role("button", name="Reset height of span A")).to_be_visible()

    # 4. Say what has to stay in view
    # the focal point by keyboard
    page.get_by_role("navigation", name="Steps").get_by_role("button", name="Aim").click()
    expect(page.get_by_text("1500 × 1000").first).to_be_visible()
    focal = page.get_by_role("slider", name="Focal point")
    focal.focus()
    for _ in range(5):
        focal.press("Shift+ArrowRight")
    expect(page.get_by_text("focal 75")).to_be_visible()

    # 5. Take another picture where the first cannot serve
    page.get_by_role("button", name="B 600–1023").first.click()
    page.locator('input[type="file"]').set_input_files(
        {"name": "upright.png", "mimeType": "image/png", "buffer": portrait()}
    )
    # the span is left before the picture has arrived; it belongs to B all the same
    page.get_by_role("button", name="C 1024–1599").first.click()
    page.get_by_role("button", name="B 600–1023").first.click()
    expect(page.get_by_text("800 × 1200").first).to_be_visible()
    expect(page.get_by_text("Saved", exact=True)).to_be_visible()

    # A keeps the first picture: B alone changed hands by an own value, and A is handed it down;
    # give A the first back
    page.get_by_role("button", name="A 320–599").first.click()
    page.get_by_role("button", name="Change…").click()
    page.get_by_role("button", name="mast.jpg").click()
    expect(page.get_by_text("1500 × 1000").first).to_be_visible()
    expect(page.get_by_text("Saved", exact=True)).to_be_visible()

    # undo and redo
    page.get_by_role("button", name="Undo").click()
    expect(page.get_by_text("800 × 1200").first).to_be_visible()
    page.get_by_role("button", name="Redo").click()
    expect(page.get_by_text("1500 × 1000").first).to_be_visible()
    expect(page.get_by_text("Saved", exact=True)).to_be_visible()

    # the cursor can be typed; the address says so
    width = page.get_by_label("Type a viewport width")
    width.fill("450")
    width.press("Enter")
    expect(page.get_by_role("heading", name="At 450 px, span A")).to_be_visible()
    page.wait_for_url("**width=450**")

    # 6. Lay words on it
    # the name is its first heading; typed over on the banner itself, and readable after one press
    page.keyboard.press("Escape")
    page.get_by_role("navigation", name="Steps").get_by_role("button", name="Words").click()
    page.get_by_role("button", name="Make it a banner").click()
    page.locator("[data-text=heading]").click()
    heading = page.get_by_role("textbox", name="The heading", exact=True)
    heading.fill("Where the mast stands")
    heading.press("Enter")
    # on narrow screens it lies on the bright mast: the gentlest remedy is one press away
    readable = page.get_by_role("img", name=re.compile("Heading readable"))
    expect(readable).to_have_attribute("data-here", "faint")
    page.get_by_role("button", name="A 320–599").first.click()
    advice = page.get_by_role("region", name=re.compile("The heading cannot be read"))
    advice.get_by_role("button").first.click()
    expect(readable).to_have_attribute("data-here", "readable")
    expect(page.get_by_text("Saved", exact=True)).to_be_visible()

    # 7. Say it in words, and take the markup
    page.get_by_role("navigation", name="Steps").get_by_role("button", name="Code").click()
    expect(page.get_by_text("The picture has no alt text.")).to_be_visible()
    page.get_by_label("Alt text").fill("A mast over a dusky sea")
    expect(page.get_by_text("The picture has no alt text.")).to_be_hidden()
    expect(page.get_by_text("Saved", exact=True)).to_be_visible()

    # 8. Make the files
    # what is soft is said; export and download
    page.get_by_role("navigation", name="Steps").get_by_role("button", name="Files").click()
    expect(page.get_by_text("soft,").first).to_be_visible()
    page.get_by_role("button", name="Export").click()
    link = page.get_by_role("link", name="Download zip")
    link.wait_for(timeout=120_000)
    with page.expect_download() as download:
        link.click()
    archive = zipfile.ZipFile(download.value.path())
    check(archive)

    # 9. Prove it
    # this browser takes what was predicted at every bound
    page.get_by_role("navigation", name="Steps").get_by_role("button", name="Proof").click()
    expect(page.get_by_text("as predicted")).to_be_visible(timeout=20_000)
    page.get_by_role("button", name="Try all at 1x in this browser").click()
    expect(page.get_by_text("8 of 8 agree")).to_be_visible(timeout=60_000)


#: Counts what a hand does with the mouse: every press of a control, of a field, on the picture.
COUNTING = """
window.presses = Number(sessionStorage.getItem("presses") || 0);
addEventListener("pointerdown", () => sessionStorage.setItem("presses", ++window.presses), true);
"""


def test_one_picture_in_two_crops_is_fourteen_presses_from_an_empty_site(page: Page, address: str):
    """Two spans, a crop in each, a dozen files and more, and the zip: what is typed needs no press
    of its own where the field that asks for it has the focus."""
    page.add_init_script(COUNTING)
    page.get_by_role("button", name="New site…").first.click()
    page.get_by_label("Name").fill("Two Crops")
    page.get_by_label("Breakpoints").fill("799")
    page.get_by_role("button", name="Make the site").click()
    page.get_by_role("heading", name="Home").wait_for()
    page.evaluate("sessionStorage.clear()")
    page.reload()

    with page.expect_file_chooser() as chooser:
        page.get_by_role("button", name="+ from pictures…").click()
    large = {"name": "mast.jpg", "mimeType": "image/jpeg", "buffer": picture(4000, 2600)}
    chooser.value.set_files(large)
    page.get_by_role("link", name="Mast", exact=True).click()
    heights = page.get_by_role("radiogroup", name="Height rule")
    ratio = page.get_by_label("Ratio, width to height")
    heights.get_by_text("ratio").click()
    expect(ratio).to_be_focused()
    page.keyboard.type("2:1")
    page.get_by_role("button", name="A 320–799").first.click()
    ratio.click()
    page.keyboard.press("Control+A")
    page.keyboard.type("4:5")
    page.get_by_role("navigation", name="Steps").get_by_role("button", name="Aim").click()
    for span in ("A 320–799", "B from 800"):
        if span.startswith("B"):
            page.get_by_role("button", name=span).first.click()
        page.get_by_role("button", name="None…").click()
        page.get_by_role("button", name="the frame", exact=True).click()
        expect(page.get_by_role("button", name="Crop…")).to_be_visible()
        page.keyboard.press("Escape")
    page.get_by_role("navigation", name="Steps").get_by_role("button", name="Files").click()
    page.get_by_role("button", name="Export", exact=True).click()
    link = page.get_by_role("link", name="Download zip")
    link.wait_for(timeout=120_000)
    with page.expect_download() as download:
        link.click()
    archive = zipfile.ZipFile(download.value.path())
    manifest = json.loads(archive.read("manifest.json"))
    crops = {f["spans"][0]: f["crop"] for f in manifest["files"]}
    assert {round(c["w"] / c["h"], 2) for c in crops.values()} == {0.8, 2.0}
    assert len(manifest["files"]) >= 12
    assert page.evaluate("window.presses") <= 14


def test_the_guide_walks_the_same_way():
    """The headings of docs/guide.md are the steps above, in their order."""
    guide = (Path(__file__).parents[1] / "docs/guide.md").read_text()
    told = re.findall(r"^## (\d\. .+)$", guide, re.M)
    assert told == re.findall(r"^    # (\d\. .+)$", Path(__file__).read_text(), re.M)


def check(archive: zipfile.ZipFile) -> None:
    names = set(archive.namelist())
    assert {"page.html", "snippet.html", "picture.css", "manifest.json"} <= names
    manifest = json.loads(archive.read("manifest.json"))
    assert manifest["alt"] == "A mast over a dusky sea"
    assert {f["name"] for f in manifest["files"]} == {n for n in names if n.startswith("images/")}
    for entry in manifest["files"]:
        content = archive.read(entry["name"])
        assert (len(content), hashlib.sha256(content).hexdigest()) == (
            entry["bytes"],
            entry["sha256"],
        )
        assert Image.open(io.BytesIO(content)).size == (entry["width_px"], entry["height_px"])
        assert entry["width_px"] <= entry["crop"]["w"]  # never enlarged
    snippet = archive.read("snippet.html").decode()
    for width, span in ((599, "A"), (600, "B")):
        assert taken_at(manifest, snippet, width, 1)["spans"] == [span]
    a = next(f for f in manifest["files"] if f["spans"] == ["A"] and f["format"] == "jpeg")
    crop = a["crop"]
    # the mast, which the focal point was put on
    assert crop["x"] <= 1100 and crop["x"] + crop["w"] >= 1150
    image = np.asarray(Image.open(io.BytesIO(archive.read(a["name"])))).astype(int)
    assert (abs(image - (250, 210, 120)).sum(axis=-1) < 60).any()


def taken_at(manifest: dict[str, Any], snippet: str, width: int, density: float) -> dict[str, Any]:
    """The file that a screen takes, as the manifest has it: the least that suffices."""
    url = pick(snippet, Environment(width, 900, density)).url
    taken = next(f for f in manifest["files"] if f["name"] == url)
    like = [
        f["width_px"]
        for f in manifest["files"]
        if (f["spans"], f["format"]) == (taken["spans"], taken["format"])
    ]
    assert taken["format"] == "avif"
    assert taken["width_px"] >= width * density or taken["width_px"] == max(like)
    return taken


def test_the_exported_page_works_from_disk(page: Page, address: str, browser, tmp_path):
    """Continues from the export above: the zip, unpacked, opened as a file."""
    deliveries = page.request.get(f"{address}/api/sites").json()
    site = max((s for s in deliveries if s["name"] == "Gull Quay"), key=lambda s: s["id"])
    run, *_ = page.request.get(f"{address}/api/sites/{site['id']}/deliveries").json()
    archive = zipfile.ZipFile(
        io.BytesIO(page.request.get(f"{address}/api/deliveries/{run['id']}/zip").body())
    )
    archive.extractall(tmp_path)
    manifest = json.loads(archive.read("manifest.json"))
    snippet = archive.read("snippet.html").decode()
    for width, density in [(450, 2), (800, 1), (1700, 1)]:
        name = taken_at(manifest, snippet, width, density)["name"]
        context = browser.new_context(
            viewport={"width": width, "height": 800}, device_scale_factor=density
        )
        opened = context.new_page()
        opened.goto((tmp_path / "page.html").as_uri())
        opened.evaluate("document.querySelector('img').decode()")
        taken = opened.evaluate(
            "[document.querySelector('img').currentSrc, document.querySelector('img').naturalWidth]"
        )
        context.close()
        assert taken[0].endswith(f"/{name}"), width
        assert taken[1] > 0


def test_nothing_was_raised_unseen_meanwhile(address: str, said_before: dict[Path, int]):
    """In the logs of the web's processes, and of the worker and what it does by the clock: two of
    its beats have passed by now."""
    names = {path.name for path in said_before}
    assert {"web.log", "worker.log"} <= names
    for path, before in said_before.items():
        said = path.read_bytes()[before:].decode(errors="replace")
        raised = [line for line in said.splitlines() if "Traceback" in line or "[ERROR]" in line]
        assert raised == [], f"{path.name}: {raised[0]}"


def test_two_tabs_the_later_save_is_told(page: Page, address: str):
    sites = page.request.get(f"{address}/api/sites").json()
    demo = next(s["id"] for s in sites if s["name"] == "Tern Point")
    row = next(
        p
        for p in page.request.get(f"{address}/api/sites/{demo}/placements").json()
        if p["name"] == "Tern"
    )
    url = f"{address}/sites/{demo}/placements/{row['id']}/aim?span=A"
    other = page.context.new_page()
    for tab in (page, other):
        tab.goto(url)
        tab.get_by_role("radiogroup", name="Fit").wait_for()
    page.get_by_role("radiogroup", name="Fit").get_by_text("contain").click()
    saved(page)
    other.get_by_role("radiogroup", name="Aim").get_by_text("fixed", exact=True).click()
    expect(other.get_by_text("was changed elsewhere")).to_be_visible()
    other.get_by_role("button", name="Take theirs").click()
    expect(other.get_by_text("was changed elsewhere")).to_be_hidden()
    expect(other.get_by_role("radio", name="contain")).to_be_checked()
    other.get_by_role("button", name="Reset fit of span A").click()
    expect(other.get_by_text("Saved", exact=True)).to_be_visible()


def open_boats(page: Page, address: str, query: str) -> str:
    demo = next(
        s["id"]
        for s in page.request.get(f"{address}/api/sites").json()
        if s["name"] == "Tern Point"
    )
    row = next(
        p
        for p in page.request.get(f"{address}/api/sites/{demo}/placements").json()
        if p["name"] == "Four boats"
    )
    page.goto(f"{address}/sites/{demo}/placements/{row['id']}/aim?{query}")
    page.get_by_role("radiogroup", name="Aim").wait_for()
    return f"{address}/api/placements/{row['id']}"


def test_advice_is_applied_with_one_press_and_undone_with_one(page: Page, address: str):
    placement = open_boats(page, address, "width=450&span=A")
    before = page.request.get(placement).json()["placement"]
    wide = page.get_by_role("img", name="Red boat:")
    expect(wide).to_have_attribute("aria-label", "Red boat: lost 320–1023, whole 1024–2560")
    card = page.get_by_role("region", name="Advice for span A")
    expect(card).to_contain_text("need 92")
    card.get_by_role("button", name="Show it whole").click()
    expect(wide).to_have_attribute(
        "aria-label", "Red boat: whole 320–599, lost 600–1023, whole 1024–2560"
    )
    expect(page.get_by_text("All areas are whole here.")).to_be_visible()
    page.get_by_role("button", name="Undo").click()
    expect(wide).to_have_attribute("aria-label", "Red boat: lost 320–1023, whole 1024–2560")
    saved(page)
    assert page.request.get(placement).json()["placement"] == before


def test_areas_are_drawn_moved_named_and_removed(page: Page, address: str):
    placement = open_boats(page, address, "width=450&span=A")
    before = page.request.get(placement).json()["looks"]
    page.get_by_role("button", name="draw one").click()
    box = page.locator("img[alt^='Four boats']").first.bounding_box()
    assert box is not None
    page.mouse.move(box["x"] + box["width"] * 0.1, box["y"] + box["height"] * 0.1)
    page.mouse.down()
    page.mouse.move(box["x"] + box["width"] * 0.3, box["y"] + box["height"] * 0.3, steps=6)
    page.mouse.up()
    mine = page.get_by_role("group", name="Keep area Keep area.")
    expect(mine).to_be_visible()
    expect(page.get_by_role("img", name="Keep area:")).to_be_visible()  # its band
    mine.focus()
    page.keyboard.press("Shift+ArrowRight")
    page.keyboard.press("Alt+Shift+ArrowDown")
    page.get_by_role("button", name="5 keep areas").click()
    page.get_by_label("Name of area Keep area").fill("Cloud")
    page.keyboard.press("Enter")
    expect(page.get_by_label("Name of area Cloud")).to_be_visible()
    page.keyboard.press("Escape")
    saved(page)
    looks = page.request.get(placement).json()["looks"]
    cloud = next(iter(looks.values()))["areas"][-1]
    assert cloud["name"] == "Cloud"
    rect = cloud["rect"]
    assert (
        abs(rect["x"] - 0.15) < 0.01
        and abs(rect["y"] - 0.1) < 0.01
        and abs(rect["w"] - 0.2) < 0.01
        and abs(rect["h"] - 0.25) < 0.01
    )
    page.get_by_role("group", name="Keep area Cloud.").focus()
    page.keyboard.press("Delete")
    expect(page.get_by_role("group", name="Keep area Cloud.")).to_be_hidden()
    saved(page)
    assert page.request.get(placement).json()["looks"] == before
