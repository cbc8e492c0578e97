"""People: the first owner, invitations, what may be done with a shared site, passwords."""

import io
from datetime import timedelta

import pytest
from accounts.models import Link
from conftest import Api
from django.contrib.auth import get_user_model
from django.core.management import call_command
from django.test import Client
from django.utils import timezone
from sites.models import Membership

pytestmark = pytest.mark.django_db
WORD = "long-enough-word"


def printed():
    out = io.StringIO()
    call_command("first_owner", "https://pictures.example/", stdout=out)
    return out.getvalue().strip()


def comes_in(path, name, password=WORD):
    """Somebody who opens a link in a browser of their own, and what they are told."""
    api = Api(None)
    token = path.rpartition("/")[2]
    answer = api.post(f"/welcome/{token}/person", {"name": name, "password": password})
    return api, answer


@pytest.fixture
def invited(designer, site):
    """Somebody whom a site is shared with, by role."""

    def by_role(role, name="eve"):
        made = designer.post(f"/sites/{site['id']}/invitations", {"role": role})
        assert made.status_code == 201
        return comes_in(made.json()["path"], name)[0]

    return by_role


def test_the_first_person_comes_in_by_a_link_that_works_once():
    link = printed()
    assert link.startswith("https://pictures.example/welcome/")
    token = link.rpartition("/")[2]
    told = Client().get(f"/api/welcome/{token}").json()
    assert (told["purpose"], told["site"]) == ("owner", None)
    api, answer = comes_in(link, "ada")
    assert answer.status_code == 201 and api.get("/session").json()["name"] == "ada"
    assert get_user_model().objects.get().is_superuser
    assert comes_in(link, "bob")[1].status_code == 404
    assert printed() == ""  # there is somebody now


@pytest.mark.parametrize(
    ("name", "password", "said"),
    [
        ("Åsa K.", WORD, "Use letters, digits and . + - _ @ only, without spaces."),
        ("", WORD, "It must not be empty."),
        ("åsa", "short", "This password is too short."),
        ("åsa", "password123", "This password is too common."),
    ],
)
def test_what_is_wrong_with_a_name_or_a_password_is_said_at_its_field(name, password, said):
    link = printed()
    answer = comes_in(link, name, password)[1]
    assert answer.status_code == 422
    assert said in str(answer.json()["errors"])
    assert comes_in(link, "åsa")[1].status_code == 201  # the link has not been used up


def test_a_link_printed_anew_makes_the_earlier_one_void():
    first, second = printed(), printed()
    assert comes_in(first, "ada")[1].status_code == 404
    assert comes_in(second, "ada")[1].status_code == 201


def test_of_a_link_only_a_hash_is_kept():
    token = printed().rpartition("/")[2]
    assert token not in Link.objects.get().token_hash
    assert Link.of(token) == Link.objects.get()


def test_an_invitation_is_taken_once_and_not_after_a_week(designer, site):
    path = designer.post(f"/sites/{site['id']}/invitations", {"role": "edit"}).json()["path"]
    assert Client().get(f"/api{path}").json()["site"] == "Tern Point"
    assert comes_in(path, "eve")[1].status_code == 201
    assert comes_in(path, "mallory")[1].status_code == 404
    late = designer.post(f"/sites/{site['id']}/invitations", {}).json()["path"]
    Link.objects.update(expires=timezone.now() - timedelta(seconds=1))
    answer = comes_in(late, "mallory")[1]
    assert answer.status_code == 404 and "older than a week" in answer.json()["detail"]


def test_whoever_is_signed_in_takes_a_share_without_another_account(designer, stranger, site):
    path = designer.post(f"/sites/{site['id']}/invitations", {"role": "look"}).json()["path"]
    assert stranger.get(f"/sites/{site['id']}").status_code == 404
    assert stranger.post(f"{path}/share").status_code == 204
    assert stranger.get(f"/sites/{site['id']}").status_code == 200
    assert stranger.get("/sites").json()[0]["role"] == "look"


def test_an_invitation_never_takes_anything_away(designer, site):
    path = designer.post(f"/sites/{site['id']}/invitations", {"role": "look"}).json()["path"]
    assert designer.post(f"{path}/share").status_code == 204
    assert designer.get(f"/sites/{site['id']}/people").json()["members"][0]["role"] == "owner"


def test_who_may_look_sees_all_and_changes_nothing(
    designer, site, page, placement, original, invited
):
    eve = invited("look")
    assert eve.get(f"/placements/{placement['id']}").status_code == 200
    assert eve.get(f"/sites/{site['id']}").json()["role"] == "look"
    draft = {"placement": placement["placement"], "looks": {}}
    for path in ("readings", "readings/moving"):
        assert eve.post(f"/sites/{site['id']}/{path}", draft).status_code == 200
    save = {"revision": placement["revision"], "placement": placement["placement"]}
    changes = [
        ("put", f"/placements/{placement['id']}", save),
        ("delete", f"/placements/{placement['id']}", None),
        ("post", f"/placements/{placement['id']}/copies", {"name": "x"}),
        ("post", f"/placements/{placement['id']}/deliveries", {}),
        ("post", f"/pages/{page['id']}/placements", {"placement": {"name": "x"}}),
        ("put", f"/pages/{page['id']}", {"title": "x"}),
        ("post", f"/sites/{site['id']}/pages", {"title": "x"}),
        ("put", f"/sites/{site['id']}", {"name": "x", "revision": 1}),
        ("delete", f"/sites/{site['id']}", None),
        ("patch", f"/originals/{original['id']}", {"alt": "x"}),
        ("delete", f"/originals/{original['id']}", None),
        ("post", f"/sites/{site['id']}/invitations", {}),
    ]
    for method, path, body in changes:
        answer = eve.call(method, path, body)
        assert answer.status_code == 403, (method, path, answer.content)
        assert "owner" in answer.json()["detail"]
    assert designer.get(f"/placements/{placement['id']}").json() == placement


def test_who_may_edit_changes_pictures_but_shares_nothing(site, placement, invited):
    eve = invited("edit")
    body = {"revision": placement["revision"], "placement": placement["placement"]}
    assert eve.put(f"/placements/{placement['id']}", body).status_code == 200
    assert eve.post(f"/sites/{site['id']}/invitations", {}).status_code == 403
    assert eve.delete(f"/sites/{site['id']}").status_code == 403


def test_access_is_withdrawn_at_once_and_a_site_keeps_an_owner(designer, site, invited):
    eve = invited("edit")
    people = designer.get(f"/sites/{site['id']}/people").json()
    ids = {m["name"]: m["user_id"] for m in people["members"]}
    assert designer.delete(f"/sites/{site['id']}/people/{ids['ada']}").status_code == 409
    assert designer.delete(f"/sites/{site['id']}/people/{ids['eve']}").status_code == 204
    assert eve.get(f"/sites/{site['id']}").status_code == 404
    demoted = designer.put(f"/sites/{site['id']}/people/{ids['ada']}", {"role": "look"})
    assert demoted.status_code == 409 and "needs an owner" in demoted.json()["detail"]


def test_an_owner_makes_another_and_leaves(designer, site, invited):
    eve = invited("look")
    ids = {
        m["name"]: m["user_id"]
        for m in designer.get(f"/sites/{site['id']}/people").json()["members"]
    }
    path = f"/sites/{site['id']}/people"
    assert designer.put(f"{path}/{ids['eve']}", {"role": "owner"}).status_code == 200
    assert designer.delete(f"{path}/{ids['ada']}").status_code == 204
    assert designer.get(f"/sites/{site['id']}").status_code == 404
    assert eve.post(f"/sites/{site['id']}/invitations", {}).status_code == 201


def test_an_open_invitation_is_withdrawn(designer, site):
    made = designer.post(f"/sites/{site['id']}/invitations", {"role": "edit"}).json()
    path = f"/sites/{site['id']}/invitations/{made['id']}"
    assert len(designer.get(f"/sites/{site['id']}/people").json()["invitations"]) == 1
    assert designer.delete(path).status_code == 204
    assert comes_in(made["path"], "eve")[1].status_code == 404
    assert designer.get(f"/sites/{site['id']}/people").json()["invitations"] == []


@pytest.mark.parametrize(
    ("name", "password", "field"),
    [
        ("ada", WORD, "name"),
        ("eve", "short", "password"),
        ("", WORD, "name"),
        ("a b", WORD, "name"),
    ],
)
def test_a_name_that_is_taken_or_a_weak_password_uses_nothing_up(
    designer, site, name, password, field
):
    path = designer.post(f"/sites/{site['id']}/invitations", {}).json()["path"]
    answer = comes_in(path, name, password)[1]
    assert answer.status_code in (409, 422)
    assert any(field in e["field"] for e in answer.json()["errors"])
    assert comes_in(path, "eve")[1].status_code == 201


def test_the_own_password_is_changed_with_the_old_one_and_other_sessions_end(designer):
    other = Api(None)
    assert other.post("/session", {"name": "ada", "password": WORD}).status_code == 200
    wrong = designer.post("/session/password", {"old": "no", "new": "another-long-word"})
    assert wrong.status_code == 422 and wrong.json()["errors"][0]["field"] == "old"
    weak = designer.post("/session/password", {"old": WORD, "new": "x"})
    assert weak.status_code == 422 and weak.json()["errors"][0]["field"] == "new"
    good = {"old": WORD, "new": "another-long-word"}
    assert designer.post("/session/password", good).status_code == 204
    assert designer.get("/sites").status_code == 200 and other.get("/sites").status_code == 401
    again = other.post("/session", {"name": "ada", "password": "another-long-word"})
    assert again.status_code == 200


@pytest.mark.parametrize("how", ["withdrawn", "set lower", "gone unseen"])
def test_a_link_asks_whether_its_maker_may_still_give_what_it_gives(designer, site, invited, how):
    """Whoever may no longer share a site has shared it with nobody who has not come yet."""
    eve = invited("owner")
    path = eve.post(f"/sites/{site['id']}/invitations", {"role": "owner"}).json()["path"]
    mine = designer.post(f"/sites/{site['id']}/invitations", {"role": "look"}).json()["path"]
    people = designer.get(f"/sites/{site['id']}/people").json()["members"]
    her = next(m["user_id"] for m in people if m["name"] == "eve")
    way = f"/sites/{site['id']}/people/{her}"
    if how == "withdrawn":
        assert designer.delete(way).status_code == 204
    elif how == "set lower":
        assert designer.put(way, {"role": "edit"}).status_code == 200
    else:  # by whatever else takes a membership away
        Membership.objects.filter(site=site["id"], user=her).delete()
    told = Api(None).get(f"/welcome/{path.rpartition('/')[2]}")
    assert told.status_code == 404 and "withdrawn" in told.json()["detail"]
    assert comes_in(path, "mallory")[1].status_code == 404
    waiting = designer.get(f"/sites/{site['id']}/people").json()["invitations"]
    assert [i["made_by"] for i in waiting if how != "gone unseen"] in (["ada"], [])
    assert comes_in(mine, "bea")[1].status_code == 201


def test_a_wrong_present_password_counts_as_a_try(invited):
    """As at sign-in: eight of them, and even the right one is not asked about for a while."""
    eve = invited("look")
    new = "another-long-word"
    for _ in range(8):
        answer = eve.post("/session/password", {"old": "guessed-it-now", "new": new})
        assert answer.status_code in (422, 429)
    locked = eve.post("/session/password", {"old": WORD, "new": new})
    assert locked.status_code == 429 and "quarter of an hour" in locked.json()["detail"]
