"""A site as a file: what comes back is equal in every value; what is wrong changes nothing."""

import io
import json
import zipfile

import pytest
from conftest import own, picture
from deliveries import work
from deliveries.tasks import run_delivery
from originals.models import Original
from sites.models import Site
from skypane import build
from skypane.build import read_build
from skypane.sitefile import read_site_file

pytestmark = [pytest.mark.django_db, pytest.mark.slow]


@pytest.fixture(autouse=True)
def queue(monkeypatch):
    monkeypatch.setattr(run_delivery, "apply_async", lambda args, **_: None)


@pytest.fixture
def told(designer, site, placement, original):
    """A site with values of every kind: areas, words, a named frame, own widths, titles."""
    area = {
        "name": "Boat 岬",
        "rect": {"x": 0.1, "y": 0.2, "w": 0.3, "h": 0.4},
        "kind": "keep",
        "least_px": 40,
        "lettering": True,
    }
    look = {"focal": [0.25, 0.75], "areas": [area]}
    now = designer.get(f"/placements/{placement['id']}").json()
    body = {**now["placement"], "n_files": 3, "formats": ["webp", "jpeg"], "lists": "widths"}
    body["parts"][0]["ladders"] = {"D": [60, 90]}
    body["parts"][0]["alt"] = "A <b>boat</b>"
    saved = designer.put(
        f"/placements/{placement['id']}",
        {
            "revision": now["revision"],
            "placement": body,
            "looks": {original["id"]: look},
            "look_revisions": now["look_revisions"],
        },
    )
    assert saved.status_code == 200, saved.json()
    designer.patch(f"/originals/{original['id']}", {"alt": "", "tags": ["home", "Äpfel"]})
    revision = saved.json()["revision"]
    named = {"revision": revision, "name": "Hero"}
    assert designer.post(f"/placements/{placement['id']}/frame", named).status_code == 200
    plan = designer.get(f"/sites/{site['id']}").json()
    changed = {**plan["plan"], "titles": {"A": "phone"}, "likeness": 0.93, "media_style": "range"}
    answer = designer.put(
        f"/sites/{site['id']}", {"name": "Térn", "revision": plan["revision"], "plan": changed}
    )
    assert answer.status_code == 200, answer.json()
    designer.post(f"/sites/{site['id']}/pages", {"title": "Empty"})
    return site


def exported(designer, site):
    answer = designer.get(f"/sites/{site['id']}/archive.zip")
    assert answer.status_code == 200
    return b"".join(answer.streaming_content)


def bring(api, data, name="site.zip"):
    upload = io.BytesIO(data)
    upload.name = name
    return api.client.post("/api/sites/archive", {"file": upload})


def changed(data, names=None, **texts):
    """The archive with other entries."""
    out = io.BytesIO()
    with zipfile.ZipFile(io.BytesIO(data)) as old, zipfile.ZipFile(out, "w") as new:
        for entry in old.infolist():
            text = texts.get(entry.filename.replace(".", "_"))
            content = old.read(entry) if text is None else text
            if content != b"":
                new.writestr((names or {}).get(entry.filename, entry.filename), content)
    return out.getvalue()


def said(data):
    return json.loads(zipfile.ZipFile(io.BytesIO(data)).read("site.json"))


def test_a_site_comes_back_equal_in_every_value(designer, stranger, told):
    first = exported(designer, told)
    made = bring(stranger, first)
    assert made.status_code == 201, made.json()
    again = exported(stranger, made.json())
    assert said(again) == said(first)
    assert read_site_file(json.dumps(said(again))) == read_site_file(json.dumps(said(first)))
    with zipfile.ZipFile(io.BytesIO(first)) as a, zipfile.ZipFile(io.BytesIO(again)) as b:
        assert a.namelist() == b.namelist() == ["site.json", "originals/boats.jpg"]
        assert a.read("originals/boats.jpg") == b.read("originals/boats.jpg")
    # and everything of it works there
    (row,) = stranger.get(f"/sites/{made.json()['id']}/placements").json()
    assert row["error"] is None
    run = stranger.post(f"/sites/{made.json()['id']}/deliveries").json()
    work.run(run["id"])
    assert stranger.get(f"/deliveries/{run['id']}").json()["state"] == "done"


def test_the_file_alone_is_there_too(designer, told):
    answer = designer.get(f"/sites/{told['id']}/site.json")
    found = read_site_file(answer.content.decode())
    assert found.name == "Térn" and [p.title for p in found.pages] == ["Home", "Empty"]
    assert found.originals[0].file == "boats.jpg" and found.pages[0].placements[0].frame == "hero"


@pytest.mark.parametrize(
    ("text", "sentence"),
    [
        (b"{", "no JSON: expecting property name"),
        (b"\xff\xfe", "not in UTF-8"),
        (b"[]", "no site of Sky Pane"),
        (b'{"skypane": "site"}', "does not say its version"),
        (b'{"skypane": "site", "version": 99}', "written by a newer version (99"),
        (
            b'{"skypane": "site", "version": 5, "name": "x", "site": {"narrowest": "wide"}}',
            "site.json, site.narrowest",
        ),
        (
            b'{"skypane": "site", "version": 5, "name": "x", "site": {}, "more": 1}',
            "site.json, more: It is not known",
        ),
        (
            b'{"skypane": "site", "version": 3, "name": "x", "site": {}, "pages": 7}',
            "not made as its version says",
        ),
        (b"[" * 200_000, "nested too deeply"),
    ],
)
def test_a_file_that_cannot_be_taken_says_where(designer, told, text, sentence):
    data = changed(exported(designer, told), site_json=text)
    before = Site.objects.count(), Original.objects.count()
    answer = bring(designer, data)
    assert answer.status_code == 422 and sentence in answer.json()["detail"]
    assert (Site.objects.count(), Original.objects.count()) == before


def hostile(kind):
    out = io.BytesIO()
    with zipfile.ZipFile(out, "w", zipfile.ZIP_DEFLATED) as archive:
        if kind == "out":
            archive.writestr("../evil.txt", "x")
        elif kind == "root":
            archive.writestr("/etc/evil", "x")
        elif kind == "drive":
            archive.writestr("C:\\evil", "x")
        elif kind == "link":
            entry = zipfile.ZipInfo("originals/a.jpg")
            entry.external_attr = 0o120777 << 16
            archive.writestr(entry, "/etc/passwd")
        elif kind == "many":
            for i in range(100_000):
                archive.writestr(f"e{i}", "")
        elif kind == "bomb":
            archive.writestr("site.json", b"\0" * 60_000_000)
        elif kind == "empty":
            pass
    return out.getvalue()


@pytest.mark.parametrize(
    ("kind", "sentence"),
    [
        ("out", "an entry outside of itself: ../evil.txt"),
        ("root", "an entry outside of itself"),
        ("drive", "an entry outside of itself"),
        ("link", "a link in it"),
        ("many", "more than 25000 entries"),
        ("bomb", "would unpack to 60 MB"),
        ("empty", "no site.json"),
    ],
)
def test_a_zip_that_is_made_to_do_harm_is_refused(designer, kind, sentence):
    answer = bring(designer, hostile(kind))
    assert answer.status_code == 422 and sentence in answer.json()["detail"]


def test_what_is_no_zip_or_a_damaged_one_is_refused(designer, told):
    whole = exported(designer, told)
    for data in (b"", b"hello", picture(), whole[: len(whole) // 2], whole[:-30]):
        answer = bring(designer, data)
        assert answer.status_code in (400, 422), answer.status_code
        assert answer.json()["detail"]


def test_originals_that_are_missing_changed_or_no_pictures_change_nothing(designer, told):
    whole, before = exported(designer, told), Site.objects.count()
    for data, sentence in (
        (changed(whole, **{"originals/boats_jpg": b""}), "missing"),
        (changed(whole, **{"originals/boats_jpg": picture(seed=9)}), "not the picture"),
        (changed(whole, names={"originals/boats.jpg": "originals/other.jpg"}), "missing"),
    ):
        answer = bring(designer, data)
        assert answer.status_code == 422 and sentence in answer.json()["detail"]
    assert Site.objects.count() == before


def test_a_placement_that_cannot_be_is_named(designer, told):
    whole = exported(designer, told)
    body = said(whole)
    body["pages"][0]["placements"][0]["frame"] = "gone"
    answer = bring(designer, changed(whole, site_json=json.dumps(body).encode()))
    assert answer.status_code == 422
    assert answer.json()["detail"].startswith("Home · Lighthouse: The frame gone is not")


def test_somebody_else_s_site_is_not_given_out(stranger, told):
    for path in ("site.json", "archive.zip"):
        assert stranger.get(f"/sites/{told['id']}/{path}").status_code == 404


def test_an_older_version_is_lifted(designer, told):
    body = said(exported(designer, told))
    body["version"], body["site"] = 3, {"quality": {"avif": 50}}
    placement = body["pages"][0]["placements"][0]
    placement["frame"] = None
    found = read_site_file(json.dumps(body))
    assert found.site.lists == "densities" and own(found.pages[0].placements[0].model_dump())


def test_a_build_from_the_shell_makes_the_same_bytes(designer, told, tmp_path):
    """The application's delivery of a site, and the core's from its file."""
    started = designer.post(f"/sites/{told['id']}/deliveries").json()
    work.run(started["id"])
    answer = designer.get(f"/deliveries/{started['id']}/zip")
    delivered = zipfile.ZipFile(io.BytesIO(b"".join(answer.streaming_content)))
    with zipfile.ZipFile(io.BytesIO(exported(designer, told))) as archive:
        archive.extractall(tmp_path)
    asked = read_build(tmp_path / "site.json", tmp_path / "originals", tmp_path / "out")
    build.export(asked, workers=1)
    made = {
        p.relative_to(tmp_path / "out").as_posix(): p.read_bytes()
        for p in (tmp_path / "out").rglob("*")
        if p.is_file() and p.name != build.KNOWN
    }
    assert made == {name: delivered.read(name) for name in delivered.namelist()}


@pytest.mark.parametrize(
    ("also", "sentence"),
    [
        ({1: [[0, 0], [0, 0]]}, "shows a placement of another page twice"),
        ({0: [[0, 0]]}, "shows its own placement 0 as a guest"),
        ({1: [[7, 0]]}, "and there is none"),
    ],
)
def test_guests_that_cannot_be_are_refused_in_words(designer, told, also, sentence):
    data = exported(designer, told)
    file = said(data)
    for page, guests in also.items():
        file["pages"][page]["also"] = guests
    before = Site.objects.count()
    answer = bring(designer, changed(data, site_json=json.dumps(file).encode()))
    assert answer.status_code == 422 and sentence in answer.json()["detail"]
    assert Site.objects.count() == before


def test_what_a_file_says_was_handed_over_is_not_believed(designer, told):
    """Names of files follow from what was handed over here."""
    data = exported(designer, told)
    file = said(data)
    file["pages"][0]["placements"][0]["handed"] = {"lighthouse": ["0" * 12]}
    made = bring(designer, changed(data, site_json=json.dumps(file).encode()))
    assert made.status_code == 201
    (row,) = designer.get(f"/sites/{made.json()['id']}/placements").json()
    kept = designer.get(f"/placements/{row['id']}").json()["placement"]
    assert not kept.get("handed")


def test_a_site_whose_placement_names_an_original_that_is_gone_travels(designer, site, placement):
    """What is missing is said where it stands, before and after."""
    Original.objects.all().delete()

    def said(of):
        (row,) = designer.get(f"/sites/{of['id']}/placements").json()
        return row["error"]

    assert "an original that is not in this site. Choose another." in said(site)
    text = designer.get(f"/sites/{site['id']}/site.json").content.decode()
    assert json.loads(text)["originals"] == []
    taken = bring(designer, exported(designer, site))
    assert taken.status_code == 201
    assert said(taken.json()) == said(site)
