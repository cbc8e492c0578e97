"""People: who comes in by a link, what is shared with whom, and what is withdrawn."""

from __future__ import annotations

from datetime import datetime
from typing import Annotated, Literal, cast

from accounts.alike import skeletons
from accounts.models import Link
from accounts.passwords import NewPassword, check_password
from accounts.session import Session, guard, person, session_of
from common.bodies import Body
from common.db import in_one_go
from common.problems import Problem, Refused
from django.contrib.auth import login
from django.contrib.auth.models import User
from django.db import IntegrityError
from django.http import Http404, HttpRequest
from django.shortcuts import get_object_or_404
from ninja import Router, Schema, Status
from sites.access import owned, site_for
from sites.models import Invitation, Membership, Role
from skypane.errors import written

router = Router()
Name = Annotated[
    str,
    written(
        r"^[\w.@+-]+$",
        "Use letters, digits and . + - _ @ only, without spaces.",
        min_length=1,
        max_length=150,
    ),
]
RoleWord = Literal["owner", "edit", "look"]


class Member(Schema):
    user_id: int
    name: str
    role: RoleWord
    is_me: bool


class Invited(Schema):
    id: int
    role: RoleWord
    made: datetime
    expires: datetime
    made_by: str


class People(Schema):
    """Who shares a site, and which invitations nobody has taken yet. `may_share`: whether whoever
    asks may change that."""

    members: list[Member]
    invitations: list[Invited]
    may_share: bool


class InvitationIn(Body):
    role: RoleWord = "edit"


class InvitationOut(Schema):
    """`path` is the address of the link in this installation. It is told this once."""

    id: int
    path: str


class RoleIn(Body):
    role: RoleWord


class WelcomeOut(Schema):
    """What a link is for: the first owner of the installation, or a share of a site."""

    purpose: Literal["owner", "person"]
    site: str | None
    role: RoleWord | None
    invited_by: str
    signed_in_as: str | None


class NewPerson(Body):
    name: Name
    password: NewPassword


def _people(request: HttpRequest, site_id: int) -> People:
    members = Membership.objects.filter(site_id=site_id).select_related("user")
    mine = next((m for m in members if m.user == person(request)), None)
    may_share = mine is not None and mine.role == Role.OWNER
    waiting = Invitation.objects.filter(site_id=site_id).select_related("link__made_by")
    return People(
        members=[
            Member(
                user_id=m.user_id,
                name=m.user.get_username(),
                role=cast(RoleWord, m.role),
                is_me=m.user == person(request),
            )
            for m in members
        ],
        invitations=[
            Invited(
                id=i.id,
                role=cast(RoleWord, i.role),
                made=i.link.made,
                expires=i.link.expires,
                made_by=i.link.made_by.get_username() if i.link.made_by else "",
            )
            for i in waiting
            if may_share
        ],
        may_share=may_share,
    )


@router.get("/sites/{int:site_id}/people", response={200: People, 404: Problem})
def list_people(request: HttpRequest, site_id: int) -> People:
    site_for(request, site_id)
    return _people(request, site_id)


@router.post(
    "/sites/{int:site_id}/invitations", response={201: InvitationOut, 403: Problem, 404: Problem}
)
def invite(request: HttpRequest, site_id: int, payload: InvitationIn) -> Status[InvitationOut]:
    """A link by which one person comes in, for a week."""
    site = owned(request, site_id)

    def make() -> InvitationOut:
        link, token = Link.make(Link.Purpose.PERSON, person(request))
        made = Invitation.objects.create(link=link, site=site, role=payload.role)
        return InvitationOut(id=made.id, path=f"/welcome/{token}")

    return Status(201, in_one_go(make))


@router.delete(
    "/sites/{int:site_id}/invitations/{int:invitation_id}",
    response={204: None, 403: Problem, 404: Problem},
)
def withdraw_invitation(request: HttpRequest, site_id: int, invitation_id: int) -> Status[None]:
    site = owned(request, site_id)
    get_object_or_404(Invitation, id=invitation_id, site=site).link.delete()
    return Status(204, None)


def _member(site_id: int, user_id: int) -> Membership:
    """The membership, with all of the site's locked, so that two owners cannot remove each other
    at once."""
    members = list(Membership.objects.select_for_update().filter(site_id=site_id))
    found = next((m for m in members if m.user_id == user_id), None)
    if found is None:
        raise Http404
    owners = [m for m in members if m.role == Role.OWNER]
    if owners == [found]:
        raise Refused("A site needs an owner. Make somebody else one first.", status=409)
    return found


@router.put(
    "/sites/{int:site_id}/people/{int:user_id}",
    response={200: People, 403: Problem, 404: Problem, 409: Problem},
)
def change_role(request: HttpRequest, site_id: int, user_id: int, payload: RoleIn) -> People:
    owned(request, site_id)

    def change() -> None:
        if payload.role == "owner":
            get_object_or_404(Membership, site_id=site_id, user_id=user_id)
            Membership.objects.filter(site_id=site_id, user_id=user_id).update(role=Role.OWNER)
            return
        member = _member(site_id, user_id)
        member.role = payload.role
        member.save(update_fields=["role"])
        _forget_links(site_id, user_id)

    in_one_go(change)
    return _people(request, site_id)


@router.delete(
    "/sites/{int:site_id}/people/{int:user_id}",
    response={204: None, 403: Problem, 404: Problem, 409: Problem},
)
def withdraw(request: HttpRequest, site_id: int, user_id: int) -> Status[None]:
    """Withdraw a person's access to a site; anybody may withdraw their own."""
    if user_id != request.user.pk:
        owned(request, site_id)
    else:
        site_for(request, site_id, looking=True)

    def leave() -> None:
        _member(site_id, user_id).delete()
        _forget_links(site_id, user_id)

    in_one_go(leave)
    return Status(204, None)


def _forget_links(site_id: int, user_id: int) -> None:
    """Whoever may no longer share a site has shared it with nobody who has not come yet."""
    Link.objects.filter(made_by=user_id, invitation__site=site_id).delete()


# -- coming in by a link --------------------------------------------------------------------


def _holds(link: Link) -> bool:
    """Whether a link still does what it was made for: nobody has come before the first owner, and
    whoever shares a site may share it still."""
    if link.purpose == Link.Purpose.OWNER:
        return not User.objects.exists()
    invitation = Invitation.objects.filter(link=link).first()
    if invitation is None or link.made_by is None:
        return False
    shares = Membership.objects.filter(site=invitation.site_id, user=link.made_by, role=Role.OWNER)
    return shares.exists()


def _link(token: str) -> Link:
    link = Link.of(token) if len(token) < 200 else None
    if link is None or not _holds(link):
        raise Refused(
            "This link has been used, was withdrawn, or is older than a week. Ask for a new one.",
            status=404,
        )
    return link


@router.get("/welcome/{token}", response={200: WelcomeOut, 404: Problem}, auth=None)
def read_welcome(request: HttpRequest, token: str) -> WelcomeOut:
    """What a link is for. Reading it uses nothing up."""
    link = _link(token)
    session_of(request)  # the page that is shown needs the cookie that guards changes
    invitation = Invitation.objects.select_related("site").filter(link=link).first()
    return WelcomeOut(
        purpose=cast(Literal["owner", "person"], link.purpose),
        site=invitation.site.name if invitation else None,
        role=cast(RoleWord, invitation.role) if invitation else None,
        invited_by=link.made_by.get_username() if link.made_by else "",
        signed_in_as=request.user.get_username() if request.user.is_authenticated else None,
    )


@router.post(
    "/welcome/{token}/person",
    response={201: Session, 403: Problem, 404: Problem, 409: Problem, 422: Problem},
    auth=None,
)
def come_in(request: HttpRequest, token: str, payload: NewPerson) -> Status[Session]:
    """Make an account by a link, and sign in."""
    guard(request)
    check_password(payload.password, "password")

    def make() -> User:
        link = _link(token)
        is_owner = link.purpose == Link.Purpose.OWNER
        # locked, so that of two that look alike and come at once one is second
        others = User.objects.select_for_update().values_list("username", flat=True)
        mine = skeletons(payload.name)
        if any(not mine.isdisjoint(skeletons(other)) for other in others):
            raise Refused(
                f"{payload.name} is taken, or looks like the name of somebody here. Choose another"
                " name.",
                status=409,
                field="name",
            )
        user = User.objects.create_user(payload.name, password=payload.password)
        user.is_staff = user.is_superuser = is_owner
        user.save()
        _take(link, user)
        return user

    try:
        user = in_one_go(make)
    except IntegrityError:
        raise Refused(
            f"{payload.name} is taken. Choose another name.", status=409, field="name"
        ) from None
    login(request, user, backend="django.contrib.auth.backends.ModelBackend")
    return Status(201, session_of(request))


@router.post("/welcome/{token}/share", response={204: None, 404: Problem})
def take_share(request: HttpRequest, token: str) -> Status[None]:
    """Whoever is signed in takes the share of a link."""
    in_one_go(lambda: _take(_link(token), person(request)))
    return Status(204, None)


def _take(link: Link, user: User) -> None:
    """Use a link up. A member never gets less by an invitation than they have."""
    if not Link.objects.select_for_update().filter(id=link.id).exists():
        raise Http404
    invitation = Invitation.objects.filter(link=link).first()
    if invitation is not None:
        order = [Role.LOOK, Role.EDIT, Role.OWNER]
        member, is_new = Membership.objects.get_or_create(
            site=invitation.site, user=user, defaults={"role": invitation.role}
        )
        if not is_new and order.index(Role(invitation.role)) > order.index(Role(member.role)):
            member.role = invitation.role
            member.save(update_fields=["role"])
    link.delete()
