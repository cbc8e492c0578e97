"""Code in the browser: kinds of output, ways of writing, an image service, and their proof."""

from __future__ import annotations

import re
from collections.abc import Iterator

import pytest
from accessible import axe_clean
from making import Maker, comes, picture, saved
from playwright.sync_api import Page, expect


@pytest.fixture
def maker(page: Page, address: str) -> Iterator[Maker]:
    made = Maker(page, address)
    yield made
    made.remove_sites()


@pytest.fixture
def quay(maker: Maker) -> tuple[int, int]:
    """A picture that follows the page, small enough to be exported fast."""
    site = maker.site("Reed Quay")
    original = maker.original(site, "quay.jpg", picture(900, 600))
    page = maker.ask("POST", f"/sites/{site}/pages", data={"title": "Home"})["id"]
    own = {"original": original, "height": {"kind": "ratio", "w": 2, "h": 1}}
    noun = {"name": "Quay", "parts": [{"treatments": {"D": own}, "alt": "A quay"}]}
    made = maker.ask("POST", f"/pages/{page}/placements", data={"placement": noun})
    return site, made["id"]


def test_code_is_written_in_every_output_and_as_a_background(
    page: Page, address: str, quay: tuple[int, int]
):
    site, placement = quay
    page.goto(f"{address}/sites/{site}/placements/{placement}/code")
    blocks = page.locator("figure pre")
    expect(blocks.first).to_contain_text('<picture class="quay">')
    # a line that is pointed at lights its widths on the axis
    blocks.nth(1).get_by_text("aspect-ratio: 2 / 1;").hover()
    lit = page.locator("[class*=lit]")
    expect(lit).to_have_count(4)
    # one that names a file those at which that is taken: of an older format none
    blocks.first.get_by_text(re.compile(r"\.jpg")).first.hover()
    expect(lit).to_have_count(0)
    blocks.first.get_by_text(re.compile(r"\.avif")).first.hover()
    expect(lit.first).to_be_visible()
    kinds = page.get_by_role("radiogroup", name="Kind of code")
    for kind, said in (
        ("JSX", "export function Quay(): ReactElement"),
        ("Django", "{% load static %}"),
        ("JSON", '"elements"'),
        ("HTML", "<picture"),
    ):
        kinds.get_by_text(kind, exact=True).click()
        expect(blocks.first).to_contain_text(said)
    ways = page.get_by_role("radiogroup", name="Written as")
    expect(page.get_by_text("A picture, since it comes as AVIF")).to_be_visible()
    ways.get_by_text("background", exact=True).click()
    expect(blocks.first).to_contain_text('<div class="quay"></div>')
    expect(blocks.nth(1)).to_contain_text("image-set(")
    expect(page.get_by_text("It has no alt text")).to_be_visible()
    # it has a text of its own, which nobody is told any more: that is found, and leads back here
    expect(page.get_by_text("its alt text is told to nobody")).to_be_visible()
    axe_clean(page)
    page.get_by_role("button", name="as little as needed").click()
    expect(blocks.first).to_contain_text('<picture class="quay">')
    saved(page)


def test_a_service_is_read_off_an_address_and_the_one_that_ships_is_proved(
    page: Page, address: str, maker: Maker, quay: tuple[int, int]
):
    site, placement = quay
    page.goto(f"{address}/sites/{site}/settings")
    row = page.get_by_role("region", name="Image service")
    row.get_by_label("Read the template off").fill("https://p.example/picture?w=800")
    row.get_by_role("button", name="Read it").click()
    expect(row.get_by_role("alert")).to_contain_text("looks like the name of a picture")
    row.get_by_label("Read the template off").fill("https://p.example/quay.jpg?w=800&fm=webp")
    row.get_by_role("button", name="Read it").click()
    template = row.get_by_label("Template of its addresses")
    expect(template).to_have_value("https://p.example/{name}{?w,fm}")
    expect(row.get_by_text("It cannot cut")).to_be_visible()
    template.fill("https://p.example/{name}{?w,fm,z}")
    page.get_by_role("button", name="Save", exact=True).click()
    expect(page.get_by_text("Nothing says what {z} stands for").first).to_be_visible()
    axe_clean(page)
    row.get_by_role("button", name="Use the service of this installation").click()
    page.get_by_label("Pages ask for their first picture").check()
    page.get_by_role("button", name="Save", exact=True).click()
    expect(page.get_by_text("Saved", exact=True)).to_be_visible()
    page.goto(f"{address}/sites/{site}/placements/{placement}/code")
    expect(page.locator("figure pre").first).to_contain_text('<link rel="preload" as="image"')
    expect(page.locator("figure pre").nth(1)).to_contain_text(f"/service/{site}/")
    run = maker.ask("POST", f"/placements/{placement}/deliveries?effort=quick")["id"]
    comes(lambda: maker.ask("GET", f"/deliveries/{run}")["state"], lambda s: s == "done")
    page.goto(f"{address}/sites/{site}/placements/{placement}/proof?width=700")
    page.get_by_role("combobox", name="Where pictures come from").click()
    page.get_by_role("option", name="from the image service").click()
    live = page.get_by_text("It took").locator("..")
    expect(live).to_contain_text("quay.jpg?w=", timeout=30_000)
    expect(live).to_contain_text("as predicted", timeout=30_000)
    page.get_by_role("button", name="Try all at 1x").click()
    expect(page.get_by_text("8 of 8 agree")).to_be_visible(timeout=60_000)
    axe_clean(page)


def test_addresses_of_a_host_fill_the_code_and_what_is_missing_is_told(
    page: Page, address: str, maker: Maker, quay: tuple[int, int]
):
    site, placement = quay
    page.goto(f"{address}/sites/{site}/settings")
    row = page.get_by_role("region", name="Handed over")
    name = maker.ask("POST", f"/sites/{site}/uploaded", data={"text": "-"})["missing"][0]
    row.get_by_label("Addresses that a host has given").fill(
        f"https://files.example/2026/{name}\nhttps://files.example/2026/pebbles.avif"
    )
    row.get_by_role("button", name="Read the addresses").click()
    expect(row.get_by_role("alert")).to_contain_text("pebbles.avif")
    known = row.get_by_role("button", name="Forget all 1")
    expect(known).to_be_visible()
    axe_clean(page)
    page.get_by_role("button", name="Save", exact=True).click()
    expect(page.get_by_text("Saved", exact=True)).to_be_visible()
    page.goto(f"{address}/sites/{site}/placements/{placement}/code")
    expect(page.locator("figure pre").first).to_contain_text("https://files.example/")
    expect(page.get_by_text("have no address of their host yet")).to_be_visible()
