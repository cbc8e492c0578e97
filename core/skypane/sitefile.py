"""A whole site as a file: everything but the pictures. Versioned; its JSON Schema is in docs/.

The numbers by which placements name their originals are the file's own; `originals` says which
picture each is, by its name and by the SHA-256 of its bytes.
"""

from __future__ import annotations

import json
from collections.abc import Iterable, Mapping
from typing import Annotated, Any, Literal

from pydantic import Field, ValidationError, model_validator

from skypane import texts
from skypane.errors import SkyPaneError, say, written
from skypane.handover import Asked, AskedPage
from skypane.model import Original, PageLayout, Placement, Site, Treatment, Treatments
from skypane.model.stored import VERSION, lifted
from skypane.numerals import whole
from skypane.texts import holds_nul
from skypane.treatments import own_values, with_named
from skypane.values import GREATEST_VIEWPORT, LEAST_VIEWPORT, Noun

MOST_BYTES = 50_000_000
#: Where a picture lies in an exported archive.
ORIGINALS = "originals/"
#: And where a picture of the design does.
DESIGNS = "designs/"
#: Names that no file system takes, and what takes its place.
_UNSAFE = str.maketrans(dict.fromkeys('/\\:*?"<>|\x00', "-"))


class BadSiteFile(SkyPaneError):
    """A site file that cannot be taken; the sentence names line or field."""


class FileDesign(Noun):
    """A picture of how a page is to look, with the name of its file below the folder of designs. It
    goes with archives, never into a delivery."""

    name: Annotated[str, Field(min_length=1, max_length=200)]
    sha256: Annotated[str, written(r"^[0-9a-f]{64}$", "It must be a SHA-256 in hexadecimal.")]
    drawn_for: Annotated[int, Field(ge=LEAST_VIEWPORT, le=GREATEST_VIEWPORT)]

    @property
    def file(self) -> str:
        """Its name in an archive: another content has another one."""
        return f"{self.sha256[:12]}-{safe_name(self.name)}"


class FilePage(Noun):
    title: Annotated[str, Field(min_length=1, max_length=80)]
    placements: Annotated[tuple[Placement, ...], Field(max_length=5000)] = ()
    # what else shows here: pages and placements of theirs by their place in the file, from 0
    also: Annotated[tuple[tuple[int, int], ...], Field(max_length=5000)] = ()
    # names placements by their place here, those of `also` after its own
    layout: PageLayout = Field(default_factory=dict)
    designs: Annotated[tuple[FileDesign, ...], Field(max_length=100)] = ()


class FileOriginal(Original):
    """An original with the name of its file, below the folder of originals."""

    file: Annotated[str, Field(min_length=1, max_length=255)]


class SiteFile(Noun):
    skypane: Literal["site"] = "site"
    version: Literal[9] = 9
    name: Annotated[str, Field(min_length=1, max_length=80)]
    site: Site
    pages: Annotated[tuple[FilePage, ...], Field(max_length=1000)] = ()
    originals: Annotated[tuple[FileOriginal, ...], Field(max_length=20_000)] = ()

    @model_validator(mode="after")
    def _homes_are_there(self) -> SiteFile:
        for at, page in enumerate(self.pages):
            for i, n in page.also:
                if not (0 <= i < len(self.pages) and 0 <= n < len(self.pages[i].placements)):
                    raise ValueError(
                        f"{page.title} shows placement {n} of page {i}, and there is none."
                    )
                if i == at:
                    raise ValueError(
                        f"{page.title} shows its own placement {n} as a guest. Name only those of"
                        " other pages."
                    )
            if len(set(page.also)) < len(page.also):
                raise ValueError(f"{page.title} shows a placement of another page twice.")
        return self

    def asked(self) -> Asked:
        """A run of the whole site."""
        own = [
            tuple(p.model_copy(update={"page": page.title}) for p in page.placements)
            for page in self.pages
        ]
        pages = tuple(
            AskedPage(
                title=page.title,
                placements=(*mine, *(own[i][n] for i, n in page.also)),
                layout=page.layout,
            )
            for page, mine in zip(self.pages, own, strict=True)
        )
        originals = tuple(
            Original(**{f: getattr(o, f) for f in Original.model_fields}) for o in self.originals
        )
        return Asked(
            scope="site", title=self.name, site=self.site, pages=pages, originals=originals
        )


def site_file(
    name: str,
    site: Site,
    pages: Iterable[FilePage],
    originals: Iterable[Original],
) -> SiteFile:
    """A site as a file. Originals are numbered from 1 in the order in which they are given; files
    of one name are told apart."""
    numbers: dict[int, int] = {}
    files: list[FileOriginal] = []
    taken: set[str] = set()
    given = list(originals)
    for number, o in enumerate(given, 1):
        numbers[o.id] = number
    for o in given:
        file = _free(safe_name(o.name), taken)
        taken.add(file.lower())
        of = numbers.get(o.version_of or 0)
        said = {"id": numbers[o.id], "file": file, "version_of": of}
        when = o.version_when if of else ()
        files.append(FileOriginal(**{**dict(o), **said, "version_when": when}))
    told = tuple(
        page.model_copy(
            update={
                "placements": tuple(
                    renumbered(p, numbers).model_copy(update={"page": ""}) for p in page.placements
                )
            }
        )
        for page in pages
    )
    return SiteFile(name=name, site=site, pages=told, originals=tuple(files))


def safe_name(name: str) -> str:
    """A name as a file of its own, without folders."""
    plain = name.translate(_UNSAFE).strip(" .")
    return plain[:200] or "picture"


def _free(name: str, taken: set[str]) -> str:
    stem, dot, suffix = name.rpartition(".")
    candidate, n = name, 2
    while candidate.lower() in taken:
        candidate = f"{stem}-{n}.{suffix}" if dot and stem else f"{name}-{n}"
        n += 1
    return candidate


#: The number of an original that a placement names and nobody has any more. Its spans say so, and
#: ask for another.
MISSING = 0


def renumbered(placement: Placement, numbers: Mapping[int, int]) -> Placement:
    """The placement with its originals under other numbers; one that has none is `MISSING`."""
    told = {id_: numbers.get(id_, MISSING) for id_ in placement.original_ids}

    def one(treatments: Treatments) -> Treatments:
        out = {}
        for letter, own in treatments.items():
            values = own_values(own)
            if own.original is not None:
                values["original"] = told[own.original]
            out[letter] = Treatment(**values)
        return out

    parts = tuple(p.model_copy(update={"treatments": one(p.treatments)}) for p in placement.parts)
    changed: dict[str, Any] = {"parts": parts, "common": one(placement.common)}
    if placement.substitute is not None:
        changed["substitute"] = told[placement.substitute]
    shown = placement.model_copy(update=changed)
    return with_named(shown, told)


def _check_names(found: SiteFile) -> None:
    """Raises BadSiteFile for a placement that names an original which the file does not hold, and
    that is not said to be missing."""
    known = {MISSING, *(o.id for o in found.originals)}
    for page in found.pages:
        for placement in page.placements:
            for id_ in sorted(placement.original_ids - known):
                raise BadSiteFile(
                    f"{placement.name} shows the original {id_}, which is not among the originals.",
                    field="originals",
                )


def text_of_site(found: SiteFile) -> str:
    """As it is written, a value a line, so that two versions can be compared."""
    told = found.model_dump(mode="json", exclude_none=True)
    return json.dumps(told, indent=2, ensure_ascii=False) + "\n"


def read_site_file(text: str) -> SiteFile:
    """A site file of this or an older version. Raises BadSiteFile, with line or field."""
    try:
        data = json.loads(text.lstrip("\ufeff"), parse_int=whole)
    except json.JSONDecodeError as error:
        raise BadSiteFile(
            f"site.json is no JSON: {error.msg.lower()}, line {error.lineno}, column {error.colno}."
        ) from None
    except RecursionError:
        raise BadSiteFile("site.json is nested too deeply to be read.") from None
    if holds_nul(data):
        raise BadSiteFile(texts.SENTENCE)
    if not isinstance(data, dict) or data.get("skypane") != "site":
        raise BadSiteFile(
            'This is no site of Sky Pane: "skypane": "site" is not said in it.', field="skypane"
        )
    try:
        found = SiteFile.model_validate(_present(data))
    except ValidationError as error:
        first = error.errors(include_url=False)[0]
        where = ".".join(str(part) for part in first["loc"])
        raise BadSiteFile(f"site.json, {where or 'top'}: {say(first)}", field=where) from None
    _check_names(found)
    return found


def _present(data: dict[str, Any]) -> dict[str, Any]:
    """What an older version wrote, as the present one writes it."""
    version = data.get("version")
    if not isinstance(version, int) or isinstance(version, bool) or version < 1:
        raise BadSiteFile("site.json does not say its version.", field="version")
    if version > VERSION:
        raise BadSiteFile(
            f"site.json was written by a newer version ({version}; this one reads {VERSION})."
            " Bring this installation up to date.",
            field="version",
        )
    if version == VERSION:
        return data
    out = {**data, "version": VERSION}
    try:
        if isinstance(data.get("site"), dict):
            out["site"] = lifted("site", {**data["site"], "version": version})
        if "originals" in data:
            listed = {"version": version, "list": data["originals"]}
            out["originals"] = lifted("originals", listed)
        out["pages"] = [
            {
                **page,
                "placements": [
                    lifted("placement", {**p, "version": version})
                    for p in page.get("placements", [])
                ],
            }
            for page in data.get("pages", [])
        ]
    except (AttributeError, KeyError, TypeError):
        raise BadSiteFile("site.json is not made as its version says.", field="pages") from None
    return out
