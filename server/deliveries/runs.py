"""A run from its start to its zip. Work is idempotent: running a delivery again makes only what is
not there yet.

A run is claimed by one worker, which says that it is alive while it works. What the run hands over
is planned once, at its start, and stored with it.
"""

from __future__ import annotations

import threading
import time
import uuid
import zipfile
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path
from typing import Any

from config.db import AWAY, DEADLOCK, LOCK_WAIT, code_of, in_one_go, locked_one
from config.files import is_intact, keep, local, sha256_of, work_folder
from config.pictures import guard
from django.core.files.storage import default_storage
from django.db import DatabaseError, InterfaceError, connection
from django.db.models import F
from django.utils import timezone
from originals.models import Original
from placements.models import Placement, stems_of
from skypane import model
from skypane.errors import InvalidPlan, SkyPaneError
from skypane.handover import FOLDER, Blueprint, blueprint, manifest_text

from deliveries.models import BEAT_SECONDS, SILENT_AFTER, Delivery, DeliveryFile, Rendition

State = Delivery.State

#: For so long a run tries to reach the database again before it leaves the rest to another worker.
RECONNECT_SECONDS = 120.0
#: A run that so many workers have died at is not given to another.
MOST_CLAIMS = 5
#: The time that entries of a zip carry, so that equal deliveries are equal zips: the first that the
#: format knows.
NO_TIME = (1980, 1, 1, 0, 0, 0)


def _asked_now(
    placement: Placement,
) -> tuple[model.Site, model.Placement, dict[int, model.Original]]:
    site = placement.page.site
    noun = placement.as_noun().model_copy(update={"stem": stems_of(site)[placement.id]})
    originals = Original.objects.filter(site=site, id__in=noun.original_ids)
    return site.as_noun(), noun, {o.id: o.as_noun() for o in originals}


def _written(plan: Blueprint) -> dict[str, Any]:
    """A blueprint as it is stored with its run."""
    files = [r.model_dump(mode="json") for r in plan.files]
    return {"texts": plan.texts, "manifest": plan.manifest, "files": files}


def is_current(delivery: Delivery) -> bool:
    """Whether the placement as it is saved now would be delivered exactly so."""
    try:
        now = blueprint(*_asked_now(delivery.placement))
    except SkyPaneError:
        return False
    written = written_of(delivery)
    texts = {name: text for name, text in written["texts"].items() if name != "manifest.json"}
    return now.texts == texts and [f.key for f in now.files] == [f["key"] for f in written["files"]]


def start(placement_id: int, user: object) -> tuple[Delivery, bool]:
    """The run of a placement that is open, or a new one and True: what is asked for is frozen, and
    all its files have rows.

    Raises InvalidPlan where there is nothing to export.
    """

    def begin() -> tuple[Delivery, bool]:
        # whoever presses at the same moment waits here
        placement = locked_one(Placement, placement_id)
        going = placement.deliveries.filter(state__in=Delivery.OPEN).first()
        return (going, False) if going else (_new(placement, user), True)

    return in_one_go(begin)


def _new(placement: Placement, user: object) -> Delivery:
    site, noun, originals = _asked_now(placement)
    plan = blueprint(site, noun, originals)
    covered = {letter for r in plan.files for letter in r.spans}
    spans: list[dict[str, str]] = plan.manifest["spans"]  # type: ignore[assignment]
    empty = [s["letter"] for s in spans if s["show"] == "picture" and s["letter"] not in covered]
    if empty:
        raise InvalidPlan(
            f"There is no picture in span {', '.join(empty)}. Choose an original there first, in"
            " Aim."
        )
    delivery = Delivery.objects.create(
        placement=placement,
        by=user,
        asked={
            "site": site.model_dump(mode="json"),
            "placement": noun.model_dump(mode="json"),
            "originals": [o.model_dump(mode="json") for o in originals.values()],
        },
        written=_written(plan),
    )
    made = {r.key: r for r in Rendition.objects.filter(key__in=[f.key for f in plan.files])}
    DeliveryFile.objects.bulk_create(
        DeliveryFile(
            delivery=delivery,
            position=i,
            name=FOLDER + f.name,
            key=f.key,
            rendition=made.get(f.key),
            reused=f.key in made,
        )
        for i, f in enumerate(plan.files)
    )
    return delivery


def site_of_run(delivery: Delivery) -> model.Site:
    """The site as it was when the run was started."""
    return model.Site.model_validate(delivery.asked["site"])


def written_of(delivery: Delivery) -> dict[str, Any]:
    """What the run hands over. One from before this was stored has it worked out once, and
    stored."""
    if delivery.written is None:
        placement = model.Placement.model_validate(delivery.asked["placement"])
        originals = {o["id"]: model.Original.model_validate(o) for o in delivery.asked["originals"]}
        delivery.written = _written(blueprint(site_of_run(delivery), placement, originals))
        delivery.save(update_fields=["written"])
    found: dict[str, Any] = delivery.written
    return found


def texts_of(delivery: Delivery) -> dict[str, str]:
    """page.html, snippet.html, picture.css, and manifest.json once all files are there."""
    texts: dict[str, str] = written_of(delivery)["texts"]
    return texts


# -- the work --------------------------------------------------------------------------


class _Stopped(Exception):
    pass


class _Lost(Exception):
    """The run is no longer ours: it was taken for dead, and another worker has it, or it was
    removed."""


def run(delivery_id: int) -> None:
    """Claim a queued run, make all files that are not there, then its zip. Ends in done, stopped or
    failed; where this worker dies or the database stays away, in nothing, and the run is queued
    again."""
    claim = uuid.uuid4().hex
    queued = Delivery.objects.filter(id=delivery_id, state=State.QUEUED)
    if not queued.update(
        state=State.RUNNING, claim=claim, claims=F("claims") + 1, beat=timezone.now(), message=""
    ):
        return
    until = time.monotonic() + RECONNECT_SECONDS
    with _alive(delivery_id, claim):
        while True:
            # goes on where it was as soon as the database is back
            try:
                _work(delivery_id, claim)
                return
            except _Lost:
                return
            except (
                DatabaseError,
                InterfaceError,
            ):
                if time.monotonic() > until:
                    raise
                _reconnect()


def _reconnect() -> None:
    if not connection.in_atomic_block:
        connection.close()
    time.sleep(1)


def _work(delivery_id: int, claim: str) -> None:
    delivery = Delivery.objects.filter(id=delivery_id, claim=claim).first()
    if delivery is None:
        raise _Lost
    try:
        _forget_broken(delivery)
        _make_missing(delivery)
        _finish(delivery)
    except _Stopped:
        _end(delivery, State.STOPPED, "Stopped. The files made so far are kept.")
    except SkyPaneError as error:
        _end(delivery, State.FAILED, str(error))
    except _Lost:
        raise
    except Exception as error:
        if isinstance(error, InterfaceError) or code_of(error) in (*AWAY, DEADLOCK, LOCK_WAIT):
            raise
        _end(
            delivery,
            State.FAILED,
            "The export failed unexpectedly. Try again; if it fails again, tell whoever runs this"
            " installation.",
        )
        raise


@contextmanager
def _alive(delivery_id: int, claim: str) -> Iterator[None]:
    """Signs of life while a file takes long, from a thread of its own."""
    done = threading.Event()

    def beat() -> None:
        while not done.wait(BEAT_SECONDS):
            try:
                Delivery.objects.filter(id=delivery_id, claim=claim).update(beat=timezone.now())
            except (DatabaseError, InterfaceError):
                connection.close()
        connection.close()

    thread = threading.Thread(target=beat, daemon=True)
    thread.start()
    try:
        yield
    finally:
        done.set()
        thread.join()


def _set(delivery: Delivery, **values: object) -> None:
    """Write values as long as the run is ours. Raises _Lost."""
    if not Delivery.objects.filter(id=delivery.id, claim=delivery.claim).update(
        beat=timezone.now(), **values
    ):
        raise _Lost


def _end(delivery: Delivery, state: str, message: str = "", **values: object) -> None:
    _set(delivery, state=state, message=message, current="", finished=timezone.now(), **values)


def _tick(delivery: Delivery, current: str) -> None:
    """A sign of life between two files; raises _Stopped where somebody pressed stop."""
    _set(delivery, current=current)
    if Delivery.objects.filter(id=delivery.id, state=State.STOPPING).exists():
        raise _Stopped


def _forget_broken(delivery: Delivery) -> None:
    """Files that are no longer stored as they were made are made again."""
    for file in delivery.files.filter(rendition__isnull=False).select_related("rendition"):
        made = file.rendition
        if made is not None and not is_intact(made.stored, made.size_bytes, made.sha256):
            delivery.files.filter(key=file.key).update(rendition=None, reused=False)


def _make_missing(delivery: Delivery) -> None:
    missing = set(delivery.files.filter(rendition=None).values_list("key", flat=True))
    wanted = [
        r
        for f in written_of(delivery)["files"]
        if (r := model.Rendition.model_validate(f)).key in missing
    ]
    for original_id in dict.fromkeys(r.original for r in wanted):
        mine = [r for r in wanted if r.original == original_id]
        sha256 = next(o["sha256"] for o in delivery.asked["originals"] if o["id"] == original_id)
        original = Original.objects.filter(id=original_id, sha256=sha256).first()
        if original is None:
            raise InvalidPlan(
                "An original of this export has been removed or replaced meanwhile. Export again."
            )
        with _original_file(original) as source, work_folder() as folder:
            _tick(delivery, FOLDER + mine[0].name)
            for done, (rendition, path, size_bytes) in enumerate(
                guard().make(source, mine, folder, original.name), 1
            ):
                facts = {
                    "format": rendition.format,
                    "width_px": rendition.width_px,
                    "height_px": rendition.height_px,
                    "size_bytes": size_bytes,
                    "sha256": sha256_of(path),
                }
                keep(path, Rendition(key=rendition.key, **facts).stored)
                row, _ = Rendition.objects.update_or_create(key=rendition.key, defaults=facts)
                delivery.files.filter(key=rendition.key).update(rendition=row)
                path.unlink()
                _tick(delivery, FOLDER + mine[done].name if done < len(mine) else "")


@contextmanager
def _original_file(original: Original) -> Iterator[Path]:
    """The original's file. Raises InvalidPlan where it is not stored whole."""
    if not is_intact(original.stored, original.size_bytes, original.sha256):
        raise InvalidPlan(
            f"{original.name} is no longer stored whole. Bring the same file again, then export"
            " again."
        )
    with local(original.stored) as path:
        yield path


def _finish(delivery: Delivery) -> None:
    """The manifest with every file's facts, and the zip."""
    written = written_of(delivery)
    files = list(delivery.files.select_related("rendition"))
    facts = {f.key: (f.rendition.size_bytes, f.rendition.sha256) for f in files if f.rendition}
    written["texts"]["manifest.json"] = manifest_text(written["manifest"], facts)
    with work_folder() as folder:
        path = folder / "delivery.zip"
        with zipfile.ZipFile(path, "w", zipfile.ZIP_STORED) as archive:
            for name, text in written["texts"].items():
                archive.writestr(_entry(name, zipfile.ZIP_DEFLATED), text)
            for name, made in [(f.name, f.rendition) for f in files if f.rendition]:
                with local(made.stored) as stored:
                    archive.writestr(_entry(name, zipfile.ZIP_STORED), stored.read_bytes())
        keep(path, delivery.stored_zip)
    _end(delivery, State.DONE, written=written)


def _entry(name: str, compression: int) -> zipfile.ZipInfo:
    """A file that a web server may read once it is unpacked."""
    entry = zipfile.ZipInfo(name, NO_TIME)
    entry.external_attr = 0o100644 << 16
    entry.compress_type = compression
    return entry


# -- what nobody is at -----------------------------------------------------------------


def queue_again() -> list[int]:
    """Runs whose worker has given no sign of life are queued, or stopped where that was asked for.
    Returns the ids of runs that a worker should be told of."""
    silent = timezone.now() - SILENT_AFTER
    Delivery.objects.filter(state=State.STOPPING, beat__lt=silent).update(
        state=State.STOPPED,
        claim="",
        current="",
        message="Stopped. The files made so far are kept.",
        finished=timezone.now(),
    )
    lost = Delivery.objects.filter(state=State.RUNNING, beat__lt=silent)
    lost.filter(claims__gte=MOST_CLAIMS).update(
        state=State.FAILED,
        claim="",
        current="",
        message=(
            f"{MOST_CLAIMS} workers have ended at this export. What is made is kept; tell whoever"
            " runs this installation."
        ),
        finished=timezone.now(),
    )
    lost.update(state=State.QUEUED, claim="", current="")
    return list(
        Delivery.objects.filter(state=State.QUEUED).order_by("id").values_list("id", flat=True)
    )


def is_stored(delivery: Delivery) -> bool:
    """Whether the zip of a finished run can be given out."""
    return delivery.state == State.DONE and default_storage.exists(delivery.stored_zip)
