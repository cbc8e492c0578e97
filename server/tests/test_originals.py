"""Bringing pictures, and what is refused."""

import struct
import zlib

import pytest
from originals.intake import clean_name
from originals.models import Original
from tests.conftest import picture

pytestmark = pytest.mark.django_db


@pytest.mark.parametrize(
    ("format", "name", "kind"),
    [("JPEG", "a.jpg", "jpeg"), ("PNG", "a.png", "png"), ("WEBP", "a.webp", "webp"), ("AVIF", "a.avif", "avif")],
)
def test_the_four_kinds_are_taken(designer, site, format, name, kind):
    answer = designer.bring(site["id"], picture(format=format), name)
    got = answer.json()
    assert answer.status_code == 201
    assert (got["format"], got["width_px"], got["height_px"], got["alt"], got["is_new"]) == (kind, 800, 500, None, True)
    for width in (480, 1600):
        preview = designer.get(f"/originals/{got['id']}/preview/{width}")
        assert preview["Content-Type"] == "image/webp" and b"".join(preview.streaming_content)[8:12] == b"WEBP"


def test_how_large_a_frame_it_is_enough_for_is_told(designer, site):
    got = designer.bring(site["id"], picture(800, 500)).json()
    assert (got["sharp_1x"], got["sharp_2x"], got["too_small"]) == (800, 400, True)
    wide = designer.bring(site["id"], picture(2600, 50), "wide.jpg").json()
    assert wide["too_small"] is False


def test_originals_are_kept_as_they_came_by_content_hash(designer, site, settings):
    content = picture()
    got = designer.bring(site["id"], content).json()
    row = Original.objects.get(id=got["id"])
    assert (settings.MEDIA_ROOT / row.stored).read_bytes() == content and row.sha256 in row.stored


def test_the_same_picture_twice_is_one(designer, site):
    first = designer.bring(site["id"], picture()).json()
    again = designer.bring(site["id"], picture(), "copy.jpg").json()
    assert again["id"] == first["id"] and again["is_new"] is False


def test_a_mislabelled_picture_is_taken_and_told(designer, site):
    got = designer.bring(site["id"], picture(format="PNG"), "a.jpg").json()
    assert got["format"] == "png" and got["notes"] == ["a.jpg is a PNG inside, and is kept as one."]


def bomb():
    def chunk(kind, data):
        return struct.pack(">I", len(data)) + kind + data + struct.pack(">I", zlib.crc32(kind + data))

    header = chunk(b"IHDR", struct.pack(">IIBBBBB", 60000, 60000, 8, 2, 0, 0, 0))
    return b"\x89PNG\r\n\x1a\n" + header + chunk(b"IDAT", zlib.compress(b"\0" * 1000)) + chunk(b"IEND", b"")


@pytest.mark.parametrize(
    ("content", "name", "said"),
    [
        (b"", "empty.jpg", "empty.jpg is empty"),
        (b"some words\n", "notes.jpg", "notes.jpg is text, not a picture"),
        (picture()[:-3000], "cut.jpg", "cut.jpg ends early"),
        (bomb(), "bomb.png", "60000 × 60000 px, more than can be worked with"),
        (b"GIF89a" + b"\0" * 20, "a.gif", "is a GIF"),
        (b"<svg/>", "../../etc/passwd.svg", "passwd.svg is an SVG"),
    ],
)
def test_what_cannot_be_used_is_refused_and_nothing_kept(designer, site, settings, content, name, said):
    answer = designer.bring(site["id"], content, name)
    assert answer.status_code == 422 and said in answer.json()["detail"]
    assert designer.get(f"/sites/{site['id']}/originals").json() == []
    assert not list(settings.MEDIA_ROOT.rglob("*.*")) if settings.MEDIA_ROOT.exists() else True


def test_too_many_bytes_are_refused(designer, site, settings):
    settings.MOST_UPLOAD_BYTES = 1000
    answer = designer.bring(site["id"], picture())
    assert answer.status_code == 413 and "MB" in answer.json()["detail"]


def test_no_file_at_all(designer, site):
    assert designer.client.post(f"/api/sites/{site['id']}/originals").status_code == 422


@pytest.mark.parametrize(
    ("name", "clean"),
    [
        ("boats.jpg", "boats.jpg"),
        ("C:\\pictures\\boats.jpg", "boats.jpg"),
        ("../../../etc/passwd", "passwd"),
        ("a\x00b\nc.jpg", "abc.jpg"),
        ("", "picture"),
        ("...", "picture"),
        ("é" * 300 + ".jpeg", "é" * 115 + ".jpeg"),
        ("x" * 500, "x" * 120),
        ("<img src=x>.png", "<img src=x>.png"),
    ],
)
def test_hostile_and_over_long_names(name, clean):
    assert clean_name(name) == clean and len(clean_name(name)) <= 120


def test_alt_text_is_written_decorative_or_not_yet(designer, original):
    path = f"/originals/{original['id']}"
    assert designer.patch(path, {"alt": "Boats"}).json()["alt"] == "Boats"
    assert designer.patch(path, {"alt": ""}).json()["alt"] == ""
    assert designer.patch(path, {}).json()["alt"] == ""
    assert designer.patch(path, {"alt": None}).json()["alt"] is None
    assert designer.patch(path, {"alt": "x" * 1001}).status_code == 422


def test_an_original_in_use_is_not_removed_and_where_is_told(designer, site, original, placement):
    answer = designer.delete(f"/originals/{original['id']}")
    assert answer.status_code == 409 and "Home · Lighthouse, D" in answer.json()["detail"]
    listed = designer.get(f"/sites/{site['id']}/originals").json()
    assert listed[0]["used_in"] == ["Home · Lighthouse, D"]
    designer.delete(f"/placements/{placement['id']}")
    assert designer.delete(f"/originals/{original['id']}").status_code == 204


def test_a_lost_preview_is_made_again(designer, original, settings):
    for preview in settings.MEDIA_ROOT.rglob("previews/**/*.webp"):
        preview.unlink()
    assert designer.get(f"/originals/{original['id']}/preview/480").status_code == 200
