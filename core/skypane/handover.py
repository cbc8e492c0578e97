"""What one export run hands over beside the pictures: page, snippet, style sheet and manifest."""

from __future__ import annotations

import json
from collections.abc import Iterable, Mapping
from typing import Any, NamedTuple

from skypane.files.renditions import Files, renditions
from skypane.markup.css import css_lines
from skypane.markup.lines import text_of
from skypane.markup.page import page_html
from skypane.markup.picture import alt_text, placement_lines
from skypane.model import Original, Placement, Rendition, Site
from skypane.shown.plan import Plan, plan

FOLDER = "images/"


class Blueprint(NamedTuple):
    """All that a run has to make: `files` in the order of making, and the texts by file name."""

    files: tuple[Rendition, ...]
    texts: dict[str, str]
    manifest: dict[str, object]


def blueprint(site: Site, placement: Placement, originals: Mapping[int, Original]) -> Blueprint:
    """Plan a run. Raises InvalidPlan where the placement cannot be computed."""
    computed = plan(site, placement, originals)
    files = renditions(computed)
    snippet = text_of(placement_lines(computed, files, FOLDER))
    texts = {
        "page.html": page_html(placement, snippet),
        "snippet.html": snippet,
        "picture.css": text_of(css_lines(computed)),
    }
    each_once = _each_once(files)
    return Blueprint(each_once, texts, _manifest(computed, each_once, originals))


def _manifest(
    computed: Plan, files: Iterable[Rendition], originals: Mapping[int, Original]
) -> dict[str, object]:
    parts = [
        {
            "alt": alt_text(part),
            "spans": [{**p.span._asdict(), "show": p.effective.show} for p in part.spans],
        }
        for part in computed.parts
    ]
    said: tuple[dict[str, object], dict[str, object]]
    if len(parts) == 1:  # a placement of one part says what its part does itself
        said = {"alt": parts[0]["alt"]}, {"spans": parts[0]["spans"]}
    else:
        said = {"kind": computed.placement.kind}, {"parts": parts}
    return {
        "placement": computed.placement.name,
        **said[0],
        "media_style": computed.site.media_style,
        **said[1],
        "files": [
            {
                "name": FOLDER + r.name,
                "format": r.format,
                "width_px": r.width_px,
                "height_px": r.height_px,
                "density": r.density,
                "spans": list(r.spans),
                "needed_px": r.needed_px,
                "original": originals[r.original].name,
                "original_sha256": originals[r.original].sha256,
                "crop": r.crop.model_dump(),
                "quality": r.quality,
                "key": r.key,
            }
            for r in files
        ],
    }


def _each_once(files: Files) -> tuple[Rendition, ...]:
    """Every file once, with all the spans that it serves and the most px that any of them needs."""
    found: dict[str, Rendition] = {}
    for r in (r for _, mine in files for r in mine):
        same = found.get(r.name)
        if same is not None:
            spans = tuple(sorted({*same.spans, *r.spans}))
            r = same.model_copy(
                update={"spans": spans, "needed_px": max(same.needed_px, r.needed_px)}
            )
        found[r.name] = r
    return tuple(found.values())


def manifest_text(manifest: Mapping[str, Any], facts: Mapping[str, tuple[int, str]]) -> str:
    """The manifest with (bytes, SHA-256) of every file filled in, by rendition key."""
    filled = []
    for entry in manifest["files"]:
        size_bytes, sha256 = facts[entry["key"]]
        filled.append(
            {k: v for k, v in entry.items() if k != "key"} | {"bytes": size_bytes, "sha256": sha256}
        )
    return json.dumps({**manifest, "files": filled}, indent=2, ensure_ascii=False) + "\n"
