"""All that fails in a site, with the advice for each, and the remedies applied at once."""

from __future__ import annotations

from collections.abc import Mapping
from itertools import islice
from typing import Annotated

from config.bodies import Body
from config.db import in_one_go, locked
from config.problems import Problem
from django.http import HttpRequest
from ninja import Router, Schema
from pydantic import Field
from sites.models import Site, site_of
from skypane import model
from skypane.advice.others import belongs
from skypane.advice.steps import Advice
from skypane.advice.walk import advise_all, applied
from skypane.errors import InvalidPlan
from skypane.findings.rules import Finding, findings_of
from skypane.shown.plan import SpanPlan, plan

from placements.api import MOST_PROPOSED, StripFrame, proposable, strip_frame
from placements.history import begin, looks_now, record, step_back
from placements.models import Placement, originals_in, originals_of, placements_of

router = Router()

#: Originals of a very large site that remedies look at, the newest first.
MOST_IN_POOL = 400

Known = dict[int, model.Original]


class Remedy(Schema):
    """One span of one placement that fails: how it is now, and how it would be with each step of
    the advice that works."""

    placement_id: int
    revision: int
    page: str
    name: str
    first: int
    last: int
    advice: Advice
    findings: list[Finding]
    before: StripFrame
    after: list[StripFrame | None]  # one per step of the advice


class Choice(Body):
    """One step of one span's advice, by its number among `advice.steps`."""

    placement_id: int
    revision: int
    span: Annotated[str, Field(max_length=2)]
    step: Annotated[int, Field(ge=0, le=40)]


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


Advised = tuple[tuple[SpanPlan, ...], tuple[Advice, ...], dict[int, model.Original]]


def _advised(
    plan_: model.Site, noun: model.Placement, used: Mapping[int, model.Original], others: Known
) -> Advised:
    known = {**{i: used[i] for i in noun.original_ids if i in used}, **others}
    plans = plan(plan_, noun, known)
    return plans, advise_all(plan_, plans, known), known


@router.get("/sites/{int:site_id}/remedies", response={200: list[Remedy], 404: Problem})
def list_remedies(request: HttpRequest, site_id: int) -> list[Remedy]:
    """Every span that fails, in reading order, widest first."""
    site = site_of(request.user, site_id)
    plan_ = site.as_noun()
    rows = list(placements_of(site))
    nouns = {row.id: row.as_noun() for row in rows}
    used = originals_in(site, nouns)
    pool = {
        **used,
        **{
            o.id: o.as_noun()
            for o in site.originals.exclude(id__in=list(used)).exclude(areas=[])[:MOST_IN_POOL]
        },
    }
    out = []
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
            plans, advices, known = _advised(
                plan_, noun, used, dict(islice(others.items(), MOST_PROPOSED))
            )
        except InvalidPlan:
            continue
        findings = findings_of(plan_, noun, plans)
        by_letter = {p.span.letter: p for p in plans}
        for advice in reversed(advices):
            p = by_letter[advice.span]
            after = [
                (
                    next(
                        strip_frame(q)
                        for q in plan(plan_, applied(noun, advice.span, s), known)
                        if q.span.letter == advice.span
                    )
                    if s.works
                    else None
                )
                for s in advice.steps
            ]
            out.append(
                Remedy(
                    placement_id=row.id,
                    revision=row.revision,
                    page=row.page.title,
                    name=noun.name,
                    first=p.span.first,
                    last=p.span.last,
                    advice=advice,
                    findings=[
                        f for f in findings if f.code == "area" and f.spans == (advice.span,)
                    ],
                    before=strip_frame(p),
                    after=after,
                )
            )
    return out


@router.post(
    "/sites/{int:site_id}/remedies", response={200: list[Outcome], 404: Problem, 422: Problem}
)
def apply_remedies(request: HttpRequest, site_id: int, payload: Choices) -> list[Outcome]:
    """Apply the chosen steps, each placement by itself: one that was changed meanwhile is left
    alone and said so."""
    site = site_of(request.user, site_id)
    by_placement: dict[int, list[Choice]] = {}
    for choice in payload.choices:
        by_placement.setdefault(choice.placement_id, []).append(choice)
    return [_apply(site, id_, choices, request.user) for id_, choices in by_placement.items()]


def _apply(site: Site, placement_id: int, choices: list[Choice], by: object) -> Outcome:
    def apply() -> Outcome:
        row = locked(Placement, [placement_id]).get(placement_id)
        letters = sorted({c.span for c in choices})
        if row is None or row.page.site_id != site.id:
            return Outcome(
                placement_id=placement_id,
                name="",
                spans=letters,
                applied=False,
                revision=0,
                sentence="It has been removed.",
            )
        noun = row.as_noun()

        def left(sentence: str) -> Outcome:
            return Outcome(
                placement_id=row.id,
                name=noun.name,
                spans=letters,
                applied=False,
                revision=row.revision,
                sentence=sentence,
            )

        if any(c.revision != row.revision for c in choices):
            return left(
                f"{noun.name} was changed meanwhile and is left alone. Look at its advice again."
            )
        used = originals_of(site, noun.original_ids)
        _, advices, _ = _advised(site.as_noun(), noun, used, proposable(site, used, row.id))
        by_letter = {a.span: a for a in advices}
        treated, said = noun, []
        # from the widest, so that what keeps a narrower span as it is never lies over its own
        # remedy
        for choice in sorted(choices, key=lambda c: c.span, reverse=True):
            advice = by_letter.get(choice.span)
            if (
                advice is None
                or choice.step >= len(advice.steps)
                or not advice.steps[choice.step].works
            ):
                return left(f"There is no such remedy for span {choice.span} of {noun.name}.")
            step = advice.steps[choice.step]
            treated = applied(treated, choice.span, step)
            said.append(f"{step.label} in {choice.span}")
        begin(row)
        record(row, treated, looks_now(row, treated), by, f"Remedy: {', '.join(said)}"[:120])
        return Outcome(
            placement_id=row.id,
            name=noun.name,
            spans=letters,
            applied=True,
            revision=row.revision,
            sentence=f"{noun.name}: {', '.join(said)}.",
        )

    return in_one_go(apply)


@router.post(
    "/sites/{int:site_id}/remedies/undo", response={200: list[Outcome], 404: Problem, 422: Problem}
)
def undo_remedies(request: HttpRequest, site_id: int, payload: Undoing) -> list[Outcome]:
    """One step back in each placement that has not been changed since."""
    site = site_of(request.user, site_id)
    return [_undo(site, placement_id, revision) for placement_id, revision in payload.placements]


def _undo(site: Site, placement_id: int, revision: int) -> Outcome:
    def undo() -> Outcome:
        row = locked(Placement, [placement_id]).get(placement_id)
        if row is not None and row.page.site_id != site.id:
            row = None
        undone = row is not None and row.revision == revision and step_back(row) is not None
        name = row.as_noun().name if row else ""
        return Outcome(
            placement_id=placement_id,
            name=name,
            spans=[],
            applied=undone,
            revision=row.revision if row else 0,
            sentence=(
                f"{name} is as before."
                if undone
                else f"{name or 'It'} was changed meanwhile and stays as it is."
            ),
        )

    return in_one_go(undo)
