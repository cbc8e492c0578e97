"""What goes wrong around the product: full disks, two people at once, workers and connections that
die. Nothing kept is lost."""

import contextlib
import errno
import hashlib
import io
import json
import os
import subprocess
import threading
import time
import zipfile
from datetime import timedelta
from pathlib import Path

import pytest
from common import files
from common.db import code_of, in_one_go, locked
from common.files import keep
from common.threads import beating
from conftest import Api, one_part, picture, with_own
from deliveries import runs, work
from deliveries.models import Delivery, Rendition, Worker
from deliveries.tasks import requeue_lost, run_delivery, signs_of_life
from django.core.files.storage import default_storage
from django.db import connection, connections
from django.utils import timezone
from originals.models import Original
from placements.models import Placement
from sites.models import Membership
from skypane.errors import NoRoom
from skypane.model.stored import VERSION

pytestmark = [pytest.mark.django_db(transaction=True), pytest.mark.slow]


@pytest.fixture(autouse=True)
def queue(monkeypatch):
    sent = []
    monkeypatch.setattr(run_delivery, "apply_async", lambda args, **_: sent.append(*args))
    return sent


def at_once(*works):
    """Every work in a thread with a connection of its own, all begun at the same moment; what they
    give, in order."""
    gate, found = threading.Barrier(len(works)), [None] * len(works)

    def go(i, work):
        gate.wait()
        try:
            found[i] = work()
        except BaseException as error:
            found[i] = error
        finally:
            connections.close_all()

    threads = [threading.Thread(target=go, args=(i, w)) for i, w in enumerate(works)]
    for t in threads:
        t.start()
    for t in threads:
        t.join()
    return found


def another(api):
    """The same designer in another tab."""
    made = Api(None)
    made.client.cookies = api.client.cookies
    return made


# -- one person's heavy pictures --


def test_one_person_s_heavy_drawings_keep_nobody_else_waiting(designer, stranger, site, settings):
    """Four drawings of a few hundred bytes that work until they are ended, and somebody else's
    photograph that is brought after them: it is here before the second of them is done with."""
    settings.PICTURE_LIMITS = {"seconds": 20, "drawing_seconds": 3, "at_once": 2}
    theirs = stranger.post("/sites", {"name": "Elsewhere"}).json()
    knot = '<g id="a0"><rect width="9" height="9"/></g>' + "".join(
        f'<g id="a{i}">' + f'<use href="#a{i - 1}"/>' * 10 + "</g>" for i in range(1, 8)
    )
    svg = f'<svg xmlns="http://www.w3.org/2000/svg" width="900" height="900">{knot}</svg>'.encode()
    ended = []

    def heavy(n):
        answer = another(designer).bring(site["id"], svg, f"knot{n}.svg")
        if answer.status_code == 422:  # worked on until it was ended, not sent away at once
            ended.append("heavy")
        return answer

    def light():
        time.sleep(1)
        answer = stranger.bring(theirs["id"], picture())
        ended.append("light")
        return answer

    *refused, taken = at_once(*[lambda n=n: heavy(n) for n in range(4)], light)
    assert taken.status_code == 201
    assert ended.index("light") < 2
    for answer in refused:
        # whoever has many waiting is told to come back, and the others what to do about it
        assert answer.status_code in (422, 503)
        assert answer.json()["detail"].endswith((".", "layers."))
    assert sum(a.status_code == 422 for a in refused) >= 3


# -- disks --


@pytest.fixture
def small_disk(settings, tmp_path):
    """The media folder on a disk of 300 kB of its own, where the machine lets us mount one; `fill`
    leaves so many bytes."""
    folder = tmp_path / "small"
    folder.mkdir()
    mounted = subprocess.run(
        ["mount", "-t", "tmpfs", "-o", "size=300k", "tmpfs", folder],
        capture_output=True,
        check=False,
    )
    if mounted.returncode:
        pytest.skip("this machine mounts no disks for us")
    settings.MEDIA_ROOT = folder

    class Disk:
        def fill(self):
            ballast = os.open(folder / "ballast", os.O_CREAT | os.O_WRONLY)
            with contextlib.suppress(OSError):
                while os.write(ballast, b"\0" * 4096):
                    pass
            os.close(ballast)

        def free(self):
            (folder / "ballast").unlink()

    yield Disk()
    subprocess.run(["umount", "-l", folder], check=False)


def stored_files(settings):
    return sorted(
        str(p.relative_to(settings.MEDIA_ROOT))
        for p in Path(settings.MEDIA_ROOT).rglob("*")
        if p.is_file()
    )


def test_an_upload_onto_a_full_disk_keeps_nothing_and_says_so(designer, site, small_disk, settings):
    content = picture(1600, 1200)
    small_disk.fill()
    refused = designer.bring(site["id"], content)
    assert refused.status_code == 507 and "no room left on the disk" in refused.json()["detail"]
    assert not Original.objects.exists() and stored_files(settings) == ["ballast"]
    small_disk.free()
    assert designer.bring(site["id"], content).status_code == 201


def test_a_run_onto_a_full_disk_fails_with_a_sentence_and_goes_through_later(
    designer, placement, small_disk, settings
):
    for o in Original.objects.all():  # it was brought to the other disk
        default_storage.save(o.stored, io.BytesIO(picture()))
    small_disk.fill()
    started = designer.post(f"/placements/{placement['id']}/deliveries").json()
    work.run(started["id"])
    failed = designer.get(f"/deliveries/{started['id']}").json()
    assert failed["state"] == "failed" and "no room left on the disk" in failed["message"]
    assert not [name for name in stored_files(settings) if "part" in name]
    small_disk.free()
    again = designer.post(f"/placements/{placement['id']}/deliveries").json()
    work.run(again["id"])
    assert designer.get(f"/deliveries/{again['id']}").json()["state"] == "done"


def test_a_name_never_stands_for_half_a_file(tmp_path, monkeypatch):
    whole = tmp_path / "whole"
    whole.write_bytes(os.urandom(100_000))

    def breaks_off(source, target, *_):
        target.write(source.read(5000))
        raise OSError(errno.ENOSPC, "No space left on device")

    with monkeypatch.context() as broken:
        broken.setattr(files.shutil, "copyfileobj", breaks_off)
        with pytest.raises(NoRoom):
            keep(whole, "originals/aa/x.jpg")
    assert not default_storage.exists("originals/aa/x.jpg")
    # as older code left it
    default_storage.save("originals/aa/x.jpg", io.BytesIO(whole.read_bytes()[:5000]))
    keep(whole, "originals/aa/x.jpg")
    assert default_storage.open("originals/aa/x.jpg").read() == whole.read_bytes()


def test_a_truncated_original_is_healed_by_bringing_it_again(designer, site, placement, original):
    row = Original.objects.get()
    path = Path(default_storage.path(row.stored))
    content = path.read_bytes()
    path.write_bytes(content[: len(content) // 2])
    started = designer.post(f"/placements/{placement['id']}/deliveries").json()
    work.run(started["id"])
    failed = designer.get(f"/deliveries/{started['id']}").json()
    assert (
        failed["state"] == "failed" and "boats.jpg is no longer stored whole" in failed["message"]
    )
    assert designer.bring(site["id"], content).json()["is_new"] is False
    assert path.read_bytes() == content


def test_a_rendition_that_does_not_match_is_made_again(designer, placement):
    def export():
        started = designer.post(f"/placements/{placement['id']}/deliveries").json()
        work.run(started["id"])
        done = designer.get(f"/deliveries/{started['id']}").json()
        answer = designer.get(f"/deliveries/{started['id']}/zip")
        archive = zipfile.ZipFile(io.BytesIO(b"".join(answer.streaming_content)))
        for entry in json.loads(archive.read("manifest.json"))["files"]:
            content = archive.read(entry["name"])
            assert (len(content), hashlib.sha256(content).hexdigest()) == (
                entry["bytes"],
                entry["sha256"],
            )
        return done, answer

    first, _ = export()
    broken = Rendition.objects.first()
    Path(default_storage.path(broken.stored)).write_bytes(b"half")
    second, _ = export()
    assert (first["total"] - second["reused"], second["state"]) == (1, "done")
    gone = Rendition.objects.last()
    default_storage.delete(gone.stored)
    assert export()[0]["state"] == "done"


def test_what_is_in_the_zip_can_be_served_and_equal_runs_are_equal_zips(designer, placement):
    zips = []
    for _ in range(2):
        started = designer.post(f"/placements/{placement['id']}/deliveries").json()
        work.run(started["id"])
        zips.append(b"".join(designer.get(f"/deliveries/{started['id']}/zip").streaming_content))
    assert zips[0] == zips[1]
    assert {
        (e.external_attr >> 16) & 0o777 for e in zipfile.ZipFile(io.BytesIO(zips[0])).infolist()
    } == {0o644}


# -- two at once --


def test_tags_that_eight_add_at_once_all_stay(designer, site, original):
    tabs = [another(designer) for _ in range(8)]
    body = [{"ids": [original["id"]], "add_tags": [f"tag {i}"]} for i in range(8)]
    answers = at_once(
        *(
            lambda t=t, b=b: t.patch(f"/sites/{site['id']}/originals", b)
            for t, b in zip(tabs, body, strict=True)
        )
    )
    assert [a.status_code for a in answers] == [200] * 8
    assert set(Original.objects.get().tags) == {f"tag {i}" for i in range(8)}


def test_a_look_while_a_file_is_replaced_is_kept(designer, original, monkeypatch):
    from common.pictures import guard

    area = {"name": "Mast", "rect": {"x": 0.1, "y": 0.1, "w": 0.2, "h": 0.2}}
    real = guard().inspect

    def looked_at_meanwhile(path, name=""):
        body = {"revision": original["revision"], "focal": [0.2, 0.3], "areas": [area]}
        assert another(designer).put(f"/originals/{original['id']}/look", body).status_code == 200
        return real(path, name)

    monkeypatch.setattr(guard(), "inspect", looked_at_meanwhile)
    upload = io.BytesIO(picture(1600, 1000, seed=9))
    upload.name = "better.jpg"
    answer = designer.client.post(f"/api/originals/{original['id']}/replacement", {"file": upload})
    assert answer.status_code == 200
    row = Original.objects.get()
    assert (row.width_px, row.focal_x, row.areas[0]["name"]) == (1600, 0.2, "Mast")
    assert row.revision == original["revision"] + 1


def test_a_deadlock_is_tried_again(designer, site, original):
    second = designer.bring(site["id"], picture(seed=2), "b.jpg").json()
    ids = [original["id"], second["id"]]
    both, tries = threading.Barrier(2), []

    def crossing(order):
        def work():
            tries.append(order)
            Original.objects.select_for_update().get(id=order[0])
            if len(tries) <= 2:
                both.wait()
            row = Original.objects.select_for_update().get(id=order[1])
            row.tags = [*row.tags, str(order)]
            row.save(update_fields=["tags"])
            return True

        return lambda: in_one_go(work)

    assert at_once(crossing(ids), crossing(ids[::-1])) == [True, True] and len(tries) == 3


def test_renames_looks_and_saves_at_once_all_answer(designer, site, page, original):
    """Two people rename areas while others save: each is done or told that somebody was first, none
    fails."""
    area = lambda name: {"name": name, "rect": {"x": 0.1, "y": 0.1, "w": 0.2, "h": 0.2}}
    designer.put(
        f"/originals/{original['id']}/look",
        {"revision": 1, "focal": [0.5, 0.5], "areas": [area("Mast")]},
    )
    made = []
    for i in range(4):
        noun = one_part(f"P{i}", {"D": {"original": original["id"], "keeps": ["Mast"]}})
        made.append(designer.post(f"/pages/{page['id']}/placements", {"placement": noun}).json())

    def rename(tab, name):
        for _ in range(6):
            now = Original.objects.get(id=original["id"])
            body = {"revision": now.revision, "focal": [0.5, 0.5], "areas": [area(name)]}
            yield tab.put(f"/originals/{original['id']}/look", body).status_code

    def save(tab, placement):
        for i in range(6):
            row = Placement.objects.get(id=placement["id"])
            noun = with_own(row.as_noun().model_dump(mode="json", exclude_none=True), alt=str(i))
            looks = {
                str(original["id"]): {
                    "focal": [0.5, 0.5],
                    "areas": [area(f"Saved {placement['id']} {i}")],
                }
            }
            body = {"revision": row.revision, "placement": noun, "looks": looks}
            yield tab.put(f"/placements/{placement['id']}", body).status_code

    works = [lambda n=n: list(rename(another(designer), n)) for n in ("Mast", "Sail")]
    works += [lambda p=p: list(save(another(designer), p)) for p in made]
    answers = at_once(*works)
    assert not [a for a in answers if isinstance(a, BaseException)], answers
    assert {status for a in answers for status in a} <= {200, 409}


def test_saves_in_one_site_do_not_wait_for_each_other(designer, page, original):
    """One placement's row is locked by somebody; another of the same site is saved meanwhile."""
    made = [
        designer.post(
            f"/pages/{page['id']}/placements", {"placement": one_part(f"P{i}", {})}
        ).json()
        for i in (1, 2)
    ]
    held, done = threading.Event(), threading.Event()

    def hold():
        from django.db import transaction

        with transaction.atomic():
            locked(Placement, [made[0]["id"]])
            held.set()
            done.wait(10)

    def save():
        held.wait()
        began = time.monotonic()
        body = {"revision": made[1]["revision"], "placement": one_part("Saved", {})}
        status = another(designer).put(f"/placements/{made[1]['id']}", body).status_code
        done.set()
        return status, time.monotonic() - began

    _, (status, took) = at_once(hold, save)
    assert status == 200 and took < 5


def test_a_save_after_the_breakpoints_were_changed_is_told_so(designer, site, placement):
    plan = {**site["plan"], "breakpoints": [599, 1023]}
    designer.put(f"/sites/{site['id']}", {"name": "x", "plan": plan, "revision": site["revision"]})
    answer = designer.put(
        f"/placements/{placement['id']}",
        {"revision": placement["revision"], "placement": placement["placement"]},
    )
    assert answer.status_code in (409, 422) and answer.json()["detail"].endswith(".")
    assert designer.get(f"/placements/{placement['id']}").status_code == 200


# -- workers and connections --


def test_eight_exports_at_once_are_one_run(designer, placement):
    tabs = [another(designer) for _ in range(8)]
    answers = at_once(
        *(lambda t=t: t.post(f"/placements/{placement['id']}/deliveries") for t in tabs)
    )
    assert {a.status_code for a in answers} == {201}
    assert len({a.json()["id"] for a in answers}) == 1 == Delivery.objects.count()


def test_two_workers_never_make_the_same_file(designer, placement, monkeypatch):
    from common.pictures import guard

    started = designer.post(f"/placements/{placement['id']}/deliveries").json()
    made, zips = [], []
    real_make, real_finish = guard().make, work._finish

    def counted(*args):
        for item in real_make(*args):
            made.append(item[0].key)
            yield item

    monkeypatch.setattr(guard(), "make", counted)
    monkeypatch.setattr(work, "_finish", lambda d: (zips.append(d.id), real_finish(d)))
    at_once(*[lambda: work.run(started["id"])] * 4, *[requeue_lost] * 2)
    assert len(made) == len(set(made)) == started["total"] and zips == [started["id"]]
    assert designer.get(f"/deliveries/{started['id']}").json()["state"] == "done"


def test_a_worker_taken_for_dead_that_lives_leaves_the_run_alone(designer, placement, monkeypatch):
    started = designer.post(f"/placements/{placement['id']}/deliveries").json()
    real, ticks = work._tick, []

    def silent_at_the_third(delivery, current):
        ticks.append(current)
        if len(ticks) == 3:
            Delivery.objects.update(beat=timezone.now() - timedelta(seconds=60))
            assert work.queue_again() == [started["id"]]
        real(delivery, current)

    monkeypatch.setattr(work, "_tick", silent_at_the_third)
    work.run(started["id"])
    assert designer.get(f"/deliveries/{started['id']}").json()["state"] == "queued"
    work.run(started["id"])
    assert designer.get(f"/deliveries/{started['id']}").json()["state"] == "done"


def test_a_run_whose_connection_breaks_goes_on_within_seconds(designer, placement, monkeypatch):
    started = designer.post(f"/placements/{placement['id']}/deliveries").json()
    real, ticks = work._tick, []

    def broken_at_the_third(delivery, current):
        ticks.append(current)
        if len(ticks) == 3:
            with connection.cursor() as cursor:
                cursor.execute("select connection_id()")
                (mine,) = cursor.fetchone()
            at_once(lambda: connection.cursor().execute(f"kill {mine}"))
        real(delivery, current)

    monkeypatch.setattr(work, "_tick", broken_at_the_third)
    began = time.monotonic()
    work.run(started["id"])
    done = designer.get(f"/deliveries/{started['id']}").json()
    assert done["state"] == "done" and time.monotonic() - began < 20


def test_where_no_worker_lives_an_open_run_says_so(designer, placement):
    started = designer.post(f"/placements/{placement['id']}/deliveries").json()
    assert started["waits_for"].startswith("No worker is running")
    site = designer.get("/sites").json()[0]["id"]
    assert designer.get(f"/sites/{site}/deliveries").json()[0]["waits_for"] == started["waits_for"]
    Worker.objects.create(name="w", beat=timezone.now())
    assert designer.get(f"/deliveries/{started['id']}").json()["waits_for"] == ""
    Delivery.objects.update(state="running", beat=timezone.now() - timedelta(seconds=60))
    assert "another takes over" in designer.get(f"/deliveries/{started['id']}").json()["waits_for"]
    Worker.objects.update(beat=timezone.now() - timedelta(seconds=60))
    assert "No worker" in designer.get(f"/deliveries/{started['id']}").json()["waits_for"]
    # it works at this run, only its own sign of life is late
    Delivery.objects.update(beat=timezone.now())
    assert designer.get(f"/deliveries/{started['id']}").json()["waits_for"] == ""


def test_a_run_that_workers_die_at_is_given_up_after_a_while(designer, placement, monkeypatch):
    started = designer.post(f"/placements/{placement['id']}/deliveries").json()

    def deadly(delivery):
        raise SystemExit("killed")

    monkeypatch.setattr(work, "_make_missing", deadly)
    for _ in range(work.MOST_CLAIMS):
        assert requeue_lost() == 1
        with pytest.raises(SystemExit):
            work.run(started["id"])
        Delivery.objects.update(beat=timezone.now() - timedelta(seconds=60))
    assert requeue_lost() == 0
    given_up = designer.get(f"/deliveries/{started['id']}").json()
    assert given_up["state"] == "failed" and "5 workers have ended" in given_up["message"]


def test_a_stop_that_no_worker_hears_is_a_stop(designer, placement):
    started = designer.post(f"/placements/{placement['id']}/deliveries").json()
    Delivery.objects.update(
        state="stopping", claim="x", beat=timezone.now() - timedelta(seconds=60)
    )
    assert requeue_lost() == 0
    assert designer.get(f"/deliveries/{started['id']}").json()["state"] == "stopped"


def test_a_queue_that_is_away_is_said_and_nothing_is_lost(designer, placement, monkeypatch, queue):
    from kombu.exceptions import OperationalError

    def away(*_, **__):
        raise OperationalError("Error 111 connecting")

    with monkeypatch.context() as broken:
        broken.setattr(run_delivery, "apply_async", away)
        started = designer.post(f"/placements/{placement['id']}/deliveries")
    assert started.status_code == 201 and "begins when it is back" in started.json()["message"]
    assert requeue_lost() == 1 and queue == [started.json()["id"]]


def test_the_code_of_an_error_is_found():
    from django.db import OperationalError

    assert code_of(OperationalError(1213, "Deadlock")) == 1213 and code_of(OperationalError()) == 0


# -- what was written stays --


def test_a_finished_run_answers_from_what_it_wrote(designer, placement, monkeypatch):
    started = designer.post(f"/placements/{placement['id']}/deliveries").json()
    work.run(started["id"])
    tree = f"/deliveries/{started['id']}/tree/t1"
    before = {
        p: designer.get(f"{tree}/{p}").content
        for p in ("page.html", "snippet.html", "picture.css", "manifest.json")
    }
    picks = designer.post(f"/deliveries/{started['id']}/picks", {}).json()

    def newer_rules(*_, **__):
        raise AssertionError("a finished run was planned anew")

    monkeypatch.setattr(runs, "blueprint", newer_rules)
    assert {p: designer.get(f"{tree}/{p}").content for p in before} == before
    assert designer.post(f"/deliveries/{started['id']}/picks", {}).json() == picks


def test_a_run_from_before_texts_were_stored_is_worked_out_once(designer, placement):
    started = designer.post(f"/placements/{placement['id']}/deliveries").json()
    work.run(started["id"])
    tree = f"/deliveries/{started['id']}/tree/t1"
    before = designer.get(f"{tree}/picture.css").content
    Delivery.objects.update(written=None)
    assert designer.get(f"{tree}/picture.css").content == before
    assert Delivery.objects.get().written["texts"]["picture.css"] == before.decode()


def test_what_is_stored_says_its_version_and_what_does_not_is_lifted(
    designer, site, placement, original
):
    with connection.cursor() as cursor:
        for table, column in (
            ("skypane_sites_site", "plan"),
            ("placements_placement", "body"),
            ("placements_version", "body"),
            ("placements_version", "looks"),
            ("originals_original", "areas"),
        ):
            cursor.execute(f"select json_value({column}, '$.version') from {table}")
            assert {row[0] for row in cursor.fetchall()} == {str(VERSION)}, (table, column)
        cursor.execute("update skypane_sites_site set plan = '{\"heights\": []}'")
        cursor.execute("update originals_original set areas = '[]'")
        # as it was kept before placements had parts
        (part,) = placement["placement"]["parts"]
        old = {"version": 2, "name": "Lighthouse", "treatments": part["treatments"], "alt": "Lamp"}
        cursor.execute("update placements_placement set body = %s", [json.dumps(old)])
    lifted = designer.get(f"/placements/{placement['id']}").json()["placement"]
    assert lifted == with_own(placement["placement"], alt="Lamp")
    assert len(designer.get(f"/sites/{site['id']}").json()["plan"]["heights"]) == 4
    assert (
        designer.post(
            f"/sites/{site['id']}/readings", {"placement": placement["placement"]}
        ).status_code
        == 200
    )


def test_a_beat_goes_on_whatever_is_raised_in_it_and_says_so(caplog):
    """A thread that ended unseen once called a worker dead that lived."""
    beats = []

    def each():
        beats.append(1)
        raise AttributeError("no such thing")

    with beating("A beat", each, 0.02):
        while len(beats) < 3:
            time.sleep(0.01)
    errors = [r for r in caplog.records if r.levelname == "ERROR"]
    assert len(errors) >= 3 and all("A beat" in r.getMessage() for r in errors)
    assert all(r.exc_info for r in errors)


def test_a_worker_says_that_it_lives_for_as_long_as_it_does(caplog):
    """Two beats at least, without an error; rows of workers that have died long ago go."""
    long_ago = timezone.now() - timedelta(hours=1)
    Worker.objects.create(name="dead", beat=long_ago)
    beat = signs_of_life(0.05)
    try:
        first = waited_for(lambda: Worker.objects.exclude(name="dead").first())
        waited_for(lambda: Worker.objects.filter(id=first.id, beat__gt=first.beat).first())
        again = waited_for(lambda: Worker.objects.filter(id=first.id).first())
        waited_for(lambda: Worker.objects.filter(id=first.id, beat__gt=again.beat).first())
        assert Worker.is_any() and not Worker.objects.filter(name="dead").exists()
    finally:
        beat.end()
        beat.join()
    assert not Worker.objects.exists()
    assert [r for r in caplog.records if r.levelname in ("WARNING", "ERROR")] == []


def waited_for(read, within_s=20.0):
    end = time.monotonic() + within_s
    while not (found := read()):
        assert time.monotonic() < end, "it did not come"
        time.sleep(0.02)
    return found


# -- removed while it is used --


def uses_of_what_goes(placement, original, site, page):
    """What somebody may be at while a placement, its page, its site or an original is removed."""
    noun = placement["placement"]
    save = {"revision": placement["revision"], "placement": noun}
    elsewhere = {"name": "Elsewhere", "parts": noun["parts"]}
    return {
        "save": lambda api: api.put(f"/placements/{placement['id']}", save),
        "copy": lambda api: api.post(f"/placements/{placement['id']}/copies", {"name": "Again"}),
        "deliver": lambda api: api.post(f"/placements/{placement['id']}/deliveries"),
        "deliver the page": lambda api: api.post(f"/pages/{page['id']}/deliveries"),
        "deliver the site": lambda api: api.post(f"/sites/{site['id']}/deliveries"),
        "home": lambda api: api.post(
            f"/pages/{site['pages'][0]['id']}/homes", {"placement_id": placement["id"]}
        ),
        "make": lambda api: api.post(f"/pages/{page['id']}/placements", {"placement": elsewhere}),
        "upload": lambda api: api.bring(site["id"], picture(90, 60)),
        "rename the page": lambda api: api.put(f"/pages/{page['id']}", {"title": "Other"}),
        "read the page": lambda api: api.get(f"/pages/{page['id']}/reading"),
        "list": lambda api: api.get(f"/sites/{site['id']}/placements"),
        "look": lambda api: api.call(
            "patch",
            f"/originals/{original['id']}",
            {"revision": original["revision"], "focal": [0.1, 0.2], "areas": []},
        ),
    }


USES = (
    "save",
    "copy",
    "deliver",
    "deliver the page",
    "deliver the site",
    "home",
    "make",
    "upload",
    "rename the page",
    "read the page",
    "list",
    "look",
)


@pytest.mark.parametrize("used", USES)
@pytest.mark.parametrize("gone", ["placement", "page", "site"])
def test_what_is_removed_while_it_is_used_is_answered_in_words(django_user_model, gone, used):
    """By whoever comes second: 404, or 409 where it can be tried again. Nobody gets a fault of
    ours."""
    user = django_user_model.objects.create_user("ann", password="long-enough-word")
    api = Api(user)
    for i in range(3):
        site = api.post("/sites", {"name": f"{gone} {used} {i}"}).json()
        page = api.post(f"/sites/{site['id']}/pages", {"title": "Second"}).json()
        original = api.bring(site["id"], picture()).json()
        body = one_part("Pier", {"D": {"original": original["id"]}})
        placement = api.post(f"/pages/{page['id']}/placements", {"placement": body}).json()
        way = {
            "placement": f"/placements/{placement['id']}",
            "page": f"/pages/{page['id']}",
            "site": f"/sites/{site['id']}",
        }[gone]
        uses = uses_of_what_goes(placement, original, site, page)
        assert set(uses) == set(USES)
        answers = at_once(
            lambda way=way: Api(user).delete(way), lambda use=uses[used]: use(Api(user))
        )
        for answer in answers:
            assert not isinstance(answer, BaseException), answer
            assert answer.status_code in (200, 201, 202, 204, 404, 409, 422), answer.content
            if answer.status_code >= 400:
                assert answer.json()["detail"].endswith(".")
        if answers[0].status_code == 204:
            assert Api(user).get(way).status_code in (404, 405)


@pytest.mark.parametrize("change", ["comes", "goes"])
def test_a_site_that_comes_or_goes_while_all_are_listed_is_no_fault(django_user_model, change):
    """Between the two looks at the database that a list takes."""
    user = django_user_model.objects.create_user("ann", password="long-enough-word")
    other = Api(django_user_model.objects.create_user("bea", password="long-enough-word"))
    api = Api(user)
    kept, second = (api.post("/sites", {"name": n}).json()["id"] for n in ("Kept", "Second"))
    theirs = other.post("/sites", {"name": "Theirs"}).json()["id"]
    looks = []

    def meanwhile(execute, sql, params, many, context):
        if "site_members" in sql and sql.startswith("SELECT"):
            looks.append(sql)
            if len(looks) == 2 and change == "comes":
                Membership.objects.create(site_id=theirs, user=user)
            elif len(looks) == 2:
                Membership.objects.filter(site=second, user=user)._raw_delete("default")
        return execute(sql, params, many, context)

    with connection.execute_wrapper(meanwhile):
        answer = api.get("/sites")
    assert len(looks) == 2 and answer.status_code == 200
    listed = {"comes": [kept, second], "goes": [kept]}[change]
    assert [s["id"] for s in answer.json()] == listed


def test_an_original_does_not_go_while_a_placement_takes_it(django_user_model):
    """Whoever is first wins: it stays and is used, or it has gone and nobody shows it."""
    user = django_user_model.objects.create_user("ann", password="long-enough-word")
    api = Api(user)
    site = api.post("/sites", {"name": "Pier"}).json()
    (home,) = site["pages"]
    for i in range(8):
        original = api.bring(site["id"], picture(120 + i, 90)).json()
        made = api.post(f"/pages/{home['id']}/placements", {"placement": one_part(f"P{i}", {})})
        placement = made.json()
        taking = one_part(f"P{i}", {"D": {"original": original["id"]}})
        save = {"revision": placement["revision"], "placement": taking}
        removed, saved = at_once(
            lambda id_=original["id"]: Api(user).call("delete", f"/originals/{id_}"),
            lambda id_=placement["id"], save=save: Api(user).put(f"/placements/{id_}", save),
        )
        there = Original.objects.filter(id=original["id"]).exists()
        shown = original["id"] in Placement.objects.get(id=placement["id"]).as_noun().original_ids
        assert there == shown
        assert (removed.status_code, saved.status_code) in ((204, 422), (409, 200))
