"""A draft shaped by hand: what can be pulled of it at one viewport, and what a pull sets. Nothing
is stored."""

from __future__ import annotations

from collections.abc import Mapping

from common.problems import Problem
from django.http import HttpRequest
from ninja import Router
from sites.access import site_for
from skypane import model
from skypane.pulls import Held, Here, Pulled, PulledTo, StageReading, here, pulled, stage

from endpoints.readings import Draft, asked_of, row_of

router = Router()

REFUSED = {404: Problem, 422: Problem}


class HeldDraft(Draft):
    """A draft, and the viewport that it is held at."""

    held: Held


class PulledDraft(HeldDraft):
    """With the handle that is pulled, and where to."""

    pull: PulledTo


def _here(
    request: HttpRequest, site_id: int, draft: HeldDraft
) -> tuple[Here, Mapping[int, model.Original]]:
    site = site_for(request, site_id, looking=True)
    asked, placement, originals = asked_of(site, draft, row_of(site, draft))
    return here(asked, placement, originals, draft.held), originals


@router.post("/sites/{int:site_id}/readings/stage", response={200: StageReading, **REFUSED})
def read_stage(request: HttpRequest, site_id: int, draft: HeldDraft) -> StageReading:
    """A draft at one viewport, with every edge that can be pulled there, and where it stops."""
    of, originals = _here(request, site_id, draft)
    return stage(of, originals, of.site.densities[-1])


@router.post("/sites/{int:site_id}/readings/pull", response={200: Pulled, **REFUSED})
def read_pull(request: HttpRequest, site_id: int, draft: PulledDraft) -> Pulled:
    """What the draft's span has to set so that an edge is where it is pulled to."""
    of, originals = _here(request, site_id, draft)
    return pulled(of, originals, draft.pull)
