"""The work of a run, up to its zip. It is idempotent: running a delivery again makes only what is
not there yet.

A run is claimed by one worker, which says that it is alive while it works.
"""

from __future__ import annotations

import time
import uuid
import zipfile
from collections.abc import Iterable, Iterator
from contextlib import ExitStack, contextmanager
from pathlib import Path

from common.db import AWAY, DEADLOCK, LOCK_WAIT, code_of
from common.files import is_intact, keep, local, work_folder
from common.keys import sign
from common.pictures import encoding_guard
from common.slots import at_once, slot
from common.threads import beating
from django.db import DatabaseError, InterfaceError, connection
from django.db.models import F
from django.utils import timezone
from originals.models import Original
from skypane import model
from skypane.errors import InvalidPlan, NoRoom, SkyPaneError
from skypane.handover import blueprint, finish, fonts_of
from skypane.pixels.several import Source, encoded

from deliveries.models import BEAT_SECONDS, SILENT_AFTER, Delivery, Rendition
from deliveries.runs import (
    delivery_asked,
    facts_of,
    original_asked,
    remember_cuts,
    written_of,
)

State = Delivery.State

#: For so long a run tries to reach the database again before it leaves the rest to another worker.
RECONNECT_SECONDS = 120.0
#: A run that so many workers have died at is not given to another.
MOST_CLAIMS = 5
#: The time that entries of a zip carry, so that equal deliveries are equal zips: the first that the
#: format knows.
NO_TIME = (1980, 1, 1, 0, 0, 0)


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
        state=State.RUNNING,
        claim=claim,
        claims=F("claims") + 1,
        beat=timezone.now(),
        began=timezone.now(),
        message="",
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
    except NoRoom:
        _end(delivery, State.FAILED, NoRoom.IN_PART)
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
    """Signs of life while a file takes long."""

    def beat() -> None:
        Delivery.objects.filter(id=delivery_id, claim=claim).update(beat=timezone.now())

    with beating(f"Run {delivery_id}", beat, BEAT_SECONDS):
        yield


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
    wanted = {
        r.key: r
        for f in written_of(delivery)["files"]
        if (r := model.Rendition.model_validate(f)).key in missing
    }
    if not wanted:
        return
    names = dict(delivery.files.filter(rendition=None).values_list("key", "name"))
    with ExitStack() as open_, work_folder() as folder:
        sources = {
            id_: Source(open_.enter_context(_original_file(original)), original.name)
            for id_, original in _originals_of(delivery, wanted.values()).items()
        }
        _tick(delivery, next(iter(names.values())))
        made = encoded(
            encoding_guard(), list(wanted.values()), sources, folder, workers=at_once(), turn=slot
        )
        try:
            for rendition, path, sha256, fact in made:
                facts = {
                    "format": rendition.format,
                    "width_px": rendition.width_px,
                    "height_px": rendition.height_px,
                    "sha256": sha256,
                    "quality": fact.quality,
                    "ssim": fact.ssim,
                    "encodes": fact.encodes,
                    "size_bytes": fact.size_bytes,
                }
                keep(path, Rendition(key=rendition.key, **facts).stored)
                row, _ = Rendition.objects.update_or_create(key=rendition.key, defaults=facts)
                delivery.files.filter(key=rendition.key).update(rendition=row)
                path.unlink()
                del names[rendition.key]
                _tick(delivery, next(iter(names.values()), ""))
        finally:
            made.close()


def _originals_of(delivery: Delivery, wanted: Iterable[model.Rendition]) -> dict[int, Original]:
    """The originals that are still needed, as they were asked for. Raises InvalidPlan."""
    found = {}
    for id_ in dict.fromkeys(r.original for r in wanted):
        original = original_asked(delivery, id_)
        if original is None:
            raise InvalidPlan(
                "An original of this export has been removed or replaced meanwhile. Export again."
            )
        found[id_] = original
    return found


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
    """What is handed over now that all files are there, and the zip."""
    written, files = written_of(delivery), list(delivery.files.select_related("rendition"))
    plan = blueprint(delivery_asked(delivery), sign)
    finished = finish(plan, facts_of(files))
    written["texts"] = finished.texts
    kept = set(finished.files)
    delivery.files.exclude(name__in=kept).update(left_out=True)
    delivery.files.filter(name__in=kept).update(left_out=False)
    with work_folder() as folder:
        path = folder / "delivery.zip"
        handed = {f.name: f.rendition for f in files if f.rendition and f.name in kept}
        with zipfile.ZipFile(path, "w", zipfile.ZIP_STORED) as archive:
            for name, text in sorted(written["texts"].items()):
                archive.writestr(_entry(name, zipfile.ZIP_DEFLATED), text)
            for name, font in sorted(fonts_of(written["texts"]).items()):
                archive.writestr(_entry(name, zipfile.ZIP_STORED), font.read_bytes())
            for name, made in sorted(handed.items()):
                with local(made.stored) as stored:
                    archive.writestr(_entry(name, zipfile.ZIP_STORED), stored.read_bytes())
        keep(path, delivery.stored_zip)
    if plan.asked.effort == "thorough":
        remember_cuts(delivery, plan)
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
