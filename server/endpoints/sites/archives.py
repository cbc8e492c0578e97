"""A site as one file, to be built from a shell or taken to another installation, and back."""

from __future__ import annotations

import shutil
import zipfile
from collections.abc import Iterator, Mapping
from copy import copy
from pathlib import Path
from typing import Any

from accounts.session import person
from common.db import in_one_go
from common.files import local, sha256_of, work_folder
from common.problems import Problem, Refused
from common.uploads import takes_file
from django.conf import settings
from django.http import FileResponse, HttpRequest, HttpResponse
from django.http.response import HttpResponseBase
from ninja import File, Router, Status, UploadedFile
from originals.designs import read_design
from originals.intake import opened as opened_original
from originals.models import Design, Original
from placements.history import begin_all
from placements.models import (
    Home,
    Placement,
    layout_by_place,
    on_page,
    placements_of,
    stems_of,
    stored_layout,
)
from sites.access import site_for
from sites.models import Membership, Page, Role, Site
from sites.shapes import SiteOut, site_out
from skypane import check_frames, plan
from skypane.archives import BadArchive, opened
from skypane.errors import InvalidPlan
from skypane.identifiers import identifier
from skypane.sitefile import (
    DESIGNS,
    MISSING,
    MOST_BYTES,
    ORIGINALS,
    FileDesign,
    FileOriginal,
    FilePage,
    SiteFile,
    read_site_file,
    renumbered,
    site_file,
    text_of_site,
)

router = Router()

SITE = "site.json"


def _file_of(site: Site) -> tuple[SiteFile, list[Original]]:
    called = stems_of(site)
    pages = list(site.pages.all())
    own: dict[int, list[Placement]] = {page.id: [] for page in pages}
    for row in placements_of(site):
        own[row.page_id].append(row)
    place = {row.id: (i, n) for i, page in enumerate(pages) for n, row in enumerate(own[page.id])}
    told = [
        FilePage(
            title=page.title,
            placements=tuple(
                row.as_noun().model_copy(update={"stem": called.get(row.id)})
                for row in own[page.id]
            ),
            also=tuple(place[row.id] for row in on_page(page) if row.page_id != page.id),
            layout=layout_by_place(page, on_page(page)),
            designs=tuple(
                FileDesign(name=d.name, sha256=d.sha256, drawn_for=d.drawn_for)
                for d in page.designs.filter(gone=False)
            ),
        )
        for page in pages
    ]
    rows = list(Original.objects.filter(site=site).order_by("id"))
    found = site_file(site.name, site.as_noun(), told, [o.as_noun() for o in rows])
    return found, rows


@router.get("/sites/{int:site_id}/site.json", response={200: None, 404: Problem})
def site_as_file(request: HttpRequest, site_id: int) -> HttpResponse:
    """Everything of a site but its pictures; its JSON Schema is docs/site.schema.json."""
    found, _ = _file_of(site_for(request, site_id))
    response = HttpResponse(text_of_site(found), content_type="application/json")
    response["Content-Disposition"] = f'attachment; filename="{SITE}"'
    return response


@router.get("/sites/{int:site_id}/archive.zip", response={200: None, 404: Problem, 409: Problem})
def site_as_archive(request: HttpRequest, site_id: int) -> HttpResponseBase:
    """A site with its originals as one zip, to be imported elsewhere."""
    site = site_for(request, site_id)
    found, rows = _file_of(site)
    with work_folder() as folder:
        path = folder / "site.zip"
        with zipfile.ZipFile(path, "w", zipfile.ZIP_STORED) as archive:
            archive.writestr(SITE, text_of_site(found), zipfile.ZIP_DEFLATED)
            for said, row in zip(found.originals, rows, strict=True):
                _put(archive, row.stored, row.name, ORIGINALS + said.file)
            designs = {DESIGNS + d.file: d.sha256 for page in found.pages for d in page.designs}
            stored = {d.sha256: d for d in Design.objects.filter(page__site=site, gone=False)}
            for entry, sha256 in designs.items():
                _put(archive, stored[sha256].stored, stored[sha256].name, entry)
        # the folder goes with this block; an open file stays until it is read
        handle = path.open("rb")
    name = f"{identifier(site.name)}.skypane.zip"
    return FileResponse(handle, as_attachment=True, filename=name)


def _put(archive: zipfile.ZipFile, stored: str, name: str, entry: str) -> None:
    """Raises Refused where the file is gone."""
    try:
        with local(stored) as path:
            archive.write(path, entry)
    except FileNotFoundError:
        raise Refused(
            f"{name} is no longer stored here. Bring it again, then export.", status=409
        ) from None


@router.post(
    takes_file("/sites/archive", lambda: settings.MOST_ARCHIVE_BYTES),
    response={201: SiteOut, 413: Problem, 422: Problem},
)
def import_site(request: HttpRequest, file: File[UploadedFile]) -> Status[SiteOut]:
    """A new site out of an exported one, equal in every value. Nothing is changed where anything of
    it is wrong."""
    with work_folder() as folder:
        path = folder / "site.zip"
        with path.open("wb") as f:
            shutil.copyfileobj(file, f)
        with opened(path) as archive:
            found = _read(archive)
            paths = dict(_unpacked(archive, found, folder))
            designs = dict(_designs(archive, found, folder))
        _check(found)
        # pictures take their time: they are opened before anything is locked, and once
        brought = {o.id: opened_original(paths[o.id], o.name, o.sha256) for o in found.originals}
        drawn = {d.file: opened_design(designs[d.file], d) for d in _all_designs(found)}
        site = in_one_go(lambda: _made(request, found, brought, drawn))
    return Status(201, site_out(site, person(request)))


def _read(archive: zipfile.ZipFile) -> SiteFile:
    try:
        entry = archive.getinfo(SITE)
    except KeyError:
        raise BadArchive("This zip holds no site.json, so it is no exported site.") from None
    if entry.file_size > MOST_BYTES:
        raise BadArchive(f"Its site.json has more than {MOST_BYTES // 1_000_000} MB.")
    try:
        return read_site_file(archive.read(entry).decode())
    except UnicodeDecodeError:
        raise BadArchive("Its site.json is not in UTF-8.") from None


def _all_designs(found: SiteFile) -> dict[FileDesign, None]:
    return dict.fromkeys(d for page in found.pages for d in page.designs)


def opened_design(path: Path, said: FileDesign) -> Design:
    """A design of no page yet, whose file is kept. Raises UnreadablePicture."""
    return read_design(path, said.name, said.sha256, drawn_for=said.drawn_for)


def _designs(archive: zipfile.ZipFile, found: SiteFile, folder: Path) -> Iterator[tuple[str, Path]]:
    """Every picture of a design as a file. Raises BadArchive."""
    for n, d in enumerate(_all_designs(found)):
        target = folder / f"design-{n}"
        _unpack(archive, DESIGNS + d.file, target, f"The design {d.name}", d.sha256)
        yield d.file, target


def _unpack(archive: zipfile.ZipFile, entry: str, target: Path, called: str, sha256: str) -> None:
    """Raises BadArchive where it is not there, or is another one."""
    try:
        with archive.open(entry) as source, target.open("wb") as f:
            shutil.copyfileobj(source, f, 1 << 20)
    except KeyError:
        raise BadArchive(f"{called} is missing in this zip.") from None
    if sha256_of(target) != sha256:
        raise BadArchive(
            f"{entry.partition('/')[2]} is not the picture that the site was exported with. Export"
            " it again."
        )


def _unpacked(
    archive: zipfile.ZipFile, found: SiteFile, folder: Path
) -> Iterator[tuple[int, Path]]:
    """Every original as a file, looked at by its hash. Raises BadArchive."""
    for o in found.originals:
        target = folder / f"original-{o.id}"
        _unpack(archive, ORIGINALS + o.file, target, f"The original {o.file}", o.sha256)
        yield o.id, target


def _check(found: SiteFile) -> None:
    """Raises InvalidPlan where something of the site cannot be computed. What names an original
    that is missing says so where it stands, and asks for another."""
    check_frames(found.site, *found.site.frames)
    originals = {o.id: o for o in found.asked().originals}
    if len(originals) < len(found.originals):
        raise InvalidPlan("Two originals have one number in site.json.", field="originals")
    for page in found.pages:
        for placement in page.placements:
            if MISSING in placement.original_ids:
                continue
            try:
                plan(found.site, placement, originals)
            except InvalidPlan as error:
                said = f"{page.title} · {placement.name}: {error}"
                raise InvalidPlan(said, field=error.field) from None


def _made(
    request: HttpRequest,
    found: SiteFile,
    brought: dict[int, Original],
    drawn: Mapping[str, Design],
) -> Site:
    site = Site.objects.create(name=found.name, plan=found.site.model_dump(mode="json"))
    Membership.objects.create(site=site, user=person(request), role=Role.OWNER)
    numbers = {o.id: _kept(site, o, brought[o.id]).id for o in found.originals}
    _say_versions(found, numbers)
    rows: list[list[Placement]] = []
    pages: list[Page] = []
    for position, page in enumerate(found.pages, 1):
        row = Page.objects.create(site=site, title=page.title, position=position)
        pages.append(row)
        for d in page.designs:
            design = copy(drawn[d.file])
            design.page, design.name, design.drawn_for = row, d.name, d.drawn_for
            design.save()
        rows.append([])
        for n, placement in enumerate(page.placements, 1):
            bare: dict[str, Any] = {"stem": None, "page": "", "handed": {}}
            noun = renumbered(placement, numbers).model_copy(update=bare)
            made = Placement(page=row, position=n, revision=0)
            made.take(noun)
            rows[-1].append(made)
    made_all = [made for own in rows for made in own]
    Placement.objects.bulk_create(made_all, batch_size=200)
    begin_all(site, made_all)
    for page, row, own in zip(found.pages, pages, rows, strict=True):
        also = [rows[i][n] for i, n in page.also]
        Home.objects.bulk_create([Home(page=row, placement=p) for p in also])
        row.layout = stored_layout(page.layout, [*own, *also])
        row.save(update_fields=["layout"])
    return site


def _say_versions(found: SiteFile, numbers: Mapping[int, int]) -> None:
    """Which originals are versions of which. What is no version of another one here is none."""
    alone = {o.id for o in found.originals if o.version_of is None}
    for o in found.originals:
        if o.version_of in alone and o.version_when and numbers[o.version_of] != numbers[o.id]:
            said = {"version_of": numbers[o.version_of], "version_when": ",".join(o.version_when)}
            Original.objects.filter(id=numbers[o.id]).update(**said)


def _kept(site: Site, said: FileOriginal, brought: Original) -> Original:
    """An original with its words, areas and name; of the same bytes twice the one that is there."""
    there = site.originals.filter(sha256=brought.sha256).first()
    row = there or copy(brought)
    row.site = site
    row.name, row.alt, row.tags = said.name, said.alt, list(said.tags)
    row.focal_x, row.focal_y = said.focal
    row.areas = [a.model_dump(mode="json") for a in said.areas]
    row.save()
    return row
