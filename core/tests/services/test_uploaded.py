"""Addresses that a host has given to files, read off what people copy from there."""

import pytest
from hypothesis import given
from hypothesis import strategies as st
from pydantic import ValidationError
from skypane.files.renditions import renditions
from skypane.markup.addresses import without_address
from skypane.markup.lines import text_of
from skypane.markup.outputs import written_as
from skypane.model import HandOver, Original, Part, Placement, Site, Treatment
from skypane.services.uploaded import read_uploaded
from skypane.shown.plan import plan

NAMES = (
    "quay.avif",
    "quay@2x.avif",
    "quay--narrow.avif",
    "quay--narrow@2x.avif",
    "quay.jpg",
    "home/pier.jpg",
)
HOST = "https://files.example/2026/12/"


def test_names_stand_beside_their_addresses_or_are_at_their_end():
    found = read_uploaded(
        f"quay.avif\t{HOST}a1\n"
        f"{HOST}quay%402x.avif;quay@2x.avif\n"
        f'"{HOST}quay--narrow.avif"\n\n'
        f"{HOST}pier.jpg?ver=3\n",
        NAMES,
    )
    assert found.addresses == {
        "quay.avif": f"{HOST}a1",
        "quay@2x.avif": f"{HOST}quay%402x.avif",
        "quay--narrow.avif": f"{HOST}quay--narrow.avif",
        "home/pier.jpg": f"{HOST}pier.jpg?ver=3",
    }
    assert found.missing == ("quay--narrow@2x.avif", "quay.jpg") and found.unread == ()


@pytest.mark.parametrize(
    ("written", "name"),
    [
        ("Quay-2x_8f3a.avif", "quay@2x.avif"),
        ("quay_narrow2x.avif", "quay--narrow@2x.avif"),
        ("QUAY.AVIF", "quay.avif"),
        ("quay-scaled.jpeg", "quay.jpg"),
        ("quay-narrow.avif", "quay--narrow.avif"),
    ],
)
def test_a_host_writes_names_its_own_way(written, name):
    assert read_uploaded(f"{HOST}{written}", NAMES).addresses == {name: f"{HOST}{written}"}


@pytest.mark.parametrize(
    "line",
    [
        f"{HOST}pebbles.avif",
        f"{HOST}quay.webp",
        "quay.avif",
        "quay.avif javascript:alert",
        f'quay.avif {HOST}a"b.avif'.replace('"b', "<b"),
        "nothing at all",
    ],
)
def test_what_names_no_file_is_told_of(line):
    found = read_uploaded(line, NAMES)
    assert found.unread == (line,) and found.addresses == {}


def test_what_was_known_before_stays_and_files_that_are_gone_go():
    before = {"quay.jpg": f"{HOST}q", "gone.jpg": f"{HOST}g"}
    found = read_uploaded(f"{HOST}quay.avif", NAMES, before)
    assert found.addresses == {"quay.jpg": f"{HOST}q", "quay.avif": f"{HOST}quay.avif"}


@given(st.text(max_size=200))
def test_whatever_is_pasted_is_read_or_told_of(text):
    found = read_uploaded(text, NAMES)
    lines = [line for line in text.splitlines() if line.strip().strip("\"'")]
    assert len(found.addresses) + len(found.unread) <= len(lines)
    HandOver(uploaded=found.addresses)


def test_code_has_the_addresses_and_says_which_are_missing():
    quay = Original(id=1, name="quay.jpg", width_px=1600, height_px=1000, sha256="q", alt="A quay")
    placement = Placement(name="Quay", parts=(Part(treatments={"D": Treatment(original=1)}),))
    names = [r.name for _, made in renditions(plan(Site(), placement, {1: quay})) for r in made]
    known = {n: f"{HOST}{i}" for i, n in enumerate(names[:-1])}
    site = Site(hand_over=HandOver(uploaded=known, prefix="/later/"))
    found = plan(site, placement, {1: quay})
    files = renditions(found)
    assert without_address(found, files) == (names[-1],)
    for output in ("html", "jsx", "django", "json"):
        text = text_of(written_as(found, files, output)[0].lines)
        assert all(address in text for address in known.values())
        assert f"/later/{names[-1]}" in text and "static" not in text
    assert without_address(plan(Site(), placement, {1: quay}), files) == ()


@pytest.mark.parametrize("address", ["quay.jpg", "javascript:x", "https://x.example/a b", "/a,"])
def test_what_is_no_address_is_refused(address):
    with pytest.raises(ValidationError, match="no address of a file"):
        HandOver(uploaded={"quay.jpg": address})
