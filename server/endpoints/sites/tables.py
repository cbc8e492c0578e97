"""What a site can be told by files of others: widths found in CSS, tokens and tables, and its
audience."""

from __future__ import annotations

from typing import Annotated

from common.bodies import Body
from common.pictures import guard
from common.problems import Problem
from common.uploads import takes_file
from django.http import HttpRequest, HttpResponse
from ninja import File, Router, UploadedFile
from pydantic import Field
from sites.access import site_for
from skypane import Found, model
from skypane.files.audience import audience_csv, audience_of
from skypane.files.names import examples
from skypane.found import Chosen, taken
from skypane.found.table import widths_csv
from skypane.identifiers import identifier
from skypane.tables import MOST_BYTES

#: Larger ones are refused before they are read; the core says what it reads.
MOST_TABLE_BYTES = 5_000_000

router = Router()


class TextIn(Body):
    text: Annotated[str, Field(max_length=4_500_000)]


class NamingIn(Body):
    naming: model.Naming
    hashed: bool = False
    titles: Annotated[list[Annotated[str, Field(max_length=40)]], Field(max_length=26)] = []


@router.post(
    "/sites/{int:site_id}/naming/examples", response={200: list[str], 404: Problem, 422: Problem}
)
def name_examples(request: HttpRequest, site_id: int, payload: NamingIn) -> list[str]:
    """What files would be called. Nothing is stored."""
    site_for(request, site_id, looking=True)
    return list(examples(payload.naming, payload.titles, payload.hashed))


class FoundOut(Found):
    """What was found, and the same as a table that can be kept and brought again."""

    csv: str


@router.post("/sites/{int:site_id}/found", response={200: FoundOut, 404: Problem, 422: Problem})
def find_widths(request: HttpRequest, site_id: int, payload: TextIn) -> FoundOut:
    """Breakpoints, containers, gutters and columns in a stylesheet, a file of design tokens or a
    table. Nothing is stored: they are there to be chosen from."""
    site_for(request, site_id, looking=True)
    found = guard().found(payload.text)
    return FoundOut(csv=widths_csv(found), **dict(found))


class TakeIn(Body):
    """The plan as the form has it, and what of the widths found is chosen."""

    plan: model.Site
    chosen: Annotated[list[Chosen], Field(min_length=1, max_length=500)]


@router.post(
    "/sites/{int:site_id}/found/taken", response={200: model.Site, 404: Problem, 422: Problem}
)
def take_widths(request: HttpRequest, site_id: int, payload: TakeIn) -> model.Site:
    """The plan with what is chosen. Nothing is stored."""
    site_for(request, site_id, looking=True)
    return taken(payload.plan, payload.chosen)


@router.post(
    takes_file("/sites/{int:site_id}/audience/table", lambda: MOST_TABLE_BYTES),
    response={200: list[model.Viewers], 404: Problem, 413: Problem, 422: Problem},
)
def read_audience_table(
    request: HttpRequest, site_id: int, file: File[UploadedFile]
) -> list[model.Viewers]:
    """The audience that a CSV says: width, height, density, weight. Nothing is stored."""
    site_for(request, site_id, looking=True)
    return list(audience_of(file.read(MOST_BYTES + 1)))


@router.get("/sites/{int:site_id}/audience.csv", response={200: None, 404: Problem})
def audience_table(request: HttpRequest, site_id: int) -> HttpResponse:
    """The audience as it is saved, as a CSV."""
    site = site_for(request, site_id)
    response = HttpResponse(
        audience_csv(site.as_noun().audience), content_type="text/csv; charset=utf-8"
    )
    name = f"{identifier(site.name)}-audience.csv"
    response["Content-Disposition"] = f'attachment; filename="{name}"'
    return response
