"""Files that nothing refers to any more are removed after a grace, in which somebody may still be
about to refer to them.

Of removed originals, previews of them, renditions of removed deliveries, zips, what the image
service made (it makes it again when it is asked for), and what killed processes left in the work
folder.
"""

from __future__ import annotations

import shutil
import time
from collections.abc import Iterator
from contextlib import suppress
from datetime import datetime, timedelta
from typing import NamedTuple

from common.db import in_one_go
from django.conf import settings
from django.core.files.storage import default_storage
from django.utils import timezone
from originals.models import Design, Original
from sites.models import Site

from deliveries.models import Delivery, DeliveryFile, Rendition

#: Work that takes longer than this is nobody's any more.
WORK_HOURS = 12.0


def sweep() -> int:
    """Remove what has been unused for longer than the grace. Returns how many files and folders
    went."""
    before = timezone.now() - timedelta(hours=settings.KEEP_UNUSED_HOURS)
    Rendition.objects.filter(deliveryfile=None, created__lt=before).delete()
    used = _used()
    gone = 0
    for name in _stored():
        if name in used or _preview_of(name) in used:
            continue
        with suppress(OSError, NotImplementedError):
            if _modified(name) < before:
                default_storage.delete(name)
                gone += 1
    return gone + _sweep_work()


def superseded(site: Site) -> list[Delivery]:
    """Runs that a later finished one of the same thing stands in for, and runs that came to
    nothing."""
    done: set[tuple[object, ...]] = set()
    out = []
    for d in Delivery.objects.filter(site=site).defer("asked", "written"):
        key = (d.scope, d.page_id, d.placement_id)
        if d.state in Delivery.OPEN:
            continue
        if d.state == Delivery.State.DONE and key not in done:
            done.add(key)
            continue
        if key in done or d.state != Delivery.State.DONE:
            out.append(d)
    return out


class Clearing(NamedTuple):
    """What would go: runs, their zips, and files that nothing else refers to."""

    deliveries: list[Delivery]
    renditions: list[Rendition]
    zip_bytes: int

    @property
    def size_bytes(self) -> int:
        return self.zip_bytes + sum(r.size_bytes for r in self.renditions)


def clearing(site: Site) -> Clearing:
    """What clearing a site's deliveries would remove."""
    old = superseded(site)
    mine = DeliveryFile.objects.filter(delivery__in=old)
    others = DeliveryFile.objects.exclude(delivery__in=old)
    ids = set(mine.values_list("rendition", flat=True)) - {None}
    kept = set(others.filter(rendition__in=ids).values_list("rendition", flat=True))
    unused = list(Rendition.objects.filter(id__in=ids - kept))
    sizes = 0
    for d in old:
        with suppress(OSError):
            sizes += default_storage.size(d.stored_zip)
    return Clearing(old, unused, sizes)


def clear(site: Site) -> Clearing:
    """Remove it. A run that is begun meanwhile keeps what it refers to."""

    def forget() -> Clearing:
        found = clearing(site)
        Delivery.objects.filter(id__in=[d.id for d in found.deliveries]).delete()
        gone = Rendition.objects.filter(id__in=[r.id for r in found.renditions], deliveryfile=None)
        kept = [r for r in found.renditions if r.id in set(gone.values_list("id", flat=True))]
        gone.delete()
        return found._replace(renditions=kept)

    found = in_one_go(forget)
    for name in (*(d.stored_zip for d in found.deliveries), *(r.stored for r in found.renditions)):
        with suppress(OSError):
            default_storage.delete(name)
    return found


def _used() -> set[str]:
    """Names of stored files that rows refer to; of previews, the hash that they are made of."""
    used: set[str] = set()
    for original in Original.objects.only("sha256", "format", "untouched"):
        used |= {original.stored, original.sha256}
        if original.untouched is not None:
            before = Original(
                sha256=original.untouched["sha256"], format=original.untouched["format"]
            )
            used |= {before.stored, before.sha256}
    used |= {d.stored for d in Design.objects.only("sha256", "format")}
    used |= {r.stored for r in Rendition.objects.only("key", "format")}
    used |= {d.stored_zip for d in Delivery.objects.filter(state=Delivery.State.DONE).only("id")}
    return used


def _preview_of(name: str) -> str:
    """The hash of the original that a preview shows; "" for everything else."""
    folder, _, rest = name.partition("/")
    return rest.rpartition("/")[2].partition("-")[0] if folder == "previews" else ""


def _stored() -> Iterator[str]:
    for folder in ("originals", "designs", "previews", "renditions", "deliveries", "service"):
        yield from _below(folder)


def _below(folder: str) -> Iterator[str]:
    try:
        folders, files = default_storage.listdir(folder)
    except FileNotFoundError:
        return
    for name in files:
        yield f"{folder}/{name}"
    for name in folders:
        yield from _below(f"{folder}/{name}")


def _modified(name: str) -> datetime:
    return default_storage.get_modified_time(name)


def _sweep_work() -> int:
    gone = 0
    before = time.time() - WORK_HOURS * 3600
    for path in settings.WORK_ROOT.iterdir():
        with suppress(OSError):
            if path.stat().st_mtime >= before:
                continue
            if path.is_dir():
                shutil.rmtree(path)
            else:
                path.unlink()
            gone += 1
    return gone
