"""Signing in and out."""

import json

import pytest
from conftest import Api
from django.core.cache import cache
from django.test import Client

pytestmark = pytest.mark.django_db


@pytest.fixture(autouse=True)
def no_earlier_tries():
    cache.clear()


def sign_in(client, **body):
    client.get("/api/session")
    return client.post(
        "/api/session",
        json.dumps(body),
        content_type="application/json",
        headers={"X-CSRFToken": client.cookies["csrftoken"].value},
    )


def test_name_and_password_open_a_session(designer):
    client = Client(enforce_csrf_checks=True)
    answer = sign_in(client, name="ada", password="long-enough-word")
    assert answer.status_code == 200 and answer.json()["name"] == "ada"
    assert client.get("/api/sites").status_code == 200


def test_a_wrong_password_is_told_at_its_field_and_locks_after_a_while(designer):
    client = Client(enforce_csrf_checks=True)
    answers = [sign_in(client, name="ada", password=f"wrong-{n}") for n in range(10)]
    assert answers[0].status_code == 401 and answers[0].json()["errors"][0]["field"] == "password"
    assert answers[-1].status_code == 429 and "quarter of an hour" in answers[-1].json()["detail"]
    # locked for a quarter of an hour
    assert sign_in(client, name="ada", password="long-enough-word").status_code != 200


def test_nothing_without_a_session():
    answer = Client().get("/api/sites")
    assert answer.status_code == 401 and answer["Content-Type"] == "application/problem+json"
    assert answer.json()["detail"] == "Sign in first."


def test_changes_need_the_csrf_token(designer, django_user_model):
    client = Client(enforce_csrf_checks=True)
    client.force_login(
        django_user_model.objects.get(username="ada"),
        backend="django.contrib.auth.backends.ModelBackend",
    )
    assert (
        client.post(
            "/api/sites", json.dumps({"name": "x"}), content_type="application/json"
        ).status_code
        == 403
    )
    assert client.post("/api/session/demo", content_type="application/json").status_code == 403


def test_the_demo_door_is_open_on_demo_installations_only(settings, django_user_model):
    django_user_model.objects.create_user("demo")
    api = Api(None)
    assert api.post("/session/demo").status_code == 403
    settings.DEMO = True
    assert api.get("/session").json() == {"name": None, "demo": True}
    assert api.post("/session/demo").json()["name"] == "demo"


def test_signing_out_ends_the_session(designer):
    assert designer.delete("/session").json()["name"] is None
    assert designer.get("/sites").status_code == 401
