"""The code of a placement in each kind of output."""

from __future__ import annotations

from collections.abc import Mapping

from skypane.files.kept import left_out, without
from skypane.files.renditions import renditions
from skypane.markup.lines import text_of
from skypane.markup.outputs import written_as
from skypane.model import Original, Output, Placement, Site
from skypane.reading.nouns import CodeFile, CodeLine
from skypane.reading.read import MadeBytes, made_of
from skypane.services.addresses import Sign
from skypane.shown.plan import plan


def code_as(
    site: Site,
    placement: Placement,
    originals: Mapping[int, Original],
    output: Output,
    made_bytes: MadeBytes = lambda keys: {},
    sign: Sign | None = None,
) -> tuple[CodeFile, ...]:
    """The files of a placement in one kind of output, none where there is no picture yet. Raises
    InvalidPlan where the placement cannot be computed."""
    computed = plan(site, placement, originals)
    files = renditions(computed)
    made, _ = made_of(made_bytes, files)
    kept = without(files, left_out(files, made))
    return tuple(
        CodeFile(
            name=f.name,
            lines=tuple(CodeLine(text=line.text, spans=line.spans) for line in f.lines),
            text=text_of(f.lines),
        )
        for f in written_as(computed, kept, output, sign)
    )
