"""All that fails in a site, with the advice for each, and the remedies applied at once."""

from __future__ import annotations

from collections.abc import Iterator
from itertools import islice
from typing import Annotated

from accounts.session import person
from common.bodies import Body
from common.db import in_one_go, locked
from common.problems import Problem
from django.contrib.auth.models import User
from django.http import HttpRequest
from ninja import Router, Schema
from placements.history import begin, looks_now, record, step_back
from placements.models import Placement, originals_in, originals_of, placements_of
from placements.proposals import MOST_PROPOSED, proposable
from placements.strips import StripFrameOut, strip_frame_out
from pydantic import Field
from sites.access import site_for
from sites.models import Site
from skypane import (
    Advice,
    InvalidPlan,
    Plan,
    Remedy,
    advise_part,
    applied,
    belongs,
    findings_of,
    model,
    plan,
)

router = Router()

#: Originals of a very large site that remedies look at, the newest first.
MOST_IN_POOL = 400

Known = dict[int, model.Original]


class FailingSpan(Schema):
    """One part in one span that fails: how it is now, and how it would be with each remedy of the
    advice that works."""

    placement_id: int
    revision: int
    page: str
    name: str
    part: int
    first: int
    last: int
    advice: Advice
    findings: list[model.Finding]
    before: StripFrameOut
    after: list[StripFrameOut | None]  # one per remedy of the advice


class Choice(Body):
    """One remedy of one span, by its number among `advice.steps`."""

    placement_id: int
    revision: int
    part: model.PartIndex = 0
    span: Annotated[str, Field(max_length=2)]
    remedy: Annotated[int, Field(ge=0, le=40)]


class Choices(Body):
    choices: Annotated[list[Choice], Field(min_length=1, max_length=500)]


class Outcome(Schema):
    """What became of a placement. `revision` is the one to undo from."""

    placement_id: int
    name: str
    spans: list[str]
    applied: bool
    revision: int
    sentence: str


class Undoing(Body):
    # (placement, revision)
    placements: Annotated[list[tuple[int, int]], Field(min_length=1, max_length=500)]


def _advised(
    plan_: model.Site, noun: model.Placement, used: Known, others: Known
) -> tuple[Plan, dict[int, tuple[Advice, ...]], Known]:
    """The placement computed, per part the advice for it, and the originals that may be shown."""
    known = {**{i: used[i] for i in noun.original_ids if i in used}, **others}
    computed = plan(plan_, noun, known)
    advice = {
        p.index: advise_part(p, known, plan_.budget_bytes, handed_of_kind=computed.handed_of_kind)
        for p in computed.parts
    }
    return computed, advice, known


@router.get("/sites/{int:site_id}/remedies", response={200: list[FailingSpan], 404: Problem})
def list_remedies(request: HttpRequest, site_id: int) -> list[FailingSpan]:
    """Every span that fails, in reading order, widest first."""
    site = site_for(request, site_id)
    plan_ = site.as_noun()
    rows = list(placements_of(site))
    nouns = {row.id: row.as_noun() for row in rows}
    used = originals_in(site, nouns.values())
    spare = site.originals.exclude(id__in=list(used)).exclude(areas=[])[:MOST_IN_POOL]
    pool = {**used, **{o.id: o.as_noun() for o in spare}}
    out: list[FailingSpan] = []
    for row in rows:
        noun = nouns[row.id]
        on_page = set().union(*(nouns[p.id].original_ids for p in rows if p.page_id == row.page_id))
        mine = [used[i] for i in noun.original_ids if i in used]
        others = {
            i: o
            for i, o in pool.items()
            if i not in noun.original_ids and o.areas and belongs(o, mine, on_page)
        }
        try:
            out += _failing(row, noun, plan_, used, dict(islice(others.items(), MOST_PROPOSED)))
        except InvalidPlan:
            continue
    return out


def _failing(
    row: Placement, noun: model.Placement, plan_: model.Site, used: Known, others: Known
) -> Iterator[FailingSpan]:
    computed, advices, known = _advised(plan_, noun, used, others)
    findings = [f for f in findings_of(computed) if f.rule == "area"]
    for part in computed.parts:
        for advice in reversed(advices[part.index]):
            p = part.of(advice.span)
            yield FailingSpan(
                placement_id=row.id,
                revision=row.revision,
                page=row.page.title,
                name=noun.name,
                part=part.index,
                first=p.span.first,
                last=p.span.last,
                advice=advice,
                findings=[
                    f for f in findings if f.part == part.index and f.spans == (advice.span,)
                ],
                before=strip_frame_out(p),
                after=[_with(plan_, noun, part.index, advice.span, s, known) for s in advice.steps],
            )


def _with(
    plan_: model.Site, noun: model.Placement, part: int, letter: str, remedy: Remedy, known: Known
) -> StripFrameOut | None:
    """The span as it would be with a remedy; None where that one does not work."""
    if not remedy.works:
        return None
    helped = plan(plan_, applied(noun, part, letter, remedy), known)
    return strip_frame_out(helped.parts[part].of(letter))


@router.post(
    "/sites/{int:site_id}/remedies", response={200: list[Outcome], 404: Problem, 422: Problem}
)
def apply_remedies(request: HttpRequest, site_id: int, payload: Choices) -> list[Outcome]:
    """Apply the chosen remedies, each placement by itself: one that was changed meanwhile is left
    alone and said so."""
    site = site_for(request, site_id)
    by_placement: dict[int, list[Choice]] = {}
    for choice in payload.choices:
        by_placement.setdefault(choice.placement_id, []).append(choice)
    return [_apply(site, id_, choices, person(request)) for id_, choices in by_placement.items()]


class _Left(Exception):
    """A placement is left alone, and why."""


def _apply(site: Site, placement_id: int, choices: list[Choice], by: User) -> Outcome:
    letters = sorted({c.span for c in choices})

    def outcome(sentence: str, name: str = "", revision: int = 0, applied: bool = False) -> Outcome:
        return Outcome(
            placement_id=placement_id,
            name=name,
            spans=letters,
            applied=applied,
            revision=revision,
            sentence=sentence,
        )

    def apply() -> Outcome:
        row = locked(Placement, [placement_id]).get(placement_id)
        if row is None or row.page.site_id != site.id:
            return outcome("It has been removed.")
        noun = row.as_noun()
        try:
            treated, said = _treated(site, row, noun, choices)
        except _Left as left:
            return outcome(str(left), noun.name, row.revision)
        begin(row)
        record(row, treated, looks_now(row, treated), by, f"Remedy: {', '.join(said)}"[:120])
        return outcome(f"{noun.name}: {', '.join(said)}.", noun.name, row.revision, applied=True)

    return in_one_go(apply)


def _treated(
    site: Site, row: Placement, noun: model.Placement, choices: list[Choice]
) -> tuple[model.Placement, list[str]]:
    """The placement with the chosen remedies, and what they are called. Raises _Left."""
    if any(c.revision != row.revision for c in choices):
        raise _Left(
            f"{noun.name} was changed meanwhile and is left alone. Look at its advice again."
        )
    plan_ = site.as_noun()
    used = originals_of(site, noun.original_ids)
    others = proposable(site, used, row.id)
    computed, advices, _ = _advised(plan_, noun, used, others)
    chosen: dict[tuple[int, str], Remedy] = {}
    for c in choices:
        advice = _advice_of(advices, c.part, c.span)
        if advice is None or c.remedy >= len(advice.steps) or not advice.steps[c.remedy].works:
            raise _Left(f"There is no such remedy for span {c.span} of {noun.name}.")
        chosen[c.part, c.span] = advice.steps[c.remedy]
    said = []
    letters = [s.letter for s in computed.spans]
    # from the widest, which narrower spans follow: what helps those is then looked at again
    for i, (part, letter) in enumerate(
        sorted(chosen, key=lambda key: (key[0], -letters.index(key[1])))
    ):
        if i:
            _, advices, _ = _advised(plan_, noun, used, others)
        remedy = _as_chosen(_advice_of(advices, part, letter), chosen[part, letter])
        if remedy is None:
            continue
        noun = applied(noun, part, letter, remedy)
        said.append(f"{remedy.label} in {letter}")
    return noun, said


def _advice_of(advices: dict[int, tuple[Advice, ...]], part: int, letter: str) -> Advice | None:
    return next((a for a in advices.get(part, ()) if a.span == letter), None)


def _as_chosen(advice: Advice | None, chosen: Remedy) -> Remedy | None:
    """The remedy of the kind that was chosen, as it is now, or the gentlest that works; None where
    nothing is wrong any more, or nothing helps."""
    if advice is None or advice.best is None:
        return None
    alike = (s for s in advice.steps if s.works and s.kind == chosen.kind)
    return next(alike, advice.steps[advice.best])


@router.post(
    "/sites/{int:site_id}/remedies/undo", response={200: list[Outcome], 404: Problem, 422: Problem}
)
def undo_remedies(request: HttpRequest, site_id: int, payload: Undoing) -> list[Outcome]:
    """One step back in each placement that has not been changed since."""
    site = site_for(request, site_id)
    return [_undo(site, placement_id, revision) for placement_id, revision in payload.placements]


def _undo(site: Site, placement_id: int, revision: int) -> Outcome:
    def undo() -> Outcome:
        row = locked(Placement, [placement_id]).get(placement_id)
        if row is not None and row.page.site_id != site.id:
            row = None
        undone = row is not None and row.revision == revision and step_back(row) is not None
        name = row.as_noun().name if row else ""
        as_before = f"{name} is as before."
        changed = f"{name or 'It'} was changed meanwhile and stays as it is."
        return Outcome(
            placement_id=placement_id,
            name=name,
            spans=[],
            applied=undone,
            revision=row.revision if row else 0,
            sentence=as_before if undone else changed,
        )

    return in_one_go(undo)
