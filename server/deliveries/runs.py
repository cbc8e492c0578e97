"""A run from its start to its zip. Work is idempotent: running a delivery again makes only what is not there yet."""

from __future__ import annotations

import hashlib
import tempfile
import zipfile
from pathlib import Path

from config.files import keep, local
from django.core.files.base import File
from django.core.files.storage import default_storage
from django.db import IntegrityError, transaction
from django.utils import timezone
from originals.models import Original
from placements.models import Placement
from skypane import model
from skypane.delivery import FOLDER, Blueprint, blueprint, manifest_text
from skypane.errors import InvalidPlan, SkyPaneError
from skypane.pixels.encode import make

from deliveries.models import Delivery, DeliveryFile, Rendition

State = Delivery.State


def _asked_now(placement: Placement) -> tuple[model.Site, model.Placement, dict[int, model.Original]]:
    site, noun = placement.page.site.as_noun(), placement.as_noun()
    originals = Original.objects.filter(site=placement.page.site, id__in=noun.original_ids)
    return site, noun, {o.id: o.as_noun() for o in originals}


def is_current(placement: Placement, plan: Blueprint) -> bool:
    """Whether the placement as it is saved now would be delivered exactly so."""
    try:
        now = blueprint(*_asked_now(placement))
    except SkyPaneError:
        return False
    return now.texts == plan.texts and [f.key for f in now.files] == [f.key for f in plan.files]


def start(placement: Placement, user: object) -> Delivery:
    """Freeze what is asked for and make the rows of a run. Raises InvalidPlan where there is nothing to export."""
    site, noun, originals = _asked_now(placement)
    plan = blueprint(site, noun, originals)
    covered = {letter for r in plan.files for letter in r.spans}
    spans: list[dict[str, str]] = plan.manifest["spans"]  # type: ignore[assignment]
    empty = [s["letter"] for s in spans if s["show"] == "picture" and s["letter"] not in covered]
    if empty:
        raise InvalidPlan(f"There is no picture in span {', '.join(empty)}. Choose an original there first, in Aim.")
    with transaction.atomic():
        delivery = Delivery.objects.create(
            placement=placement,
            by=user,
            asked={
                "site": site.model_dump(mode="json"),
                "placement": noun.model_dump(mode="json"),
                "originals": [o.model_dump(mode="json") for o in originals.values()],
            },
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


def plan_of(delivery: Delivery) -> tuple[model.Site, Blueprint]:
    """The run's plan, computed again from what was frozen."""
    site = model.Site.model_validate(delivery.asked["site"])
    placement = model.Placement.model_validate(delivery.asked["placement"])
    originals = {o["id"]: model.Original.model_validate(o) for o in delivery.asked["originals"]}
    return site, blueprint(site, placement, originals)


class _Stopped(Exception):
    pass


def run(delivery_id: int) -> None:
    """Make all files of a delivery that are not there, then its zip. Ends in done, stopped or failed, never in between."""
    delivery = Delivery.objects.filter(id=delivery_id).first()
    if delivery is None or delivery.state not in Delivery.OPEN:
        return
    # in one step, so that a stop pressed at this very moment is not overwritten
    open_ = Delivery.objects.filter(id=delivery.id, state__in=(State.QUEUED, State.RUNNING))
    open_.update(state=State.RUNNING, beat=timezone.now())
    delivery.refresh_from_db()
    if delivery.state == State.STOPPED:
        return
    try:
        _make_missing(delivery)
        _zip(delivery)
        _set(delivery, state=State.DONE, current="", finished=timezone.now())
    except _Stopped:
        _set(
            delivery,
            state=State.STOPPED,
            current="",
            message="Stopped. The files made so far are kept.",
            finished=timezone.now(),
        )
    except SkyPaneError as error:
        _set(delivery, state=State.FAILED, current="", message=str(error), finished=timezone.now())
    except Exception:
        _set(
            delivery,
            state=State.FAILED,
            current="",
            message="The export failed unexpectedly. Try again; if it fails again, tell whoever runs this installation.",
            finished=timezone.now(),
        )
        raise


def _set(delivery: Delivery, **values: object) -> None:
    Delivery.objects.filter(id=delivery.id).update(**values)
    for name, value in values.items():
        setattr(delivery, name, value)


def _make_missing(delivery: Delivery) -> None:
    _, plan = plan_of(delivery)
    rows = {f.key: f for f in delivery.files.filter(rendition=None)}
    wanted = [r for r in plan.files if r.key in rows]
    for original_id in dict.fromkeys(r.original for r in wanted):
        mine = [r for r in wanted if r.original == original_id]
        sha256 = next(o["sha256"] for o in delivery.asked["originals"] if o["id"] == original_id)
        original = Original.objects.filter(id=original_id, sha256=sha256).first()
        if original is None:
            raise InvalidPlan("An original of this export has been removed meanwhile. Export again.")
        with local(original.stored) as source, tempfile.TemporaryDirectory() as folder:
            _tick(delivery, FOLDER + mine[0].name)
            for done, (rendition, path, size_bytes) in enumerate(make(source, mine, Path(folder)), 1):
                row = Rendition(
                    key=rendition.key,
                    format=rendition.format,
                    width_px=rendition.width_px,
                    height_px=rendition.height_px,
                    size_bytes=size_bytes,
                    sha256=hashlib.sha256(path.read_bytes()).hexdigest(),
                )
                keep(path, row.stored)
                try:
                    with transaction.atomic():
                        row.save()
                except IntegrityError:  # another run made it meanwhile
                    row = Rendition.objects.get(key=rendition.key)
                delivery.files.filter(key=rendition.key).update(rendition=row)
                path.unlink()
                _tick(delivery, FOLDER + mine[done].name if done < len(mine) else "")


def _tick(delivery: Delivery, current: str) -> None:
    """A sign of life between two files; raises _Stopped where somebody pressed stop."""
    _set(delivery, beat=timezone.now(), current=current)
    if Delivery.objects.filter(id=delivery.id, state=State.STOPPING).exists():
        raise _Stopped


def texts_of(delivery: Delivery) -> dict[str, str]:
    """page.html, snippet.html, picture.css, and manifest.json once all files are there."""
    _, plan = plan_of(delivery)
    facts = {
        f.key: (f.rendition.size_bytes, f.rendition.sha256) for f in delivery.files.select_related("rendition") if f.rendition
    }
    if len(facts) < len({f.key for f in plan.files}):
        return plan.texts
    return {**plan.texts, "manifest.json": manifest_text(plan.manifest, facts)}


def _zip(delivery: Delivery) -> None:
    with tempfile.NamedTemporaryFile(suffix=".zip") as f:
        with zipfile.ZipFile(f, "w", zipfile.ZIP_STORED) as archive:
            for name, text in texts_of(delivery).items():
                archive.writestr(name, text, zipfile.ZIP_DEFLATED)
            for file in delivery.files.select_related("rendition"):
                assert file.rendition is not None
                with local(file.rendition.stored) as path:
                    archive.write(path, file.name)
        f.flush()
        f.seek(0)
        if default_storage.exists(delivery.stored_zip):
            default_storage.delete(delivery.stored_zip)
        default_storage.save(delivery.stored_zip, File(f))
