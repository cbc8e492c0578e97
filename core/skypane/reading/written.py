"""What is told of the code of a placement: its lines, its scripts, in which way each part is
written."""

from __future__ import annotations

from collections.abc import Collection

from skypane.files.renditions import Files, by_part
from skypane.markup.addresses import addresses_of, without_address
from skypane.markup.html import html_at
from skypane.markup.lines import text_of
from skypane.markup.outputs import code_of
from skypane.markup.page import script_tag
from skypane.markup.scripts import SCRIPTS, script_text, scripts_of
from skypane.markup.sizes import drawn_sizes
from skypane.markup.ways import COSTS, COSTS_INLINE, written_way
from skypane.model import Way
from skypane.reading.behind import behind_reading
from skypane.reading.nouns import Code, CodeLine, Script, WayReading
from skypane.services.addresses import Sign
from skypane.shown.nouns import PartPlan, Plan


def code_told(computed: Plan, files: Files, told: Collection[int], sign: Sign | None) -> Code:
    """The code of a placement; of some of many parts only their `sizes`."""
    whole = len(told) == len(computed.parts)
    code = code_of(computed, files, sign) if whole else None
    printer = html_at(addresses_of(computed, sign))
    markup = printer.lines(code.elements) if code else ()
    head = printer.lines(code.head) if code else ()
    css = code.sheet if code else ()
    style = computed.site.media_style
    sizes = {i: drawn_sizes(computed.parts[i].spans, style) for i in sorted(told)}
    return Code(
        markup=tuple(CodeLine(text=li.text, spans=li.spans) for li in markup),
        css=tuple(CodeLine(text=li.text, spans=li.spans) for li in css),
        sizes=sizes,
        markup_text=text_of(markup),
        css_text=text_of(css),
        head=tuple(CodeLine(text=li.text, spans=li.spans) for li in head),
        head_text=text_of(head),
        without_address=without_address(computed, files),
        scripts=_scripts(computed) if markup else (),
        ways=_ways(computed, files, told),
        behind=behind_reading(computed, text_of(css)),
    )


def _ways(computed: Plan, files: Files, told: Collection[int]) -> dict[int, WayReading]:
    """Of the parts that are told of; what stands in for another is written as that is."""
    of, out = by_part(files), {}
    for part in computed.written:
        if part.index in told:
            found = written_way(computed, part, of.get(part.index, ()))
            costs = _costs(computed, part, found.way)
            out[part.index] = WayReading(
                way=found.way, why=found.why, cannot=found.cannot, costs=costs
            )
    return out


def _costs(computed: Plan, part: PartPlan, way: Way) -> tuple[str, ...]:
    if way == "background":
        return COSTS
    drawing = part.shown[0].original.drawing if way == "svg" and part.shown else None
    return (COSTS_INLINE.format(bytes_=len(drawing.encode())),) if drawing else ()


def _scripts(computed: Plan) -> tuple[Script, ...]:
    return tuple(
        Script(name=name, what=SCRIPTS[name].what, tag=script_tag(name), text=script_text(name))
        for name in scripts_of([computed])
    )
