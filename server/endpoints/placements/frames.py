"""A placement's named frame: made after it, taken, left."""

from __future__ import annotations

from typing import Annotated

from accounts.session import person
from common.bodies import Body
from common.db import in_one_go, locked_one
from common.problems import Problem, Refused
from django.http import HttpRequest
from ninja import Router
from placements.history import add, begin, looks_now
from placements.models import Placement
from pydantic import Field
from sites.access import row_for
from sites.models import Site
from sites.shapes import Title
from skypane import model, named_from, parted, using

from endpoints.placements.placements import PlacementOut, placement_out

router = Router()


class FrameIn(Body):
    """`name`: of a new named frame, made as the placement's own is. `frame`: the id of one to take;
    null leaves the one that it has, its values becoming the placement's own."""

    revision: int
    name: Annotated[Title, Field(max_length=40)] | None = None
    frame: model.FrameId | None = None


@router.post(
    "/placements/{int:placement_id}/frame",
    response={200: PlacementOut, 404: Problem, 409: Problem, 422: Problem},
)
def change_frame(request: HttpRequest, placement_id: int, payload: FrameIn) -> PlacementOut:
    """Name the placement's frame, take a named one, or part from it."""
    rows = Placement.objects.select_related("page__site")
    site_id = row_for(request, rows, "page__site", placement_id).page.site_id

    def change() -> Placement:
        site = locked_one(Site, site_id)
        row = locked_one(Placement, placement_id)
        if row.revision != payload.revision:
            raise Refused(
                "This placement was changed elsewhere since you opened it. Load it again.",
                status=409,
            )
        before, noun = site.as_noun(), row.as_noun()
        begin(row)
        if payload.name is not None:
            after, changed = named_from(before, noun, payload.name.strip())
            site.plan = after.model_dump(mode="json")
            site.revision += 1
            site.save(update_fields=["plan", "revision"])
        elif payload.frame is not None:
            if before.frame_of(payload.frame) is None:
                raise Refused("There is no such frame in this site any more.", field="frame")
            changed = using(noun, payload.frame)
        else:
            changed = parted(before, noun)
        body = changed.model_dump(mode="json", exclude_none=True)
        add(row, row.at, [(body, looks_now(row, changed))], person(request))
        row.keep(changed)
        return row

    return placement_out(in_one_go(change))
