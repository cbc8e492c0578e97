"""Placements: rows that hold the core's Placement, with the revision that a save has to start from,
and their history."""

from __future__ import annotations

from collections.abc import Iterable, Iterator, Mapping, Sequence
from typing import Any

from common.db import locked
from common.stored import NounField
from django.conf import settings
from django.db import models
from django.db.models.fields.json import KeyTextTransform
from originals.models import Original
from sites.models import Page, Site
from skypane import (
    InvalidPlan,
    Plan,
    failing,
    model,
    page_respanned,
    parted,
    plan,
    respan,
)
from skypane.files.names import stems
from skypane.widths.spans import spans_of


class Placement(models.Model):
    page = models.ForeignKey(Page, on_delete=models.CASCADE, related_name="placements")
    position = models.PositiveIntegerField(default=0)
    body = NounField(kind="placement")  # skypane.model.Placement
    revision = models.PositiveIntegerField(default=1)
    at = models.PositiveIntegerField(default=0)  # position of the version that `body` is
    created = models.DateTimeField(auto_now_add=True)
    changed = models.DateTimeField(auto_now=True)
    # what lists show of it, and what that was worked out of; see placements.glimpses
    glimpse = models.JSONField(null=True, default=None, editable=False)
    # the cuts that were handed over; see `skypane.files.names.version_of`
    handed = models.JSONField(default=dict, editable=False)

    class Meta:
        ordering = ["position", "id"]

    def as_noun(self) -> model.Placement:
        return model.Placement.model_validate(self.body)

    def take(self, noun: model.Placement) -> None:
        """Hold the noun under a new revision; nothing is written."""
        self.body = noun.model_dump(mode="json", exclude_none=True)
        self.revision += 1

    def keep(self, noun: model.Placement) -> None:
        """Write the noun, and where the placement is in its history, under a new revision."""
        self.take(noun)
        self.save(update_fields=["body", "revision", "at", "changed"] if self.pk else None)


class Home(models.Model):
    """A further page on which a placement shows, beside the one that it belongs to."""

    page = models.ForeignKey(Page, on_delete=models.CASCADE, related_name="homes")
    placement = models.ForeignKey(Placement, on_delete=models.CASCADE, related_name="homes")

    class Meta:
        ordering = ["id"]
        constraints = [
            models.UniqueConstraint(fields=["page", "placement"], name="one_home_per_page")
        ]


class Version(models.Model):
    """One version of a placement's history: how it and the looks of its originals stood, and what
    had changed."""

    placement = models.ForeignKey(Placement, on_delete=models.CASCADE, related_name="versions")
    position = models.PositiveIntegerField()
    body = NounField(kind="placement")  # skypane.model.Placement
    looks = NounField(kind="looks", default=dict)  # original id → focal point and areas
    what = models.CharField(max_length=120)
    by = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.SET_NULL, null=True)
    made = models.DateTimeField(auto_now_add=True)

    class Meta:
        ordering = ["position"]
        constraints = [
            models.UniqueConstraint(
                fields=["placement", "position"], name="one_version_per_position"
            )
        ]


def on_page(page: Page) -> list[Placement]:
    """What shows on a page in reading order: its own placements, then those that are at home here
    too."""
    homes = Home.objects.filter(page=page).select_related("placement__page")
    own = page.placements.select_related("page").order_by("position", "id")
    return [*own, *(h.placement for h in homes)]


def layout_by_place(page: Page, rows: Sequence[Placement]) -> model.PageLayout:
    """A page's layout as the core has it: placements by their place among `rows`."""
    place = {row.id: i for i, row in enumerate(rows)}
    return {
        letter: values.model_copy(
            update={"order": tuple(place[i] for i in values.order if i in place)}
        )
        if values.order is not None
        else values
        for letter, values in page.as_layout().items()
    }


def stored_layout(layout: model.PageLayout, rows: Sequence[Placement]) -> dict[str, Any]:
    """The other way: as it is stored."""
    out = {}
    for letter, values in layout.items():
        told = values.model_dump(exclude_none=True)
        if values.order is not None:
            told["order"] = [rows[i].id for i in values.order if 0 <= i < len(rows)]
        out[letter] = told
    return out


def placements_of(site: Site) -> models.QuerySet[Placement]:
    return (
        Placement.objects.filter(page__site=site)
        .select_related("page")
        .prefetch_related("homes")
        .order_by("page__position", "position", "id")
    )


def originals_of(site: Site, ids: set[int]) -> dict[int, model.Original]:
    """Those of the site's originals as the core's nouns."""
    return Original.objects.filter(site=site, id__in=ids).nouns()


def originals_in(site: Site, placements: Iterable[model.Placement]) -> dict[int, model.Original]:
    """All originals that some of the placements use."""
    return originals_of(site, set().union(*(p.original_ids for p in placements)))


def originals_behind(placements: Iterable[model.Placement]) -> set[int]:
    """The originals of those placements in which something of a picture is seen before its file is
    there."""
    return set().union(*(p.original_ids for p in placements if p.blurred))


def stems_of(site: Site, draft: tuple[int | None, str] | None = None) -> dict[int, str]:
    """What each placement of a site is called in code and files, by id. `draft` is a placement's id
    and its name as it stands under the designer's hand; one that has not been stored yet has no id,
    and is found under 0."""
    names = dict(
        Placement.objects.filter(page__site=site)
        .order_by("id")
        .values_list("id", KeyTextTransform("name", "body"))
    )
    if draft is not None:
        names[draft[0] or 0] = draft[1]
    return dict(zip(names, stems(names.values()), strict=True))


def handed_of(kept: Mapping[str, list[str]]) -> dict[str, tuple[str, ...]]:
    """The cuts that were handed over, as the core's noun has them."""
    return {slot: tuple(cuts) for slot, cuts in kept.items()}


def called_nouns(rows: Iterable[Placement], called: Mapping[int, str]) -> list[model.Placement]:
    """Placements with what they are called in code and files (see `stems_of`), and the titles of
    their pages."""
    return [
        row.as_noun().model_copy(
            update={
                # one that has just come is called by its name alone
                "stem": called.get(row.id),
                "page": row.page.title,
                "handed": handed_of(row.handed),
            }
        )
        for row in rows
    ]


def uses_of(site: Site) -> dict[int, list[str]]:
    """Where each original of a site is used, as "Page · Placement" with the letters that set it."""
    found: dict[int, list[str]] = {}
    for placement in placements_of(site):
        noun = placement.as_noun()
        letters: dict[int, list[str]] = {}
        for letter, treatment in sorted(noun.all_treatments(), key=lambda t: t[0]):
            if treatment.original is not None:
                mine = letters.setdefault(treatment.original, [])
                mine += [letter] if letter not in mine else []
        # cuts of a logo are used whether a span shows them or not
        for original in noun.original_ids - set(letters):
            letters[original] = ["instead" if original == noun.substitute else "a cut"]
        for original, where in letters.items():
            found.setdefault(original, []).append(
                f"{placement.page.title} · {noun.name}, {' '.join(where)}"
            )
    return found


def frame_uses(site: Site) -> dict[str, list[str]]:
    """Where each named frame is used, as "Page · Placement"."""
    found: dict[str, list[str]] = {}
    for row in placements_of(site):
        noun = row.as_noun()
        if noun.frame is not None:
            found.setdefault(noun.frame, []).append(f"{row.page.title} · {noun.name}")
    return found


def planned(site: Site) -> Iterator[tuple[Placement, model.Placement, Plan | InvalidPlan]]:
    """Every placement of a site, computed; or why it cannot be."""
    nouns = {row: row.as_noun() for row in placements_of(site)}
    originals, plan_ = originals_in(site, nouns.values()), site.as_noun()
    for row, noun in nouns.items():
        try:
            yield row, noun, plan(plan_, noun, originals)
        except InvalidPlan as problem:
            yield row, noun, problem


def failing_areas(site: Site) -> dict[str, list[str]]:
    """The keep areas that are not whole somewhere, as "Page · Placement, letter" → names."""
    found: dict[str, list[str]] = {}
    for row, noun, computed in planned(site):
        if isinstance(computed, InvalidPlan):
            continue
        for p in (p for part in computed.parts for p in part.shown):
            names = [a.name for a in failing(p)]
            if names:
                where = f"{row.page.title} · {noun.name}, {p.span.letter}"
                found.setdefault(where, []).extend(names)
    return found


def carry_all(site: Site, before: model.Site, edited: model.Site, after: model.Site) -> None:
    """Carry every placement, and its history, over to new breakpoints; those whose named frame is
    gone keep its values as their own. `edited` has the named frames of after on the spans of
    before."""
    for page in (p for p in site.pages.all() if p.layout):
        moved_layout = page_respanned(before, after, page.as_layout())
        page.layout = {k: v.model_dump(exclude_none=True) for k, v in moved_layout.items()}
        page.save(update_fields=["layout"])
    gone = {f.id for f in before.frames} - {f.id for f in after.frames}
    if spans_of(before) == spans_of(after) and not gone:
        return

    def carried(noun: model.Placement, areas: Mapping[int, tuple[str, ...]]) -> model.Placement:
        return respan(edited, after, parted(before, noun) if noun.frame in gone else noun, areas)

    areas = {
        o.id: tuple(a.name for a in o.as_noun().keeps) for o in site.originals.exclude(areas=[])
    }
    rows = locked(Placement, Placement.objects.filter(page__site=site).values_list("id", flat=True))
    for placement in rows.values():
        noun = placement.as_noun()
        moved = carried(noun, areas)
        if moved != noun:
            placement.keep(moved)
    for version in Version.objects.filter(placement__in=rows):
        then = {int(i): _keep_names(look) for i, look in version.looks.items()}
        noun = model.Placement.model_validate(version.body)
        moved = carried(noun, {**areas, **then})
        if moved != noun:
            version.body = moved.model_dump(mode="json", exclude_none=True)
            version.save(update_fields=["body"])


def _keep_names(look: Mapping[str, Any]) -> tuple[str, ...]:
    return tuple(a["name"] for a in look["areas"] if a.get("kind", "keep") == "keep")
