"""Every screen: no accessibility fault that axe knows (WCAG 2.2 A and AA), light and dark, and the
desk fits 1280×800."""

from __future__ import annotations

import json
import re

from accessible import AXE, RUN
from playwright.sync_api import Page, expect


def addresses(page: Page, address: str) -> dict[str, str]:
    demo = next(
        s["id"]
        for s in page.request.get(f"{address}/api/sites").json()
        if s["name"] == "Tern Point"
    )
    placement = page.request.get(f"{address}/api/sites/{demo}/placements").json()[0]["id"]
    desk = f"{address}/sites/{demo}/placements/{placement}"
    return {
        "sites": f"{address}/",
        "placements": f"{address}/sites/{demo}/placements",
        "remedies": f"{address}/sites/{demo}/remedies",
        "originals": f"{address}/sites/{demo}/originals",
        "deliveries": f"{address}/sites/{demo}/deliveries",
        "site": f"{address}/sites/{demo}/settings",
        "frame": f"{desk}/frame",
        "aim": f"{desk}/aim",
        "words": f"{desk}/words",
        "files": f"{desk}/files",
        "code": f"{desk}/code",
        "proof": f"{desk}/proof",
    }


#: In the dark only colours differ.
CONTRAST = """(within) => axe.run(within || document, {runOnly: ["color-contrast"], iframes: false})
  .then((found) => found.violations.flatMap((v) => v.nodes.map((n) => n.target.join(" "))))"""


def look_at(page: Page, within: str | None = None) -> list[str]:
    """What axe finds in the light, and of colours in the dark."""
    found = page.evaluate(RUN, within)
    page.emulate_media(color_scheme="dark")
    page.locator("html[data-mantine-color-scheme=dark]").wait_for(state="attached")
    page.wait_for_timeout(300)  # what fades has its colour then
    page.evaluate("Promise.allSettled(document.getAnimations().map((a) => a.finished))")
    found += [f"dark: {where}" for where in page.evaluate(CONTRAST, within)]
    page.emulate_media(color_scheme="light")
    return found


def test_axe_finds_nothing(page: Page, address: str):
    faults = {}
    page.add_init_script(AXE)
    for name, url in addresses(page, address).items():
        page.goto(url)
        page.wait_for_load_state("networkidle")
        page.wait_for_timeout(300)
        if found := look_at(page):
            faults[name] = found
    assert faults == {}


def test_the_dark_is_dark(page: Page, address: str):
    """What the looks in the dark rely on: colours follow the scheme while a screen is open."""
    page.goto(addresses(page, address)["aim"])
    page.get_by_role("region", name="Ground").wait_for()
    colour = "getComputedStyle(document.body).backgroundColor"
    light = page.evaluate(colour)
    page.emulate_media(color_scheme="dark")
    page.wait_for_function(f"(light) => {colour} !== light", arg=light)


def test_axe_finds_nothing_in_what_opens(page: Page, address: str):
    """Popovers of Aim, the history, an original's sheet, several selected, a field that was
    refused."""
    page.add_init_script(AXE)
    faults = {}

    def look(name: str) -> None:
        page.wait_for_timeout(400)
        if found := look_at(page, "[role=dialog], [class*=selection]"):
            faults[name] = found
        page.keyboard.press("Escape")
        page.wait_for_timeout(200)

    url = addresses(page, address)
    page.goto(url["aim"] + "?width=700&span=B")
    page.get_by_role("region", name="Ground").wait_for()
    for name in (
        "keep area",
        "compare…",
        "safe|always shows",
        "of its own",
        "^None…$|^Crop…$",
        "^All |of \\d+…",
        "Change…",
        "History",
    ):
        page.get_by_role("button", name=re.compile(name)).first.click()
        look(name)
    page.goto(url["originals"])
    page.get_by_role("button", name=re.compile("four-boats")).first.click()
    look("sheet")
    page.get_by_role("dialog").first.wait_for(state="detached")
    page.get_by_role("checkbox", name=re.compile("^Select ")).first.click(force=True)
    page.get_by_role("button", name="Tags…").click()
    look("selection")
    page.goto(url["site"])
    page.get_by_label("Language of the pages").fill("one or another")
    page.get_by_role("button", name="Save").click()
    page.get_by_text("It must be a language tag").first.wait_for()
    if found := look_at(page, "[aria-label=Language]"):
        faults["what is refused"] = found
    assert faults == {}, json.dumps(faults, indent=1)


def test_the_desk_fits_without_scrolling_the_page(page: Page, address: str):
    for name, url in addresses(page, address).items():
        if name not in ("frame", "aim", "words", "files", "code", "proof"):
            continue
        page.goto(url)
        page.get_by_role("region", name="Ground").wait_for()
        for width, height in ((1280, 800), (1920, 1080), (1024, 768)):
            page.set_viewport_size({"width": width, "height": height})
            page.evaluate("new Promise(r => requestAnimationFrame(() => requestAnimationFrame(r)))")
            box = page.evaluate(
                "[document.documentElement.scrollHeight, innerHeight,"
                " document.documentElement.scrollWidth, innerWidth]"
            )
            assert box[0] <= box[1] and box[2] <= box[3], (name, width, box)
            if name == "code":
                widths = page.evaluate(
                    "[...document.querySelectorAll('pre')].map(p => [p.scrollWidth, p.clientWidth])"
                )
                assert widths and all(drawn <= there for drawn, there in widths), (width, widths)


def test_keys_step_through_the_desk(page: Page, address: str):
    page.goto(addresses(page, address)["aim"])
    page.get_by_role("region", name="Ground").wait_for()
    for key, step in enumerate(("frame", "aim", "words", "files", "code", "proof"), 1):
        page.keyboard.press(str(key))
        page.wait_for_url(f"**/{step}?*" if "?" in page.url else f"**/{step}**")
    page.keyboard.press("2")
    page.get_by_role("slider", name="Cursor: viewport width").focus()
    before = int(page.get_by_label("Type a viewport width").input_value())
    page.keyboard.press("ArrowRight")
    page.keyboard.press("Shift+ArrowRight")
    expect(page.get_by_label("Type a viewport width")).to_have_value(str(before + 11))
    page.keyboard.press("?")
    page.get_by_role("dialog", name="Keys").wait_for()


def test_an_address_opens_just_what_it_names(page: Page, address: str):
    """The cursor stands in the span that is worked on; without either it is the widest."""
    for said, width, span in (
        ("?width=700", "700", "B 600–1023"),
        ("?width=700&span=B", "700", "B 600–1023"),
        ("?span=A", "360", "A 320–599"),
        ("", "1920", "D from 1600"),
    ):
        page.goto(addresses(page, address)["frame"] + said)
        page.get_by_role("region", name="Ground").wait_for()
        assert page.get_by_label("Type a viewport width").input_value() == width
        pressed = page.get_by_role("button", name=span).first.get_attribute("aria-pressed")
        assert pressed == "true", said


def test_what_is_not_there_is_said(page: Page, address: str):
    page.goto(f"{address}/sites/999999/placements")
    page.get_by_text("There is nothing here, or it is not yours to see.").wait_for()
    page.goto(f"{address}/nonsense")
    page.get_by_text("There is nothing at this address.").wait_for()


def test_the_api_is_documented_without_asking_anybody_else(page: Page, address: str):
    asked = []
    page.on("request", lambda r: asked.append(r.url))
    page.goto(f"{address}/api/docs")
    page.get_by_role("heading", name="Sky Pane").wait_for()
    page.get_by_text("/api/sites/{site_id}/readings").first.wait_for()
    assert all(u.startswith((address, "data:")) for u in asked)
