"""What one export run hands over beside the pictures: pages, snippets, style sheets and a manifest.

A run is planned with all formats that are asked for; once its files are made, formats that turned
out no smaller are left out of what is handed over, and of the markup.
"""

from __future__ import annotations

import html
import json
from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass
from pathlib import Path
from typing import Any, Literal, NamedTuple

from pydantic import Field

from skypane.errors import InvalidPlan
from skypane.files.kept import LeftOut, left_out, without
from skypane.files.renditions import Files, cut_of, renditions
from skypane.hosts import host_texts
from skypane.identifiers import identifier, unique
from skypane.markup.addresses import FOLDER
from skypane.markup.css import css_lines
from skypane.markup.fonts import FOLDER as FONTS
from skypane.markup.fonts import fetched_first, font_lines
from skypane.markup.html import html_at, html_of
from skypane.markup.lines import Line, text_of
from skypane.markup.notes import notes_text
from skypane.markup.outputs import code_of, sheet_lines, written
from skypane.markup.page import page_html
from skypane.markup.picture import alt_text, placement_lines
from skypane.markup.preload import preload_links
from skypane.markup.scripts import script_text, scripts_of
from skypane.markup.substitute import substitute_of
from skypane.markup.whole import page_css, wrapped
from skypane.model import Effort, Original, PageLayout, Placement, Rendition, Site
from skypane.paged import page_in_spans, places_on_page
from skypane.services.addresses import Sign
from skypane.shown.nouns import Plan
from skypane.shown.plan import plan
from skypane.values import Noun
from skypane.words.faces import FACES

#: The style sheet of several placements.
SHEET = "pictures.css"


class AskedPage(Noun):
    """A page. `layout` names placements by their place here."""

    title: str = ""
    placements: tuple[Placement, ...]
    layout: PageLayout = Field(default_factory=dict)


class Asked(Noun):
    """What is to be handed over: one placement, the placements of a page, or those of all pages, as
    they stand. Placements that wait for all their pictures are passed over, unless there is only
    that one."""

    scope: Literal["placement", "page", "site"] = "placement"
    effort: Effort = "thorough"
    title: str = ""
    site: Site
    pages: tuple[AskedPage, ...]
    originals: tuple[Original, ...] = Field(default=())

    @property
    def placements(self) -> tuple[Placement, ...]:
        """Each once, wherever it is shown."""
        found: list[Placement] = []
        for p in (p for page in self.pages for p in page.placements):
            if not any(p.called == other.called and p == other for other in found):
                found.append(p)
        return tuple(found)

    @property
    def name(self) -> str:
        return self.title or self.placements[0].name


def asked_for(site: Site, placement: Placement, originals: Iterable[Original]) -> Asked:
    """One placement alone."""
    page = AskedPage(placements=(placement,))
    return Asked(title=placement.name, site=site, pages=(page,), originals=tuple(originals))


class FileFacts(NamedTuple):
    """What a made file turned out to be."""

    size_bytes: int
    sha256: str
    quality: int
    ssim: float


@dataclass(frozen=True)
class Blueprint:
    """All that a run has to make: `files` in the order of making, each once. `sign` signs addresses
    of an image service."""

    asked: Asked
    planned: tuple[tuple[Plan, Files], ...]
    sign: Sign | None = None

    @property
    def files(self) -> tuple[Rendition, ...]:
        return _each_once(self.planned)

    def handed(self) -> dict[str, dict[str, str]]:
        """The cuts that are handed over, by the identifier of their placement and the name that
        cuts follow each other under."""
        return {
            computed.placement.called: dict(cut_of(computed, g) for g, _ in files)
            for computed, files in self.planned
        }

    @property
    def texts(self) -> dict[str, str]:
        """The texts by file name, with all formats."""
        return _texts(self.asked, self.planned, self.sign)

    @property
    def empty_spans(self) -> dict[str, tuple[str, ...]]:
        """Spans that wait for a picture, by the name of their placement."""
        waiting = {
            computed.placement.name: tuple(
                dict.fromkeys(p.span.letter for part in computed.parts for p in part.waiting)
            )
            for computed, _ in self.planned
        }
        return {name: letters for name, letters in waiting.items() if letters}

    def check_pictures(self) -> None:
        """Raises InvalidPlan where a span waits for a picture."""
        for name, letters in self.empty_spans.items():
            where = "" if self.asked.scope == "placement" else f" of {name}"
            raise InvalidPlan(
                f"There is no picture in span {', '.join(letters)}{where}. Choose an original there"
                " first, in Aim."
            )


class Finished(NamedTuple):
    """What is handed over: texts by file name, the manifest among them, and the names of the files
    that go with them; what was left out, and why."""

    texts: dict[str, str]
    files: tuple[str, ...]
    left_out: tuple[LeftOut, ...]


def blueprint(asked: Asked, sign: Sign | None = None) -> Blueprint:
    """Plan a run. Raises InvalidPlan where a placement cannot be computed, or where there is
    nothing to hand over."""
    originals = {o.id: o for o in asked.originals}
    planned = []
    for placement in asked.placements:
        computed = plan(asked.site, placement, originals)
        files = renditions(computed, asked.effort)
        if asked.scope == "placement" or any(mine for _, mine in files):
            planned.append((computed, files))
    if not planned:
        raise InvalidPlan("There is nothing to export yet: no placement has a picture.")
    found = Blueprint(asked, tuple(planned), sign)
    _no_collisions(found.files)
    return found


def _no_collisions(files: Iterable[Rendition]) -> None:
    """Raises InvalidPlan where two different files would have one name."""
    keys: dict[str, str] = {}
    for r in files:
        if keys.setdefault(r.name, r.key) != r.key:
            raise InvalidPlan(
                f"Two files would be called {r.name}. Choose other leads for names in Site, or"
                " rename a placement.",
                field="plan.naming",
            )


def finish(found: Blueprint, facts: Mapping[str, FileFacts]) -> Finished:
    """What is handed over once all files are made; `facts` by key."""
    made = {key: fact.size_bytes for key, fact in facts.items()}
    kept: list[tuple[Plan, Files]] = []
    gone: list[LeftOut] = []
    for computed, files in found.planned:
        out = left_out(files, made)
        gone += out
        kept.append((computed, without(files, out)))
    files_ = _each_once(kept)
    texts = _texts(found.asked, kept, found.sign)
    manifest = _manifest(found.asked, kept, files_, gone, facts)
    texts["manifest.json"] = json.dumps(manifest, indent=2, ensure_ascii=False) + "\n"
    return Finished(texts, tuple(FOLDER + r.name for r in files_), tuple(gone))


def fonts_of(texts: Mapping[str, str]) -> dict[str, Path]:
    """The files of typefaces that the texts of a run ask for, by the name that they have there."""
    said = "".join(text for name, text in texts.items() if name.endswith(".css"))
    found = {f"{FONTS}{f.name}": f.path for face in FACES.values() for f in face.files}
    return {name: path for name, path in found.items() if f'url("{name}")' in said}


_Planned = Sequence[tuple[Plan, Files]]


def _texts(asked: Asked, planned: _Planned, sign: Sign | None) -> dict[str, str]:
    snippets = {
        p.placement.called: text_of(placement_lines(p, files, FOLDER)) for p, files in planned
    }
    sheets = {p.placement.called: text_of(css_lines(p, files)) for p, files in planned}
    fonts = text_of(font_lines(p for p, _ in planned))
    computed = {p.placement.called: p for p, _ in planned}
    files_of = {p.placement.called: files for p, files in planned}
    scripts = {name: script_text(name) for name in scripts_of(p for p, _ in planned)}
    lang = asked.site.language
    handed = _handed(asked, planned, sign)

    def notes(sheet: str) -> dict[str, str]:
        how = asked.site.hand_over
        text = notes_text(
            asked.name, how, folder=FOLDER, sheet=sheet, scripts=tuple(scripts), fonts=bool(fonts)
        )
        return {"notes.txt": text}

    if asked.scope == "placement":
        ((alone, files),) = planned
        called = alone.placement.called

        def one_page(snippet: str, first: tuple[Line, ...], sheet: str = "picture.css") -> str:
            return page_html(
                alone.placement.name,
                [snippet],
                stylesheets=(sheet,),
                scripts=tuple(scripts),
                fonts=fetched_first([alone]),
                first=first,
                lang=lang,
                dark="dark" in alone.placement.features,
                **_colours(asked),
            )

        of_one = {n.replace(f"snippets/{called}", "snippet"): t for n, t in handed.items()}
        if asked.site.hand_over.service is not None:
            code = code_of(alone, files, sign)
            printer = html_at(code.addresses)
            sheet = "page-service.css" if text_of(code.sheet) != fonts + sheets[called] else ""
            of_one |= {sheet: text_of(code.sheet)} if sheet else {}
            of_one["page-service.html"] = one_page(
                text_of(printer.lines(code.elements)),
                printer.lines(code.head),
                sheet or "picture.css",
            )
        return {
            "page.html": one_page(snippets[called], _asked_first(planned)),
            "picture.css": fonts + sheets[called],
            **scripts,
            **of_one,
            **notes("picture.css"),
        }
    out = {**scripts}
    names = unique(identifier(page.title, "page") for page in asked.pages)
    shown = []
    for name, page in zip(names, asked.pages, strict=True):
        mine = [snippets.get(p.called, "") for p in page.placements]
        if any(mine):
            here = [computed[p.called] for p in page.placements if p.called in computed]
            title = page.title or asked.name
            held = page_in_spans(asked.site, page.layout, len(mine))
            whole = wrapped(held, mine)
            # a page's own order and head stand in its own sheet
            own = text_of(page_css(asked.site, held))
            mine_css = {f"page-{name}.css": own} if own else {}
            out |= mine_css
            sheets_ = (SHEET, *mine_css)
            out[f"{name}.html"] = page_html(
                title,
                whole,
                stylesheets=sheets_,
                scripts=scripts_of(here),
                fonts=fetched_first(here),
                first=_asked_first((p, files_of[p.placement.called]) for p in here),
                lang=lang,
                dark=any("dark" in p.placement.features for p in here),
                **_colours(asked),
            )
            shown.append((name, page.title))
    if "index" not in names:
        links = [
            f'<p><a href="{name}.html">{html.escape(title or name)}</a></p>\n'
            for name, title in shown
        ]
        out["index.html"] = page_html(
            asked.name, links, stylesheets=(SHEET,), lang=lang, **_colours(asked)
        )
    out[SHEET] = fonts + "".join(sheets.values())
    return out | handed | notes(SHEET)


def _colours(asked: Asked) -> dict[str, Any]:
    """The colours of the pages of a delivery."""
    return {"colours": asked.site.colours, "colours_dark": asked.site.colours_dark}


def _asked_first(shown: Iterable[tuple[Plan, Files]]) -> tuple[Line, ...]:
    """The links in the head of a page that ask for the picture of its first lead."""
    each = (preload_links(computed, files) for computed, files in shown)
    return html_of(FOLDER).lines(next((links for links in each if links), ()))


def _handed(asked: Asked, planned: _Planned, sign: Sign | None) -> dict[str, str]:
    """The code that goes into pages of others, by file name. HTML has a style sheet of its own only
    where that of the delivery's pages says something else."""
    out = {}
    for computed, files in planned:
        of_pages, code = sheet_lines(computed, files), code_of(computed, files, sign)
        for output in asked.site.hand_over.outputs:
            for name, lines in written(code, output):
                if output != "html" or lines != of_pages:
                    out[name] = text_of(lines)
        order = _places(asked, computed.placement)
        out |= host_texts(computed, files, order, sign)
    return out


def _places(asked: Asked, placement: Placement) -> dict[str, int]:
    """Where a placement stands on the first of the pages that show it, by the letter of a span; on
    none where it is handed over alone."""
    for page in asked.pages if asked.scope != "placement" else ():
        called = [p.called for p in page.placements]
        if placement.called in called:
            at = called.index(placement.called)
            return places_on_page(asked.site, page.layout, len(called), at)
    return {}


def _manifest(
    asked: Asked,
    planned: _Planned,
    files: Iterable[Rendition],
    gone: Iterable[LeftOut],
    facts: Mapping[str, FileFacts],
) -> dict[str, object]:
    originals = {o.id: o for o in asked.originals}
    said = [_placement_facts(p) for p, _ in planned]
    head: dict[str, object] = said[0] if asked.scope == "placement" else {"placements": said}
    return {
        **({} if asked.scope == "placement" else {asked.scope: asked.name}),
        **head,
        "media_style": asked.site.media_style,
        "likeness": asked.site.likeness,
        **({} if asked.effort == "thorough" else {"effort": asked.effort}),
        "files": [_file_facts(r, originals, facts.get(r.key)) for r in files],
        "left_out": [
            {
                "spans": list(g.spans),
                "format": g.format,
                "bytes": g.size_bytes,
                "instead": g.instead,
                "against_bytes": g.against_bytes,
                "width_px": g.width_px,
            }
            for g in gone
        ],
    }


def _placement_facts(computed: Plan) -> dict[str, object]:
    parts = [
        {
            "alt": alt_text(part),
            "spans": [{**p.span._asdict(), "show": p.effective.show} for p in part.spans],
        }
        for part in computed.parts
    ]
    if len(parts) == 1:  # a placement of one part says what its part does itself
        return {"placement": computed.placement.name, **parts[0]}
    placement = computed.placement
    return {"placement": placement.name, "kind": placement.kind, "parts": parts}


def _file_facts(
    r: Rendition, originals: Mapping[int, Original], fact: FileFacts | None
) -> dict[str, Any]:
    made = {} if fact is None else {"bytes": fact.size_bytes, "sha256": fact.sha256}
    found = {} if fact is None or not fact.quality else {"quality": fact.quality, "ssim": fact.ssim}
    return {
        "name": FOLDER + r.name,
        "format": r.format,
        "width_px": r.width_px,
        "height_px": r.height_px,
        "offered_as": r.descriptor,
        "spans": list(r.spans),
        "needed_px": r.needed_px,
        "original": originals[r.original].name,
        "original_sha256": originals[r.original].sha256,
        "crop": r.crop.model_dump(),
        **found,
        "key": r.key,
        **made,
    }


def _each_once(planned: Sequence[tuple[Plan, Files]]) -> tuple[Rendition, ...]:
    """Every file once, with all the spans that it serves and the most px that any of them needs,
    and what shows where one does not come."""
    found: dict[tuple[str, str], Rendition] = {}
    for r in (r for _, files in planned for _, mine in files for r in mine):
        same = found.get((r.name, r.key))
        if same is not None:
            spans = tuple(sorted({*same.spans, *r.spans}))
            r = same.model_copy(
                update={"spans": spans, "needed_px": max(same.needed_px, r.needed_px)}
            )
        found[r.name, r.key] = r
    for r in filter(None, (substitute_of(computed) for computed, _ in planned)):
        found.setdefault((r.name, r.key), r)
    return tuple(found.values())
