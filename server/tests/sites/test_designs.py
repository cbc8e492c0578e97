"""Pictures of the design under a page, and frame rules read off them."""

import io
import zipfile

import pytest
from conftest import picture
from deliveries.sweeping import sweep
from django.core.files.storage import default_storage
from originals.models import Design
from PIL import Image

pytestmark = pytest.mark.django_db


@pytest.fixture
def bring(designer, page):
    def brought(content=None, name="home.png"):
        upload = io.BytesIO(content or picture(1440, 900, "PNG"))
        upload.name = name
        return designer.client.post(f"/api/pages/{page['id']}/designs", {"file": upload})

    return brought


def test_a_design_is_kept_to_the_byte_and_its_width_guessed(designer, page, bring):
    content = picture(2880, 1800, "PNG")
    made = bring(content, "home 首页@2x.png").json()
    assert (made["drawn_for"], made["density"], made["letter"]) == (1440, 2, "C")
    assert made["name"] == "home 首页@2x.png" and made["note"] == ""
    answer = designer.client.get(made["url"])
    assert b"".join(answer.streaming_content) == content
    assert answer["Content-Type"] == "image/png"
    assert designer.get(f"/pages/{page['id']}/designs").json() == [made]


def test_the_widest_stands_first_and_the_width_can_be_typed(designer, page, bring):
    small = bring(picture(390, 2000, "PNG"), "phone.png").json()
    wide = bring().json()
    listed = designer.get(f"/pages/{page['id']}/designs").json()
    assert [d["id"] for d in listed] == [wide["id"], small["id"]]
    changed = designer.patch(f"/designs/{small['id']}", {"drawn_for": 1800}).json()
    assert changed["drawn_for"] == 1800 and changed["letter"] == "D"
    odd = designer.patch(f"/designs/{small['id']}", {"drawn_for": 3000}).json()
    assert odd["letter"] is None and "No span of the site has 3000 px" in odd["note"]
    refused = designer.patch(f"/designs/{small['id']}", {"drawn_for": 3})
    assert refused.status_code == 422


def test_removing_is_undone(designer, page, bring):
    made = bring().json()
    assert designer.delete(f"/designs/{made['id']}").status_code == 204
    assert designer.get(f"/pages/{page['id']}/designs").json() == []
    assert designer.post(f"/designs/{made['id']}/back").json() == made
    # brought again it is the same
    designer.delete(f"/designs/{made['id']}")
    assert bring().json() == made and Design.objects.count() == 1


@pytest.mark.parametrize(
    ("content", "name", "said"),
    [
        (b"<svg xmlns='http://www.w3.org/2000/svg' width='9' height='9'/>", "a.svg", "PNG, JPEG"),
        (b"nothing", "a.png", "a.png"),
        (picture(20, 20, "GIF"), "a.gif", "PNG, JPEG"),
    ],
)
def test_what_is_no_design_is_refused_with_a_sentence(bring, content, name, said):
    answer = bring(content, name)
    assert answer.status_code == 422 and said in answer.json()["detail"]


def test_a_design_as_large_as_a_wall_is_refused_before_it_is_unpacked(bring):
    """20,000 × 40,000 px of one colour are a file of a few hundred kB."""
    out = io.BytesIO()
    Image.new("1", (20_000, 40_000)).save(out, "PNG")
    answer = bring(out.getvalue(), "wall.png")
    assert answer.status_code == 422 and "20000 × 40000 px" in answer.json()["detail"]


def test_strangers_see_nothing(stranger, page, bring):
    made = bring().json()
    assert stranger.get(f"/pages/{page['id']}/designs").status_code == 404
    assert stranger.client.get(made["url"]).status_code == 404
    assert stranger.delete(f"/designs/{made['id']}").status_code == 404


def test_its_file_is_kept_for_as_long_as_it_can_be_put_back(designer, settings, bring):
    settings.KEEP_UNUSED_HOURS = 0
    made = bring().json()
    row = Design.objects.get(id=made["id"])
    designer.delete(f"/designs/{made['id']}")
    sweep()
    assert default_storage.exists(row.stored)
    row.delete()
    settings.KEEP_UNUSED_HOURS = -1
    sweep()
    assert not default_storage.exists(row.stored)


def test_a_spot_is_read_off_with_the_site_s_own_container(designer, site):
    """(1080 − 2·60)/3 = 320; worked by hand."""
    plan = {**site["plan"], "container": {"max_width_px": 1080, "margin_px": 20}}
    body = {"name": site["name"], "revision": site["revision"], "plan": plan}
    assert designer.put(f"/sites/{site['id']}", body).status_code == 200
    seen = [{"width": 1440, "left": 560, "right": 880, "top": 900, "bottom": 1140}]
    path = f"/sites/{site['id']}/spots"
    (first, *_) = designer.post(path, {"seen": seen, "gutter_px": 60}).json()
    assert first["width"]["columns"] == 3 and first["stands"] == "centre"
    assert first["sentence"] == "The second of three columns, gutter 60; 4:3."
    outside = [{"width": 1440, "left": 560, "right": 1880}]
    refused = designer.post(path, {"seen": outside})
    assert refused.status_code == 422 and "reaches out of a page" in refused.content.decode()
    cards = [{"width": 1440, "left": x, "right": x + 320} for x in (180, 560, 940)]
    lines = designer.post(f"{path}/lines", {"seen": cards}).json()
    assert lines["container"]["max_width_px"] == 1080 and lines["columns"] == 3


def test_it_goes_along_in_archives_and_never_into_a_delivery(designer, site, page, bring):
    made = bring(name="home 首页.png").json()
    gone = bring(picture(390, 800, "PNG"), "phone.png").json()
    designer.delete(f"/designs/{gone['id']}")
    archive = b"".join(designer.get(f"/sites/{site['id']}/archive.zip").streaming_content)
    with zipfile.ZipFile(io.BytesIO(archive)) as zipped:
        assert [n for n in zipped.namelist() if n.startswith("designs/")] == [
            f"designs/{Design.objects.get(id=made['id']).sha256[:12]}-home 首页.png"
        ]
    upload = io.BytesIO(archive)
    upload.name = "site.zip"
    there = designer.client.post("/api/sites/archive", {"file": upload}).json()
    (other,) = there["pages"]
    (copied,) = designer.get(f"/pages/{other['id']}/designs").json()
    assert copied["id"] != made["id"]
    assert {k: v for k, v in copied.items() if k not in ("id", "url")} == {
        k: v for k, v in made.items() if k not in ("id", "url")
    }
    kept = b"".join(designer.client.get(copied["url"]).streaming_content)
    assert kept == picture(1440, 900, "PNG")


def test_an_archive_whose_design_is_another_picture_is_refused(designer, site, bring):
    bring()
    archive = b"".join(designer.get(f"/sites/{site['id']}/archive.zip").streaming_content)
    out = io.BytesIO()
    with zipfile.ZipFile(io.BytesIO(archive)) as old, zipfile.ZipFile(out, "w") as new:
        for entry in old.infolist():
            swapped = entry.filename.startswith("designs/")
            new.writestr(entry.filename, picture(9, 9) if swapped else old.read(entry))
    out.seek(0)
    out.name = "site.zip"
    answer = designer.client.post("/api/sites/archive", {"file": out})
    assert answer.status_code == 422 and "not the picture" in answer.json()["detail"]
