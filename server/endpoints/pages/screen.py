"""Whole pages: read as one long preview, their head and order set, placements shown or not in a
span, and at home on further pages."""

from __future__ import annotations

from accounts.session import person
from common.bodies import Body
from common.db import in_one_go, locked, locked_one
from common.problems import Problem, Refused
from deliveries.models import bytes_made
from django.http import Http404, HttpRequest
from ninja import Router, Schema, Status
from placements.history import begin, looks_now, record
from placements.models import (
    Home,
    Placement,
    called_nouns,
    layout_by_place,
    on_page,
    originals_in,
    stems_of,
    stored_layout,
)
from pydantic import Field
from sites.access import inside, row_for
from sites.models import Page
from skypane import PageReading, model, page_in_spans, read_page, seen_in

from endpoints.pages.glimpses import made_of, remember, remembered
from endpoints.readings import preview

router = Router()


#: How large the panes of a page are drawn at most, of the size that visitors see.
PAGE_SCALE = 0.5


def small_preview(original: model.Original, crop: model.Rect | None, drawn_px: float) -> str:
    """The preview for a pane that is never drawn larger than `PAGE_SCALE`."""
    return preview(original, crop, drawn_px * PAGE_SCALE)


class PageOnScreen(Schema):
    """A page with its reading; `ids` are those of its placements, and of those the ones that belong
    to other pages, with the title of theirs. `layout` names placements by their place. `current`:
    it is read as it is now; else the reading is the last there was, None where there was none."""

    id: int
    title: str
    ids: list[int]
    from_elsewhere: dict[int, str]
    layout: model.PageLayout
    current: bool
    reading: PageReading | None


def _page(request: HttpRequest, page_id: int) -> Page:
    rows = Page.objects.select_related("site")
    return row_for(request, rows, "site", page_id)


@router.get(
    "/pages/{int:page_id}/reading", response={200: PageOnScreen, 404: Problem, 422: Problem}
)
def read_whole_page(
    request: HttpRequest, page_id: int, as_remembered: bool = False
) -> PageOnScreen:
    """A page as visitors see it at every width. `as_remembered`: at once, as it was last read;
    nothing is worked out."""
    return _on_screen(_page(request, page_id), as_remembered)


def _on_screen(page: Page, as_remembered: bool = False) -> PageOnScreen:
    rows = on_page(page)
    called = stems_of(page.site)
    layout = layout_by_place(page, rows)
    # looked at before all that is read: what changes in between leaves a glimpse that is out of
    # date, not one that passes for current
    now = made_of(page, rows, called)
    reading, current = remembered(page, now)
    if not current and not as_remembered:
        nouns = called_nouns(rows, called)
        originals = originals_in(page.site, nouns)
        reading, current = _read(page, layout, nouns, originals), True
        remember(page, now, list(originals), reading)
    return PageOnScreen(
        id=page.id,
        title=page.title,
        ids=[row.id for row in rows],
        from_elsewhere={row.id: row.page.title for row in rows if row.page_id != page.id},
        layout=layout,
        current=current,
        reading=reading,
    )


def _read(
    page: Page,
    layout: model.PageLayout,
    nouns: list[model.Placement],
    originals: dict[int, model.Original],
) -> PageReading:
    return read_page(
        page.site.as_noun(),
        layout,
        nouns,
        originals,
        preview=small_preview,
        made_bytes=bytes_made,
    )


class LayoutIn(Body):
    """The layout of a page as it is to be; it names placements by their place."""

    layout: model.PageLayout


@router.put("/pages/{int:page_id}/layout", response={200: PageOnScreen, 404: Problem, 422: Problem})
def lay_page_out(request: HttpRequest, page_id: int, payload: LayoutIn) -> PageOnScreen:
    """Set the head of a page per span, and the order in which its placements stand."""
    page = _page(request, page_id)

    def lay() -> Page:
        row = locked_one(Page, page.id)
        rows = on_page(row)
        page_in_spans(row.site.as_noun(), payload.layout, len(rows))
        row.layout = stored_layout(payload.layout, rows)
        row.save(update_fields=["layout"])
        return row

    return _on_screen(in_one_go(lay))


class SeenIn(Body):
    shows: bool


@router.put(
    "/pages/{int:page_id}/placements/{int:placement_id}/spans/{letter}",
    response={200: PageOnScreen, 404: Problem, 422: Problem},
)
def show_in_span(
    request: HttpRequest, page_id: int, placement_id: int, letter: str, payload: SeenIn
) -> PageOnScreen:
    """Show a placement in one span, or do not: a step of its history."""
    page = _page(request, page_id)

    def show() -> None:
        row = locked(Placement, [placement_id]).get(placement_id)
        if row is None or row.page.site_id != page.site_id:
            raise Http404
        site = page.site.as_noun()
        if letter not in {h.span.letter for h in page_in_spans(site, {}, 0)}:
            raise Refused(f"There is no span {letter} in this site.", field="letter")
        noun = seen_in(site, row.as_noun(), letter, payload.shows)
        begin(row)
        what = f"{'Shown' if payload.shows else 'Not shown'} in {letter}"
        record(row, noun, looks_now(row, noun), person(request), what)

    in_one_go(show)
    return _on_screen(page)


class LeadIn(Body):
    placement_id: int = Field(ge=1)


@router.put("/pages/{int:page_id}/lead", response={200: PageOnScreen, 404: Problem, 422: Problem})
def let_load_first(request: HttpRequest, page_id: int, payload: LeadIn) -> PageOnScreen:
    """Let one placement of a page load first, and no other one that belongs to the page: a step in
    the history of each that changes."""
    page = _page(request, page_id)

    def lead() -> None:
        rows = on_page(page)
        if payload.placement_id not in {row.id for row in rows}:
            raise Http404
        own = [r.id for r in rows if r.page_id == page.id or r.id == payload.placement_id]
        for row in locked(Placement, own).values():
            noun, first = row.as_noun(), row.id == payload.placement_id
            if noun.lead != first:
                begin(row)
                noun = noun.model_copy(update={"lead": first})
                what = "Loads first" if first else "Loads with the others"
                record(row, noun, looks_now(row, noun), person(request), what)

    in_one_go(lead)
    return _on_screen(page)


class HomeIn(Body):
    placement_id: int = Field(ge=1)


@router.post("/pages/{int:page_id}/homes", response={200: PageOnScreen, 404: Problem, 422: Problem})
def give_home(request: HttpRequest, page_id: int, payload: HomeIn) -> PageOnScreen:
    """Let a placement of another page show on this one too: one placement, changed in one place."""
    page = _page(request, page_id)
    row = inside(page.site, Placement.objects.all(), "page__site", payload.placement_id)
    if row.page_id == page.id:
        raise Refused(f"{row.as_noun().name} belongs to {page.title} already.")
    Home.objects.get_or_create(page=page, placement=row)
    return _on_screen(page)


@router.delete("/pages/{int:page_id}/homes/{int:placement_id}", response={204: None, 404: Problem})
def take_home(request: HttpRequest, page_id: int, placement_id: int) -> Status[None]:
    """It no longer shows there; where it belongs it stays."""
    Home.objects.filter(page=_page(request, page_id), placement=placement_id).delete()
    return Status(204, None)
