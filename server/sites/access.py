"""Who may do what: a site is there only for its members, and some of them may only look.

Whoever asks for somebody else's site, or for a thing in one, is told that nothing is there (404). A
member who may only look is told so when they change something (403).
"""

from __future__ import annotations

from typing import TypeVar

from accounts.session import person
from common.problems import Refused
from django.db.models import Model, QuerySet
from django.http import Http404, HttpRequest

from sites.models import Membership, Role, Site

M = TypeVar("M", bound=Model)

#: Requests that change nothing.
LOOKING = frozenset({"GET", "HEAD", "OPTIONS"})


def site_for(request: HttpRequest, site_id: int, *, looking: bool | None = None) -> Site:
    """The member's site. `looking`: whether the request changes nothing, where its method does not
    say so. Raises Http404, or Refused for a member who may only look."""
    held = Membership.objects.select_related("site").filter(site_id=site_id, user=person(request))
    membership = held.first()
    if membership is None:
        raise Http404
    if not (request.method in LOOKING if looking is None else looking):
        _may_change(membership)
    return membership.site


def row_for(
    request: HttpRequest,
    rows: QuerySet[M],
    to_site: str,
    row_id: int,
    *,
    looking: bool | None = None,
) -> M:
    """A row of a member's site; `to_site` is the way from it to its site, as in `page__site`.
    Raises like `site_for`."""
    row = rows.filter(pk=row_id, **{f"{to_site}__members": person(request)}).first()
    if row is None:
        raise Http404
    if not (request.method in LOOKING if looking is None else looking):
        site_id = type(row)._default_manager.values_list(to_site, flat=True).get(pk=row_id)
        _may_change(Membership.objects.get(site_id=site_id, user=person(request)))
    return row


def inside(site: Site, rows: QuerySet[M], to_site: str, row_id: int) -> M:
    """A row that the body of a request names: one of the same site, for nothing is told of others.
    `to_site` as in `row_for`. Raises Http404."""
    row = rows.filter(pk=row_id, **{to_site: site}).first()
    if row is None:
        raise Http404
    return row


def owned(request: HttpRequest, site_id: int) -> Site:
    """The site of one of its owners. Raises Http404, or Refused for other members."""
    site = site_for(request, site_id, looking=True)
    if not Membership.objects.filter(site=site, user=person(request), role=Role.OWNER).exists():
        raise Refused("Only an owner may share or remove this site. Ask one of them.", status=403)
    return site


def _may_change(membership: Membership) -> None:
    if membership.role == Role.LOOK:
        raise Refused(
            "You may look at this site, but not change it. Ask one of its owners.", status=403
        )
