"""Runs: made once, stopped, queued again, downloaded, proven."""

import io
import json
import zipfile
from datetime import timedelta

import pytest
from conftest import own, with_own
from deliveries import work
from deliveries.models import Delivery, Rendition
from deliveries.tasks import requeue_lost, run_delivery
from django.utils import timezone
from PIL import Image
from placements.models import Placement

pytestmark = [pytest.mark.django_db, pytest.mark.slow]


@pytest.fixture(autouse=True)
def queue(monkeypatch):
    """Messages are noted, not sent; tests run the work themselves. The browser tests use a real
    worker."""
    sent = []
    monkeypatch.setattr(run_delivery, "apply_async", lambda args, **_: sent.append(*args))
    return sent


def export(api, placement):
    started = api.post(f"/placements/{placement['id']}/deliveries").json()
    work.run(started["id"])
    return api.get(f"/deliveries/{started['id']}").json()


def unzip(api, delivery):
    answer = api.get(f"/deliveries/{delivery['id']}/zip")
    assert answer.status_code == 200
    return zipfile.ZipFile(io.BytesIO(b"".join(answer.streaming_content)))


def test_a_run_makes_every_file_and_a_zip(designer, placement):
    done = export(designer, placement)
    assert (done["state"], done["total"], done["done"], done["reused"]) == ("done", 12, 12, 0)
    archive = unzip(designer, done)
    assert done["handed"] == sum(n.startswith("images/") for n in archive.namelist())
    assert {n for n in archive.namelist() if not n.startswith("images/")} == {
        "page.html",
        "snippet.html",
        "notes.txt",
        "picture.css",
        "manifest.json",
    }
    manifest = json.loads(archive.read("manifest.json"))
    import hashlib

    for entry in manifest["files"]:
        content = archive.read(entry["name"])
        assert (
            len(content) == entry["bytes"]
            and hashlib.sha256(content).hexdigest() == entry["sha256"]
        )
        if entry["format"] != "avif":
            assert Image.open(io.BytesIO(content)).size == (entry["width_px"], entry["height_px"])
    assert archive.read("snippet.html").decode().strip() in "\n".join(
        line.strip(" ") if False else line[4:]
        for line in archive.read("page.html").decode().split("\n")
    )


def test_what_is_there_is_not_made_again(designer, placement, monkeypatch):
    first = export(designer, placement)
    again = export(designer, placement)
    assert again["reused"] == again["total"] == first["total"]
    treatments = {
        **own(placement["placement"]),
        "A": {"height": {"kind": "ratio", "w": 4, "h": 5}},
    }
    designer.put(
        f"/placements/{placement['id']}",
        {
            "revision": placement["revision"],
            "placement": with_own(placement["placement"], treatments=treatments),
        },
    )
    changed = export(designer, placement)
    new = [f["name"] for f in changed["files"] if not f["reused"]]
    assert len(new) == 6 and all("--a" in name for name in new)


def test_another_cut_has_another_name_and_an_earlier_one_its_own_again(designer, placement):
    """Else a browser that has kept the old file shows it for the new one."""

    def names(focal):
        kept = designer.get(f"/placements/{placement['id']}").json()
        flat = {"height": {"kind": "ratio", "w": 4, "h": 1}}
        treatments = {"D": {**own(kept["placement"])["D"], **flat}}
        noun = with_own(kept["placement"], treatments=treatments)
        body = {"revision": kept["revision"], "placement": noun}
        id_ = next(iter(kept["looks"]))
        body["looks"] = {id_: {"focal": focal, "areas": []}}
        assert designer.put(f"/placements/{placement['id']}", body).status_code == 200
        read = {"placement": body["placement"], "placement_id": placement["id"]}
        read["looks"] = body["looks"]
        told = designer.post(f"/sites/{kept['site_id']}/readings", read).json()["code"]
        path = f"/placements/{placement['id']}/deliveries"
        started = designer.post(path).json()
        work.run(started["id"])
        done = designer.get(f"/deliveries/{started['id']}").json()
        # what the desk says is what is handed over, before and after
        handed = {f["name"].removeprefix("images/") for f in done["files"]}
        assert any(name in json.dumps(told) for name in handed)
        return handed

    first = names([0.5, 0.2])
    assert not any("_v" in name for name in first)
    assert names([0.5, 0.2]) == first
    second = names([0.5, 0.8])
    assert second == {n.replace("lighthouse", "lighthouse_v2") for n in first}
    assert names([0.5, 0.2]) == first and names([0.5, 0.8]) == second
    third = names([0.5, 0.5])
    assert third == {n.replace("lighthouse", "lighthouse_v3") for n in first}


def test_a_quick_look_is_not_handed_over_and_takes_no_name(designer, placement):
    quick = designer.post(f"/placements/{placement['id']}/deliveries?effort=quick").json()
    work.run(quick["id"])
    assert Placement.objects.get(id=placement["id"]).handed == {}


def test_a_new_name_needs_no_new_files(designer, placement):
    export(designer, placement)
    designer.put(
        f"/placements/{placement['id']}",
        {
            "revision": placement["revision"],
            "placement": {**placement["placement"], "name": "Tower"},
        },
    )
    renamed = export(designer, placement)
    assert renamed["reused"] == renamed["total"] and renamed["files"][-1]["name"].startswith(
        "images/tower"
    )


def test_an_open_run_is_answered_instead_of_a_second(designer, placement, queue):
    first = designer.post(f"/placements/{placement['id']}/deliveries").json()
    second = designer.post(f"/placements/{placement['id']}/deliveries").json()
    assert first["id"] == second["id"] and queue == [first["id"]]


def test_a_run_can_be_stopped_before_and_while_it_works(designer, placement, monkeypatch):
    queued = designer.post(f"/placements/{placement['id']}/deliveries").json()
    assert designer.post(f"/deliveries/{queued['id']}/stop").json()["state"] == "stopped"
    work.run(queued["id"])
    assert Rendition.objects.count() == 0

    running = designer.post(f"/placements/{placement['id']}/deliveries").json()
    real = work._tick
    ticks = []

    def stop_at_the_third(delivery, current):
        ticks.append(current)
        if len(ticks) == 3:
            assert designer.post(f"/deliveries/{running['id']}/stop").json()["state"] == "stopping"
        real(delivery, current)

    monkeypatch.setattr(work, "_tick", stop_at_the_third)
    work.run(running["id"])
    stopped = designer.get(f"/deliveries/{running['id']}").json()
    assert stopped["state"] == "stopped" and stopped["done"] == 2 == Rendition.objects.count()
    assert designer.get(f"/deliveries/{running['id']}/zip").status_code == 409


def test_a_worker_that_dies_loses_nothing(designer, placement, monkeypatch, queue):
    started = designer.post(f"/placements/{placement['id']}/deliveries").json()
    real, count = work.keep, []

    def die_at_the_fourth(path, name):
        count.append(name)
        if len(count) == 4:
            raise SystemExit("killed")
        real(path, name)

    monkeypatch.setattr(work, "keep", die_at_the_fourth)
    with pytest.raises(SystemExit):
        work.run(started["id"])
    monkeypatch.setattr(work, "keep", real)
    assert (
        designer.get(f"/deliveries/{started['id']}").json()["state"] == "running"
        and Rendition.objects.count() == 3
    )
    Delivery.objects.update(beat=timezone.now())
    assert requeue_lost() == 0  # it may still be at work
    Delivery.objects.update(beat=timezone.now() - timedelta(seconds=30))
    assert requeue_lost() == 1 and queue[-1] == started["id"]
    work.run(started["id"])
    assert designer.get(f"/deliveries/{started['id']}").json()["state"] == "done"


def test_a_lost_message_is_sent_again(designer, placement, queue):
    started = designer.post(f"/placements/{placement['id']}/deliveries").json()
    queue.clear()
    assert requeue_lost() == 1 and queue == [started["id"]]


def test_a_run_whose_original_is_gone_fails_with_a_sentence(designer, placement):
    from originals.models import Original

    started = designer.post(f"/placements/{placement['id']}/deliveries").json()
    Original.objects.all().delete()
    work.run(started["id"])
    failed = designer.get(f"/deliveries/{started['id']}").json()
    assert failed["state"] == "failed" and "removed or replaced meanwhile" in failed["message"]


def test_nothing_to_export_is_said(designer, page):
    empty = designer.post(
        f"/pages/{page['id']}/placements", {"placement": {"name": "Empty"}}
    ).json()
    answer = designer.post(f"/placements/{empty['id']}/deliveries")
    assert answer.status_code == 422 and "no picture in span A, B, C, D" in answer.json()["detail"]


def test_whether_an_export_is_current(designer, placement):
    done = export(designer, placement)
    assert done["is_current"] is True
    designer.put(
        f"/placements/{placement['id']}",
        {
            "revision": placement["revision"],
            "placement": with_own(placement["placement"], alt="New words"),
        },
    )
    assert designer.get(f"/deliveries/{done['id']}").json()["is_current"] is False
    assert (
        designer.get(f"/placements/{placement['id']}/deliveries/latest?state=done").json()["id"]
        == done["id"]
    )


def test_predictions_name_file_px_bytes_and_reasons(designer, placement):
    done = export(designer, placement)
    found = designer.post(f"/deliveries/{done['id']}/picks", {}).json()
    assert len(found) == 16  # four spans, both bounds, two densities
    first = found[0]
    assert (
        first["url"] == "images/lighthouse--a.avif"
        and first["file"]["width_px"] == 120
        and first["file"]["size_bytes"] > 0
    )
    assert first["trace"][-1]["taken"] is True
    one = designer.post(
        f"/deliveries/{done['id']}/picks",
        {"cases": [{"width": 700, "height": 900, "density": 2, "formats": "jpeg"}]},
    ).json()
    assert [p["url"] for p in one] == ["images/lighthouse@2x.jpg"]


def test_predictions_are_made_in_both_orientations_where_the_markup_asks(
    designer, page, original, placement
):
    """A viewport is upright where it is at least as high as it is wide (Media Queries Level 4,
    §4.4)."""

    def predicted(placement):
        done = export(designer, placement)
        return designer.post(f"/deliveries/{done['id']}/picks", {"densities": [1]}).json()

    assert len(predicted(placement)) == 8
    cut = {"original": original["id"], "height": {"kind": "ratio", "w": 4, "h": 1}}
    shown = {"D": {"original": original["id"]}}
    other = {"of": "mark", "when": ["portrait"], "treatments": shown}
    parts = [{"key": "mark", "treatments": {"D": cut}}, other]
    logo = {"name": "Mark", "kind": "logo", "parts": parts}
    made = designer.post(f"/pages/{page['id']}/placements", {"placement": logo})
    assert made.status_code == 201, made.json()
    found = predicted(made.json())
    assert len(found) == 16  # four spans, both bounds, lying and upright
    cases = [(p["case"]["width"], p["case"]["height"]) for p in found]
    for width in {w for w, _ in cases}:
        assert sorted(h >= w for w, h in cases if w == width) == [False, True]


def test_a_picture_that_came_after_the_export_is_not_predicted(designer, placement):
    done = export(designer, placement)
    refused = designer.post(f"/deliveries/{done['id']}/picks", {"part": 1})
    assert refused.status_code == 409
    assert refused.json()["detail"] == (
        "This export has 1 picture; number 2 came later. Export the placement again."
    )


def test_the_delivered_page_is_served_as_it_is(designer, placement):
    done = export(designer, placement)
    tree = f"/deliveries/{done['id']}/tree/t1"
    page = designer.get(f"{tree}/page.html")
    assert page["Content-Type"].startswith("text/html") and page["Cache-Control"] == "no-store"
    image = designer.get(f"{tree}/images/lighthouse.avif")
    assert image["Content-Type"] == "image/avif"
    assert designer.get(f"{tree}/images/nothing.avif").status_code == 404
    assert designer.get(f"{tree}/../../../secret").status_code == 404


def test_runs_of_a_site_are_listed(designer, site, placement):
    done = export(designer, placement)
    (row,) = designer.get(f"/sites/{site['id']}/deliveries").json()
    assert row["id"] == done["id"] and row["name"] == "Lighthouse" and row["size_bytes"] > 0


def test_a_run_names_the_formats_of_its_placements(designer, site, placement):
    """Those of the site, or a placement's own."""
    designer.post(f"/placements/{placement['id']}/deliveries")
    own_formats = {**placement["placement"], "formats": ["webp", "jpeg"]}
    saved = designer.put(
        f"/placements/{placement['id']}",
        {"revision": placement["revision"], "placement": own_formats, "looks": {}},
    )
    assert saved.status_code == 200, saved.content
    Delivery.objects.update(state="stopped")
    designer.post(f"/placements/{placement['id']}/deliveries")
    rows = designer.get(f"/sites/{site['id']}/deliveries").json()
    assert [r["what"].rpartition(" · ")[2] for r in rows] == ["WebP, JPEG", "AVIF, WebP, JPEG"]


def test_what_was_made_is_weighed_in_the_reading(designer, site, placement):
    export(designer, placement)
    reading = designer.post(
        f"/sites/{site['id']}/readings", {"placement": placement["placement"]}
    ).json()
    assert all(f["size_bytes"] for row in reading["files"] for f in row["formats"])
    assert {
        r["verdict"]
        for b in reading["parts"]["0"]["bands"]
        if b["kind"] == "weight"
        for r in b["runs"]
    } == {"light"}
