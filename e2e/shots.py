"""One picture of each main view at 1280×800 from the demo data, into docs/screenshots: `./run
shots`."""

from __future__ import annotations

import sys
from pathlib import Path

from playwright.sync_api import Page, sync_playwright

OUT = Path(__file__).parents[1] / "docs/screenshots"


def settle(page: Page) -> None:
    page.wait_for_load_state("networkidle")
    page.evaluate("document.fonts.ready")
    page.wait_for_timeout(900)


def main(address: str) -> None:
    OUT.mkdir(parents=True, exist_ok=True)
    with sync_playwright() as playwright:
        browser = playwright.chromium.launch(
            executable_path="/usr/bin/chromium",
            args=["--no-sandbox", "--disable-gpu", "--disable-background-networking"],
        )
        context = browser.new_context(viewport={"width": 1280, "height": 800})
        page = context.new_page()
        page.goto(address)
        settle(page)
        page.get_by_role("button", name="Enter as the demo designer").click()
        page.get_by_role("heading", name="Sites").wait_for()
        demo = page.request.get(f"{address}/api/sites").json()[0]["id"]
        site = f"{address}/sites/{demo}"
        rows = page.request.get(f"{address}/api/sites/{demo}/placements").json()
        ids = {r["name"]: r["id"] for r in rows}
        pages = {
            p["title"]: p["id"]
            for p in page.request.get(f"{address}/api/sites/{demo}").json()["pages"]
        }
        home, boats = (f"{site}/placements/{ids[name]}" for name in ("Lighthouse", "Four boats"))

        # one finished export, so that files, weights and proof have something to show
        page.goto(f"{boats}/files")
        settle(page)
        page.get_by_role("button", name="Export").click()
        page.get_by_role("link", name="Download zip").wait_for(timeout=240_000)
        page.locator("table tbody tr").nth(3).get_by_role("button").first.click()
        page.get_by_role("slider", name="Where left ends").wait_for()
        page.get_by_role("switch", name="where the right one differs").click()
        page.locator("[aria-busy=false] img[alt='Where it differs']").wait_for()
        page.wait_for_timeout(300)
        page.screenshot(path=OUT / "compare.png")
        page.keyboard.press("Escape")
        page.goto(f"{site}/deliveries")
        page.get_by_role("button", name="Export the whole site").click()
        page.get_by_text("whole site", exact=True).first.wait_for()
        page.get_by_role("link", name="Download zip").nth(1).wait_for(timeout=400_000)

        for name, url in {
            "sites": address,
            "placements": f"{site}/placements",
            "remedies": f"{site}/remedies",
            "originals": f"{site}/originals",
            "deliveries": f"{site}/deliveries",
            "site": f"{site}/settings",
            "desk-frame": f"{home}/frame?width=1700&span=D",
            "desk-aim": f"{boats}/aim?width=632&span=B",
            "desk-grid": f"{site}/placements/{ids['Nine things to see']}/aim?width=1280&part=4",
            "desk-words": f"{home}/words?width=1280&span=C",
            "desk-slides": f"{site}/placements/{ids['Six views']}/frame?width=1280&part=1",
            "desk-logo": f"{site}/placements/{ids['Logo']}/frame?width=900",
            "page": f"{site}/pages/{pages['The Island']}?width=900",
            "desk-files": f"{boats}/files?width=632",
            "desk-code": f"{home}/code?width=1700&span=D",
        }.items():
            page.goto(url)
            settle(page)
            if name == "desk-frame":
                here = page.get_by_label("What stands here")
                here.get_by_text("stage", exact=True).click()
                page.get_by_role("slider", name="Lower edge").wait_for()
                settle(page)
            page.screenshot(path=OUT / f"{name}.png")
        page.goto(f"{site}/originals")
        page.get_by_role("button", name="four-boats.jpg").click()
        page.get_by_role("button", name="Suggest…").click()
        settle(page)
        page.screenshot(path=OUT / "original.png")
        page.goto(f"{boats}/proof?width=600")
        settle(page)
        page.get_by_role("button", name="Try all").click()
        page.get_by_text("8 of 8 agree").wait_for(timeout=60_000)
        page.screenshot(path=OUT / "desk-proof.png")
        page.emulate_media(color_scheme="dark")
        page.goto(f"{home}/aim?width=1280&span=C")
        settle(page)
        page.screenshot(path=OUT / "desk-aim-dark.png")
        browser.close()
    print(f"{len(list(OUT.glob('*.png')))} pictures in {OUT}")


if __name__ == "__main__":
    main(sys.argv[1])
