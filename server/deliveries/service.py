"""The image service that comes with Sky Pane: files of a site by address, made when they are first
asked for. It gives out what the site's plan asks for, and nothing else."""

from __future__ import annotations

import fcntl
import hashlib
import json
import os
import time
from collections.abc import Callable, Iterator, Mapping
from contextlib import contextmanager
from functools import lru_cache
from pathlib import Path
from typing import NamedTuple

from common.files import keep, local, work_folder
from common.pictures import encoding_guard, for_visitors
from common.slots import slot
from django.conf import settings
from django.core.files.base import File
from django.core.files.storage import default_storage
from originals.models import Original
from sites.models import Site
from skypane import model
from skypane.errors import SkyPaneError, TooDemanding, UnreadablePicture
from skypane.geometry import Crop
from skypane.handover import blueprint
from skypane.model import Format, Service

from deliveries.models import Rendition
from deliveries.runs import Target, asked_now

#: What the parameters of its addresses are called.
MEANS: dict[str, model.Meaning] = {
    "hash": "hash",
    "name": "name",
    "w": "width",
    "cx": "crop_x",
    "cy": "crop_y",
    "cw": "crop_width",
    "ch": "crop_height",
    "f": "format",
    "until": "expires",
    "key": "key",
    "sig": "signature",
}
#: How long somebody waits for a file that another one is making, in seconds.
MOST_WAIT = 120.0
LOOK_SECONDS = 0.05


def own_service(site: Site, key: str, *, negotiates: bool = False) -> Service:
    """The service of this installation as a site names it."""
    means = {k: v for k, v in MEANS.items() if not (negotiates and v == "format")}
    named = ",".join(k for k in means if k not in ("hash", "name"))
    template = f"/service/{site.id}/{{hash}}/{{name}}{{?{named}}}"
    return Service(template=template, means=means, key=key)


class Wanted(NamedTuple):
    """A file as an address asks for it, whatever its format."""

    hash: str
    name: str
    width: int
    crop: Crop


Planned = Mapping[Wanted, Mapping[Format, model.Rendition]]


def planned(site: Site) -> Planned:
    """All files that the plan of a site asks for, as everything is saved now."""
    placements = site.pages.order_by("id").values_list(
        "id", "title", "placements__id", "placements__revision"
    )
    originals = site.originals.order_by("id").values_list("id", "sha256", "revision", "name")
    stamp = json.dumps([site.revision, list(placements), list(originals)])
    return _planned(site.id, hashlib.sha256(stamp.encode()).hexdigest())


@lru_cache(maxsize=16)
def _planned(site_id: int, stamp: str) -> Planned:
    site = Site.objects.get(id=site_id)
    try:
        asked = asked_now(Target(site))
        files = blueprint(asked).files
    except SkyPaneError:
        return {}
    originals = {o.id: o for o in asked.originals}
    found: dict[Wanted, dict[Format, model.Rendition]] = {}
    for r in files:
        o = originals[r.original]
        wanted = Wanted(o.sha256[:16], o.name, r.width_px, r.crop)
        found.setdefault(wanted, {})[r.format] = r
    return found


def file_names(site: Site) -> list[str]:
    """The names of all files that the plan of a site asks for."""
    return [r.name for of in planned(site).values() for r in of.values()]


#: So many addresses are known to each process without asking the database again. What an address
#: stands for never changes: it says the hash of the original, the cut and the size.
MOST_KNOWN = 4096


@lru_cache(maxsize=MOST_KNOWN)
def offered(site_id: int, wanted: Wanted) -> Mapping[Format, model.Rendition]:
    """The files of one size, by format. Raises KeyError where the plan of the site asks for none,
    and Site.DoesNotExist."""
    return planned(Site.objects.get(id=site_id))[wanted]


def opened(site_id: int, of: model.Rendition) -> File[bytes]:
    """A file, made if it is not there yet. Raises SkyPaneError where it cannot be made."""
    try:
        return default_storage.open(stored_file(site_id, of))
    except FileNotFoundError:  # it has been swept up since
        stored_file.cache_clear()
        return default_storage.open(stored_file(site_id, of))


#: What else forgets what it knows when nothing is to be known any more.
forgetting: list[Callable[[], None]] = []


def forget() -> None:
    """Nothing is known any more."""
    for each in forgetting:
        each()
    offered.cache_clear()
    stored_file.cache_clear()


@lru_cache(maxsize=MOST_KNOWN)
def stored_file(site_id: int, of: model.Rendition) -> str:
    """The name under which a file is stored, made if it is not there yet: once, however many ask
    for it at the same time. Raises SkyPaneError where it cannot be made."""
    made = Rendition.objects.filter(key=of.key).first()
    if made is not None and default_storage.exists(made.stored):
        return made.stored
    name = f"service/{of.key[:2]}/{of.key}.{of.format}"
    if default_storage.exists(name):
        return name
    with _alone(of.key):
        if not default_storage.exists(name):
            _make(site_id, of, name)
    return name


@contextmanager
def _alone(key: str) -> Iterator[None]:
    """Of all workers on this machine one at a time makes a file. Raises TooDemanding where that
    takes too long."""
    folder = settings.WORK_ROOT.with_name("slots")
    folder.mkdir(parents=True, exist_ok=True)
    # one of a few, so that no file is left for every key
    handle = os.open(folder / f"service-{key[:2]}", os.O_RDWR | os.O_CREAT, 0o644)
    until = time.monotonic() + MOST_WAIT
    try:
        while True:
            try:
                fcntl.flock(handle, fcntl.LOCK_EX | fcntl.LOCK_NB)
                break
            except BlockingIOError:
                if time.monotonic() > until:
                    raise TooDemanding("The image service is busy. Ask again in a while.") from None
                time.sleep(LOOK_SECONDS)
        yield
    finally:
        os.close(handle)


def _make(site_id: int, of: model.Rendition, name: str) -> None:
    """Make a file for a browser that waits for it: about as like as the site wants it."""
    original = Original.objects.filter(id=of.original, site_id=site_id).first()
    if original is None or not default_storage.exists(original.stored):
        raise UnreadablePicture(f"The original of {of.name} is no longer here.")
    with (
        work_folder() as folder,
        local(original.stored) as path,
        slot(lambda: False),
        for_visitors(),
    ):
        made, _ = encoding_guard().make_swiftly(path, of, Path(folder), original.name)
        keep(made, name)
