"""Runs of a page and of a site: what is in them, why files are made, what changed, what can go."""

import io
import json
import zipfile

import pytest
from common.slots import slot
from conftest import one_part, own, picture, with_own
from deliveries import sweeping, work
from deliveries.models import Delivery, Rendition
from deliveries.tasks import run_delivery
from django.core.files.storage import default_storage

pytestmark = [pytest.mark.django_db, pytest.mark.slow]


@pytest.fixture(autouse=True)
def queue(monkeypatch):
    sent = []
    monkeypatch.setattr(run_delivery, "apply_async", lambda args, **_: sent.append(*args))
    return sent


@pytest.fixture
def second(designer, site):
    """Another page with a placement that shows a picture and one that waits for its own."""
    page = designer.post(f"/sites/{site['id']}/pages", {"title": "Visit"}).json()
    other = designer.bring(site["id"], picture(seed=3), "other.jpg").json()
    shown = one_part(
        "Cottage", {"D": {"original": other["id"], "width": {"kind": "fixed", "width_px": 100}}}
    )
    designer.post(f"/pages/{page['id']}/placements", {"placement": shown})
    designer.post(f"/pages/{page['id']}/placements", {"placement": one_part("Waiting", {})})
    return page


def start(designer, kind, id_):
    answer = designer.post(f"/{kind}/{id_}/deliveries")
    assert answer.status_code == 201, answer.json()
    return answer.json()


def export(designer, kind, id_):
    started = start(designer, kind, id_)
    work.run(started["id"])
    done = designer.get(f"/deliveries/{started['id']}").json()
    assert done["state"] == "done", done["message"]
    return done


def unzip(designer, delivery):
    answer = designer.get(f"/deliveries/{delivery['id']}/zip")
    return zipfile.ZipFile(io.BytesIO(b"".join(answer.streaming_content)))


def taller(designer, placement):
    now = designer.get(f"/placements/{placement['id']}").json()
    treatments = {**own(now["placement"]), "A": {"height": {"kind": "ratio", "w": 4, "h": 5}}}
    body = {
        "revision": now["revision"],
        "placement": with_own(now["placement"], treatments=treatments),
    }
    assert designer.put(f"/placements/{placement['id']}", body).status_code == 200


def test_a_site_is_one_press(designer, site, placement, second):
    done = export(designer, "sites", site["id"])
    assert (done["scope"], done["name"], done["placement_id"]) == ("site", "Tern Point", None)
    archive = unzip(designer, done)
    texts = {n for n in archive.namelist() if not n.startswith("images/")}
    assert texts == {
        "home.html",
        "visit.html",
        "index.html",
        "pictures.css",
        "snippets/lighthouse.html",
        "snippets/cottage.html",
        "manifest.json",
        "notes.txt",
    }
    manifest = json.loads(archive.read("manifest.json"))
    assert [p["placement"] for p in manifest["placements"]] == ["Lighthouse", "Cottage"]
    names = {f["name"] for f in manifest["files"]}
    assert names == {n for n in archive.namelist() if n.startswith("images/")}
    assert all(f["ssim"] >= manifest["likeness"] for f in manifest["files"] if "ssim" in f)
    # its pages are there to be looked at, predictions are of one placement
    assert designer.get(f"/deliveries/{done['id']}/tree/0/visit.html").status_code == 200
    assert designer.get(f"/deliveries/{done['id']}/tree/0/snippets/cottage.html").status_code == 200
    assert designer.post(f"/deliveries/{done['id']}/picks", {}).status_code == 409


def test_a_page_holds_its_placements_alone(designer, placement, second):
    done = export(designer, "pages", second["id"])
    assert (done["scope"], done["name"]) == ("page", "Visit")
    assert all(f["name"].startswith("images/cottage") for f in done["files"])


def test_equal_deliveries_are_equal_zips(designer, site, placement, second):
    """In whatever order several children make the files."""

    def contents():
        done = export(designer, "sites", site["id"])
        answer = designer.get(f"/deliveries/{done['id']}/zip")
        return b"".join(answer.streaming_content)

    first = contents()
    for row in Rendition.objects.all():
        default_storage.delete(row.stored)
    assert contents() == first


def test_every_file_says_why_it_is_made_or_was_there(designer, placement):
    first = export(designer, "placements", placement["id"])
    assert {f["why"] for f in first["files"]} == {"not there before"}
    taller(designer, placement)
    second = export(designer, "placements", placement["id"])
    whys = {f["why"] for f in second["files"] if not f["reused"]}
    assert whys == {"another cut and another size"} or whys == {"another cut"}
    assert {f["why"] for f in second["files"] if f["reused"]} == {
        "the same cut, size, format and likeness"
    }


def test_what_changed_since_the_run_before_is_told(designer, site, placement):
    first = export(designer, "placements", placement["id"])
    assert designer.get(f"/deliveries/{first['id']}/changes").json() is None
    taller(designer, placement)
    second = export(designer, "placements", placement["id"])
    changes = designer.get(f"/deliveries/{second['id']}/changes").json()
    assert (changes["before"], changes["after"]) == (first["id"], second["id"])
    assert changes["files"] and all("--a" in f["name"] for f in changes["files"])
    assert changes["same"] == 6
    listed = designer.get(f"/sites/{site['id']}/deliveries").json()
    assert listed[1]["since"] is None
    since = listed[0]["since"]
    assert since["id"] == first["id"]
    assert since["bytes_more"] == changes["after_bytes"] - changes["before_bytes"]
    assert sum(since[k] for k in ("added", "removed", "heavier", "lighter", "other")) == 6


def test_a_run_that_was_stopped_goes_on_where_it_was(designer, placement, queue, monkeypatch):
    started = start(designer, "placements", placement["id"])
    real, seen = work._tick, []

    def stop_soon(delivery, current):
        seen.append(current)
        if len(seen) == 4:
            designer.post(f"/deliveries/{started['id']}/stop")
        real(delivery, current)

    monkeypatch.setattr(work, "_tick", stop_soon)
    work.run(started["id"])
    stopped = designer.get(f"/deliveries/{started['id']}").json()
    assert stopped["state"] == "stopped" and 0 < stopped["done"] < stopped["total"]
    monkeypatch.setattr(work, "_tick", real)
    resumed = designer.post(f"/deliveries/{started['id']}/resume").json()
    assert resumed["state"] == "queued" and queue == [started["id"]] * 2
    work.run(started["id"])
    assert designer.get(f"/deliveries/{started['id']}").json()["state"] == "done"
    again = designer.post(f"/deliveries/{started['id']}/resume")
    assert again.status_code == 409 and "not ended early" in again.json()["detail"]


def test_a_format_that_is_no_smaller_is_made_but_not_handed_over(designer, placement, monkeypatch):
    real = work.encoding_guard

    class Padded:
        """An encoder whose AVIF are large."""

        def make(self, *args):
            for r, path, fact in real().make(*args):
                if r.format == "avif":
                    path.write_bytes(path.read_bytes() + b"\0" * 500_000)
                    fact = fact._replace(size_bytes=path.stat().st_size)
                yield r, path, fact

    monkeypatch.setattr(work, "encoding_guard", Padded)
    done = export(designer, "placements", placement["id"])
    assert {f["left_out"] for f in done["files"] if f["name"].endswith(".avif")} == {True}
    archive = unzip(designer, done)
    assert not any(n.endswith(".avif") for n in archive.namelist())
    assert "avif" not in archive.read("snippet.html").decode()
    assert done["size_bytes"] < 500_000 and done["is_current"]
    body = {"placement": placement["placement"], "placement_id": placement["id"]}
    reading = designer.post(f"/sites/{placement['site_id']}/readings", body).json()
    formats = [x for row in reading["files"] for x in row["formats"]]
    assert {x["left_out"] for x in formats if x["format"] == "avif"} == {True}
    assert "image/avif" not in reading["code"]["markup_text"]


def test_what_nothing_refers_to_can_be_looked_at_and_cleared(designer, site, placement):
    first = export(designer, "placements", placement["id"])
    assert designer.get(f"/sites/{site['id']}/deliveries/clearing").json()["deliveries"] == []
    taller(designer, placement)
    second = export(designer, "placements", placement["id"])
    shared = {f["key"] for f in first["files"]} & {f["key"] for f in second["files"]}
    told = designer.get(f"/sites/{site['id']}/deliveries/clearing").json()
    assert len(told["deliveries"]) == 1 and told["files"] == first["total"] - len(shared)
    old = [f["key"] for f in first["files"] if f["key"] not in shared]
    gone = [r.stored for r in Rendition.objects.filter(key__in=old)]
    assert designer.post(f"/sites/{site['id']}/deliveries/clearing").json() == told
    assert designer.get(f"/deliveries/{first['id']}").status_code == 404
    assert not any(default_storage.exists(name) for name in gone)
    assert designer.get(f"/deliveries/{second['id']}/zip").status_code == 200
    assert designer.get(f"/sites/{site['id']}/deliveries/clearing").json()["size_bytes"] == 0


def test_clearing_keeps_what_a_run_that_is_open_refers_to(designer, site, placement):
    export(designer, "placements", placement["id"])
    export(designer, "placements", placement["id"])
    start(designer, "placements", placement["id"])
    found = sweeping.clearing(sweeping.Site.objects.get(id=site["id"]))
    assert len(found.deliveries) == 1 and not found.renditions
    assert Delivery.objects.count() == 3


def test_nobody_starts_or_clears_in_somebody_else_s_site(stranger, designer, site, placement, page):
    done = export(designer, "placements", placement["id"])
    for method, path in (
        ("post", f"/sites/{site['id']}/deliveries"),
        ("post", f"/pages/{page['id']}/deliveries"),
        ("get", f"/sites/{site['id']}/deliveries/clearing"),
        ("post", f"/sites/{site['id']}/deliveries/clearing"),
        ("get", f"/deliveries/{done['id']}/changes"),
        ("post", f"/deliveries/{done['id']}/resume"),
    ):
        assert getattr(stranger, method)(path).status_code == 404, path


def test_a_site_without_pictures_says_so(designer, site):
    answer = designer.post(f"/sites/{site['id']}/deliveries")
    assert answer.status_code == 422 and "no placement has a picture" in answer.json()["detail"]


def test_names_that_would_meet_are_refused(designer, site, page, original):
    """With a hyphen before widths, “Boat” at 120 px and “Boat 120w” would be one name."""
    now = designer.get(f"/sites/{site['id']}").json()
    naming = {**now["plan"]["naming"], "width_lead": "-"}
    plan = {**now["plan"], "densities": [1], "naming": naming}
    designer.put(f"/sites/{site['id']}", {"name": "x", "revision": now["revision"], "plan": plan})
    for name, width, lists in (("Boat", 120, "widths"), ("Boat 120w", 60, "densities")):
        wide = {"original": original["id"], "width": {"kind": "fixed", "width_px": width}}
        body = {"placement": {**one_part(name, {"D": wide}), "lists": lists}}
        assert designer.post(f"/pages/{page['id']}/placements", body).status_code == 201
    answer = designer.post(f"/sites/{site['id']}/deliveries")
    assert answer.status_code == 422
    assert "Two files would be called boat-120w.avif" in answer.json()["detail"]


def test_slots_are_as_many_as_cores_and_given_back(settings):
    settings.ENCODE_AT_ONCE = 1
    with slot(lambda: False) as one:
        assert one
        with slot(lambda: True) as other:
            assert not other
        tries = iter([False, False, True])
        with slot(lambda: next(tries)) as third:
            assert not third
    with slot(lambda: False) as again:
        assert again


def test_a_quick_look_says_about_what_comes_of_it_and_hands_nothing_over_for_good(
    designer, placement
):
    answer = designer.post(f"/placements/{placement['id']}/deliveries?effort=quick")
    work.run(answer.json()["id"])
    looked = designer.get(f"/deliveries/{answer.json()['id']}").json()
    assert looked["state"] == "done" and looked["effort"] == "quick" and looked["is_current"]
    body = {"placement": placement["placement"], "placement_id": placement["id"]}

    def formats():
        reading = designer.post(f"/sites/{placement['site_id']}/readings", body).json()
        return [x for row in reading["files"] for x in row["formats"]]

    assert all(x["quick"] and x["size_bytes"] for x in formats())
    export(designer, "placements", placement["id"])
    assert not any(x["quick"] for x in formats())
