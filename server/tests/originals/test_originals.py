"""Bringing pictures, and what is refused."""

import io
import json
import struct
import subprocess
import zlib

import pytest
from conftest import one_part, picture
from django.core.files.storage import default_storage
from originals.intake import clean_name
from originals.models import Original
from PIL import Image
from skypane.pixels.guarded import Guard

pytestmark = pytest.mark.django_db


@pytest.mark.parametrize(
    ("format", "name", "kind"),
    [
        ("JPEG", "a.jpg", "jpeg"),
        ("PNG", "a.png", "png"),
        ("WEBP", "a.webp", "webp"),
        ("AVIF", "a.avif", "avif"),
    ],
)
def test_the_four_kinds_are_taken(designer, site, format, name, kind):
    answer = designer.bring(site["id"], picture(format=format), name)
    got = answer.json()
    assert answer.status_code == 201
    assert (got["format"], got["width_px"], got["height_px"], got["alt"], got["is_new"]) == (
        kind,
        800,
        500,
        None,
        True,
    )
    for width in (480, 1600):
        preview = designer.get(f"/originals/{got['id']}/preview/{width}")
        assert (
            preview["Content-Type"] == "image/webp"
            and b"".join(preview.streaming_content)[8:12] == b"WEBP"
        )


def test_how_large_a_frame_it_is_enough_for_is_told(designer, site):
    got = designer.bring(site["id"], picture(800, 500)).json()
    assert (got["sharp_1x"], got["sharp_2x"], got["too_small"]) == (800, 400, True)
    wide = designer.bring(site["id"], picture(2600, 50), "wide.jpg").json()
    assert wide["too_small"] is False


def test_the_list_says_of_each_what_bringing_it_said(designer, site):
    brought = [
        designer.bring(site["id"], picture(*size), f"{size[0]}.jpg")
        for size in ((90, 60), (60, 90))
    ]
    listed = designer.get(f"/sites/{site['id']}/originals").json()
    assert listed == [b.json() for b in reversed(brought)]


def test_the_list_comes_in_parts(designer, site):
    """The newest first, as the whole."""
    for width in range(60, 65):
        designer.bring(site["id"], picture(width, 90), f"{width}.jpg")
    rows = f"/sites/{site['id']}/originals"
    whole = designer.get(rows).json()
    parts = [designer.get(f"{rows}?skip={skip}&most=2").json() for skip in (0, 2, 4, 6)]
    assert [len(p) for p in parts] == [2, 2, 1, 0]
    assert [row for part in parts for row in part] == whole
    assert designer.get(f"{rows}?most=0").status_code == 422
    assert designer.get(f"{rows}?skip=-1").status_code == 422


def test_originals_are_kept_as_they_came_by_content_hash(designer, site, settings):
    content = picture()
    got = designer.bring(site["id"], content).json()
    row = Original.objects.get(id=got["id"])
    assert (settings.MEDIA_ROOT / row.stored).read_bytes() == content and row.sha256 in row.stored


def test_previews_are_made_once_for_the_same_bytes(designer, site, monkeypatch):
    """In whichever sites they come: files are kept by content. One that was lost is made again."""
    made = []
    real = Guard.previews

    def noted(self, path, to, **named):
        made.append(set(to))
        return real(self, path, to, **named)

    monkeypatch.setattr(Guard, "previews", noted)
    other = designer.post("/sites", {"name": "Jetty Walk"}).json()
    content = picture(700, 431)
    got = [designer.bring(of["id"], content).json() for of in (site, other)]
    assert made == [{480, 1600}]
    assert got[0]["id"] != got[1]["id"] and got[1]["is_new"]
    assert designer.get(f"/originals/{got[1]['id']}/preview/480").status_code == 200
    row = Original.objects.get(id=got[0]["id"])
    default_storage.delete(row.preview(480))
    third = designer.post("/sites", {"name": "Quay"}).json()
    designer.bring(third["id"], content)
    assert made[1:] == [{480}]


def test_the_same_picture_twice_is_one(designer, site):
    first = designer.bring(site["id"], picture()).json()
    again = designer.bring(site["id"], picture(), "copy.jpg").json()
    assert again["id"] == first["id"] and again["is_new"] is False


def test_a_mislabelled_picture_is_taken_and_told(designer, site):
    got = designer.bring(site["id"], picture(format="PNG"), "a.jpg").json()
    assert got["format"] == "png" and got["notes"] == ["a.jpg is a PNG inside, and is kept as one."]


def bomb():
    def chunk(kind, data):
        return (
            struct.pack(">I", len(data)) + kind + data + struct.pack(">I", zlib.crc32(kind + data))
        )

    header = chunk(b"IHDR", struct.pack(">IIBBBBB", 60000, 60000, 8, 2, 0, 0, 0))
    return (
        b"\x89PNG\r\n\x1a\n"
        + header
        + chunk(b"IDAT", zlib.compress(b"\0" * 1000))
        + chunk(b"IEND", b"")
    )


@pytest.mark.parametrize(
    ("content", "name", "said"),
    [
        (b"", "empty.jpg", "empty.jpg is empty"),
        (b"some words\n", "notes.jpg", "notes.jpg is text, not a picture"),
        (picture()[:-3000], "cut.jpg", "cut.jpg ends early"),
        (bomb(), "bomb.png", "60000 × 60000 px, more than can be worked with"),
        (b"GIF89a" + b"\0" * 20, "a.gif", "is damaged and cannot be opened"),
        (b"<svg/>", "../../etc/passwd.svg", "passwd.svg is damaged"),
    ],
)
def test_what_cannot_be_used_is_refused_and_nothing_kept(
    designer, site, settings, content, name, said
):
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


def test_a_large_preview_is_made_when_it_is_asked_for(designer, site, settings):
    got = designer.bring(site["id"], picture(3600, 900), "wide.jpg").json()
    previews = settings.MEDIA_ROOT / "previews"
    before = len(list(previews.rglob("*.webp")))
    answer = designer.get(got["large"].removeprefix("/api"))
    assert Image.open(io.BytesIO(b"".join(answer.streaming_content))).size == (3200, 800)
    assert len(list(previews.rglob("*.webp"))) == before + 1


def test_a_lost_preview_is_made_again(designer, original, settings):
    for preview in settings.MEDIA_ROOT.rglob("previews/**/*.webp"):
        preview.unlink()
    assert designer.get(f"/originals/{original['id']}/preview/480").status_code == 200


# -- several at once -------------------------------------------------------------------


def test_alt_text_and_tags_of_several(designer, site):
    ids = [designer.bring(site["id"], picture(seed=n), f"{n}.jpg").json()["id"] for n in (1, 2, 3)]
    path = f"/sites/{site['id']}/originals"
    designer.patch(path, {"ids": ids[:2], "alt": "", "add_tags": ["harbour", " evening "]})
    found = designer.patch(
        path, {"ids": ids, "add_tags": ["harbour", "new"], "drop_tags": ["evening"]}
    ).json()
    by_id = {o["id"]: (o["alt"], o["tags"]) for o in found}
    assert by_id == {
        ids[0]: ("", ["harbour", "new"]),
        ids[1]: ("", ["harbour", "new"]),
        ids[2]: (None, ["harbour", "new"]),
    }
    assert designer.patch(path, {"ids": [*ids, 999999], "alt": ""}).status_code == 404
    assert designer.patch(path, {"ids": ids, "add_tags": [" "]}).status_code == 422


def test_of_several_only_the_unused_are_removed_and_of_the_others_it_is_said_where(
    designer, site, original, placement
):
    spare = designer.bring(site["id"], picture(seed=5), "spare.jpg").json()
    outcome = designer.post(
        f"/sites/{site['id']}/originals/removal", {"ids": [original["id"], spare["id"]]}
    ).json()
    assert {o["name"]: (o["removed"], o["used_in"]) for o in outcome} == {
        "spare.jpg": (True, []),
        "boats.jpg": (False, ["Home · Lighthouse, D"]),
    }
    assert [o["id"] for o in designer.get(f"/sites/{site['id']}/originals").json()] == [
        original["id"]
    ]


# -- replacing -------------------------------------------------------------------------


def replace(designer, original, content, name="better.jpg", query=""):
    upload = io.BytesIO(content)
    upload.name = name
    return designer.client.post(
        f"/api/originals/{original['id']}/replacement{query}", {"file": upload}
    )


def look_at(designer, placement, original, **area):
    body = {
        "revision": placement["revision"],
        "placement": placement["placement"],
        "looks": {original["id"]: {"focal": [0.3, 0.4], "areas": [area]}},
    }
    assert designer.put(f"/placements/{placement['id']}", body).status_code == 200


MAST = {"name": "Mast", "rect": {"x": 0.3, "y": 0.2, "w": 0.1, "h": 0.4}}


def test_a_better_file_of_the_same_ratio_keeps_everything(designer, site, original, placement):
    look_at(designer, placement, original, **MAST)
    answer = replace(designer, original, picture(1600, 1000))
    assert answer.status_code == 200 and answer.json()["said"] == []
    after = answer.json()["original"]
    assert (after["id"], after["name"], after["width_px"], after["focal"]) == (
        original["id"],
        "better.jpg",
        1600,
        [0.3, 0.4],
    )
    assert after["areas"][0]["rect"] == MAST["rect"] and after["preview"] != original["preview"]
    assert (
        designer.get(f"/placements/{placement['id']}").json()["placement"] == placement["placement"]
    )


def test_another_ratio_is_refused_with_what_no_longer_fits_until_it_is_wanted(
    designer, original, placement
):
    look_at(designer, placement, original, **MAST)
    answer = replace(designer, original, picture(900, 900))
    assert answer.status_code == 409
    assert (
        "900 × 900, another ratio than 800 × 500" in answer.json()["detail"]
        and "Mast" in answer.json()["detail"]
    )
    assert "Home · Lighthouse, D" in answer.json()["detail"]
    assert designer.get(f"/originals/{original['id']}/preview/480").status_code == 200
    wanted = replace(designer, original, picture(900, 900), query="?all_the_same=true").json()
    assert wanted["said"][0] == "The ratio is another: look at the focal point and at Mast."
    assert wanted["original"]["width_px"] == 900


def test_fewer_px_and_areas_that_fail_are_said(designer, original, placement):
    look_at(
        designer, placement, original, name="Mast", rect={"x": 0.1, "y": 0.1, "w": 0.8, "h": 0.9}
    )
    said = replace(designer, original, picture(400, 400), query="?all_the_same=true").json()["said"]
    assert "It has fewer px than before: 400 wide instead of 800." in said
    assert any(s.startswith("Whole again in Home · Lighthouse, A") for s in said)


def test_what_cannot_replace_leaves_the_original(designer, site, original):
    other = designer.bring(site["id"], picture(seed=7), "other.jpg").json()
    assert "in the site already" in replace(designer, original, picture(seed=7)).json()["detail"]
    assert replace(designer, original, b"words").status_code == 422
    listed = designer.get(f"/sites/{site['id']}/originals").json()
    assert {o["id"]: o["name"] for o in listed} == {
        original["id"]: "boats.jpg",
        other["id"]: "other.jpg",
    }


# -- trimming and suggestions ----------------------------------------------------------


def badge() -> bytes:
    image = Image.new("RGBA", (200, 100), (0, 0, 0, 0))
    image.paste((200, 60, 30, 255), (50, 20, 150, 80))
    out = io.BytesIO()
    image.save(out, "PNG")
    return out.getvalue()


def test_trimming_keeps_areas_on_what_they_mark_and_can_be_taken_back(designer, site, page):
    made = designer.bring(site["id"], badge(), "badge.png").json()
    body = one_part("Badge", {"D": {"original": made["id"]}})
    placement = designer.post(f"/pages/{page['id']}/placements", {"placement": body}).json()
    look_at(
        designer, placement, made, name="Left half", rect={"x": 0.25, "y": 0.2, "w": 0.25, "h": 0.6}
    )
    trimmed = designer.post(f"/originals/{made['id']}/trim").json()
    assert (trimmed["width_px"], trimmed["height_px"], trimmed["trimmed"]) == (100, 60, True)
    assert trimmed["areas"][0]["rect"] == {"x": 0, "y": 0, "w": 0.5, "h": 1}
    assert trimmed["focal"] == pytest.approx([0.1, 0.3333], abs=1e-3)
    assert "Transparent edges trimmed from 200 × 100 px." in trimmed["notes"]
    assert designer.post(f"/originals/{made['id']}/trim").status_code == 409
    back = designer.client.delete(f"/api/originals/{made['id']}/trim").json()
    assert (back["width_px"], back["trimmed"]) == (200, False)
    assert back["areas"][0]["rect"] == pytest.approx({"x": 0.25, "y": 0.2, "w": 0.25, "h": 0.6})


def test_a_picture_without_transparency_is_not_trimmed(designer, original):
    answer = designer.post(f"/originals/{original['id']}/trim")
    assert answer.status_code == 422 and "no transparency" in answer.json()["detail"]


def test_a_suggestion_changes_nothing(designer, site, original):
    found = designer.get(f"/originals/{original['id']}/suggestion").json()
    assert 0 <= found["focal"][0] <= 1 and isinstance(found["areas"], list)
    listed = designer.get(f"/sites/{site['id']}/originals").json()[0]
    assert listed["focal"] == [0.5, 0.5] and listed["areas"] == []


def test_a_preview_of_a_crop(designer, original):
    path = f"/originals/{original['id']}/preview/1600"
    for crop, size in (("0.25,0,0.5,1", (400, 500)), ("0.1,0.1,0.2,0.4", (160, 200))):
        found = designer.get(f"{path}?crop={crop}")
        assert Image.open(io.BytesIO(found.content)).size == size
    assert designer.get(f"{path}?crop=0.5,0,0.6,1").status_code == 422
    assert (
        designer.get(f"{path}?crop=words").json()["detail"].startswith("A crop is four fractions")
    )


# -- what travels with a picture -------------------------------------------------------


def test_focal_point_and_areas_travel_with_the_picture(designer, site, original, tmp_path):
    """Written into a copy, read when that comes in elsewhere, and by ExifTool."""
    area = {"name": "Boat 岬", "rect": {"x": 0.1, "y": 0.2, "w": 0.3, "h": 0.4}}
    look = {"focal": [0.25, 0.75], "areas": [area], "revision": original["revision"]}
    assert designer.put(f"/originals/{original['id']}/look", look).status_code == 200
    copy = designer.get(f"/originals/{original['id']}/copy")
    assert copy.status_code == 200
    assert copy["Content-Disposition"] == 'attachment; filename="boats.jpg"'
    path = tmp_path / "copy.jpg"
    path.write_bytes(copy.content)
    asked = ["exiftool", "-json", "-struct", "-XMP:all", str(path)]
    (told,) = json.loads(subprocess.run(asked, capture_output=True, check=True).stdout)
    assert [r["Name"] for r in told["ImageRegion"]] == ["Boat 岬", "Focal point"]
    other = designer.post("/sites", {"name": "Elsewhere"}).json()
    found = designer.bring(other["id"], copy.content).json()
    assert found["focal"] == [0.25, 0.75]
    assert [(a["name"], a["rect"]) for a in found["areas"]] == [("Boat 岬", area["rect"])]
    assert "1 keep area and its focal point" in found["notes"][-1]
    sidecar = designer.get(f"/originals/{original['id']}/sidecar")
    assert b"Iptc4xmpExt:ImageRegion" in sidecar.content
    assert sidecar["Content-Disposition"] == 'attachment; filename="boats.xmp"'


def test_a_copy_of_a_kind_that_cannot_hold_them_points_to_the_sidecar(designer, stranger, site):
    webp = designer.bring(site["id"], picture(format="WEBP"), "a.webp").json()
    answer = designer.get(f"/originals/{webp['id']}/copy")
    assert answer.status_code == 422 and "sidecar" in answer.json()["detail"]
    assert designer.get(f"/originals/{webp['id']}/sidecar").status_code == 200
    assert stranger.get(f"/originals/{webp['id']}/sidecar").status_code == 404


def test_many_nouns_at_once_are_those_of_each(designer, site):
    """Rows as people have them: nobody has said what is seen, an empty alt, marked, tagged, named
    in another script; and one that changes in between."""
    ids = [
        designer.bring(site["id"], picture(seed=i), f"{i}-岬.jpg").json()["id"] for i in range(3)
    ]
    area = {"name": "灯台", "kind": "keep", "rect": {"x": 0.1, "y": 0.2, "w": 0.3, "h": 0.4}}
    Original.objects.filter(id=ids[0]).update(areas=[area], tags=["sea"], alt="")
    Original.objects.filter(id=ids[1]).update(format="svg", focal_x=0.25)

    def both():
        rows = Original.objects.filter(site_id=site["id"])
        return rows.nouns(), {o.id: o.as_noun() for o in rows}

    at_once, each = both()
    assert at_once == each
    assert set(at_once) == set(ids)
    assert both()[0][ids[2]] is at_once[ids[2]]
    Original.objects.filter(id=ids[2]).update(areas=[area])
    at_once, each = both()
    assert at_once == each
    assert at_once[ids[2]].areas[0].name == "灯台"
