"""Input that means no good, or that nobody meant: a clear sentence, the right status, nothing lost,
and in bounds of time and memory."""

import io
import json
import time
from datetime import timedelta
from pathlib import Path

import pytest
from conftest import one_part, picture, with_own
from deliveries import sweeping
from deliveries.models import Delivery, Rendition
from deliveries.tasks import run_delivery
from django.core.cache import cache
from django.core.files.storage import default_storage
from django.db import OperationalError, connection
from django.test import Client
from django.utils import timezone
from originals.models import Original

pytestmark = [pytest.mark.django_db, pytest.mark.slow]

BOMB = (
    b'<svg xmlns="http://www.w3.org/2000/svg" width="9000" height="9000"><filter'
    b' id="f"><feTurbulence baseFrequency=".9" numOctaves="9999"/></filter><path'
    b' d="M0 0h9000v9000H0z" filter="url(#f)"/></svg>'
)


@pytest.fixture(autouse=True)
def queue(monkeypatch):
    monkeypatch.setattr(run_delivery, "apply_async", lambda *_, **__: None)


def problem(answer, status):
    assert answer.status_code == status, answer.content[:300]
    assert answer["Content-Type"] == "application/problem+json"
    detail = answer.json()["detail"]
    assert detail.endswith(".") and "Traceback" not in detail
    return detail


# -- pictures --


def test_a_picture_that_works_for_ever_is_refused_at_the_limit(designer, site, settings):
    from common import pictures

    settings.PICTURE_LIMITS = {"seconds": 2, "memory_mb": 1500}
    pictures._made.clear()
    began = time.monotonic()
    said = problem(designer.bring(site["id"], BOMB, "bomb.svg"), 422)
    assert said.startswith("bomb.svg ") and "the limit here" in said
    assert time.monotonic() - began < 30  # of what would take for ever
    assert not Original.objects.exists()
    # what was refused is in nobody's way
    settings.PICTURE_LIMITS = {"seconds": 60, "memory_mb": 1500}
    pictures._made.clear()
    assert designer.bring(site["id"], picture()).status_code == 201
    pictures._made.clear()


def test_sentences_name_the_file_as_it_was_called(designer, site):
    said = problem(designer.bring(site["id"], b"\x89PNG\r\n\x1a\n" + b"\0" * 80, "Sky.png"), 422)
    assert said.startswith("Sky.png is damaged")


# -- uploads --


def test_nothing_is_taken_from_who_is_not_signed_in(site, monkeypatch):
    from django.http import HttpRequest

    monkeypatch.setattr(
        HttpRequest, "_load_post_and_files", lambda self: pytest.fail("the body was read")
    )
    upload = io.BytesIO(picture())
    upload.name = "a.jpg"
    for address in (f"/api/sites/{site['id']}/originals", "/api/session", "/api/nothing"):
        problem(Client().post(address, {"file": upload}), 401)


def test_what_is_too_large_is_refused_before_it_is_read(designer, site, settings, monkeypatch):
    from django.http import HttpRequest

    settings.MOST_UPLOAD_BYTES = 10
    monkeypatch.setattr("common.middleware.FORM_BYTES", 100)
    monkeypatch.setattr(
        HttpRequest, "_load_post_and_files", lambda self: pytest.fail("the body was read")
    )
    assert "at most" in problem(designer.bring(site["id"], picture()), 413)


def test_a_form_where_json_is_asked_for_is_refused(designer, site):
    problem(designer.client.post("/api/sites", {"name": "x"}), 415)
    answer = designer.client.post(
        "/api/sites", b"name=x", content_type="application/x-www-form-urlencoded"
    )
    problem(answer, 400)


# -- bodies --


@pytest.mark.parametrize(
    "body",
    [
        b'{"name": "\\ud800"}',
        b'{"name": NaN}',
        b"[" * 100_000,
        b'{"name": "\xff"}',
        b"{",
        b'{"name": ' + b"9" * 5000 + b"}",
        b'{"name": "a\\u0000b"}',
        b'{"n\\u0000": "a"}',
        b'{"name": "a\x00b"}',
    ],
)
def test_what_is_no_json_is_a_4xx(designer, body):
    answer = designer.client.post("/api/sites", body, content_type="application/json")
    problem(answer, 422 if answer.status_code == 422 else 400)


@pytest.mark.parametrize("path", ["/sites/%00", "/session?a=%00", "/first?at=%00", "/fonts/a%00b"])
def test_no_address_holds_what_cannot_be_shown(designer, path):
    problem(designer.get(path), 400)


def test_two_characters_that_write_it_are_a_text_like_any(designer):
    body = rb'{"name": "a\\u0000b"}'  # a backslash and what follows it
    answer = designer.client.post("/api/sites", body, content_type="application/json")
    assert answer.status_code == 201 and answer.json()["name"] == r"a\u0000b"


def test_a_body_of_six_mb_is_too_large(designer):
    problem(
        designer.client.post("/api/sites", b" " * 6_000_000, content_type="application/json"), 413
    )


def test_fields_that_are_not_known_are_refused(designer, site, page, placement, original):
    for method, path, body in (
        ("post", "/sites", {"name": "x", "breakpoints": [500]}),
        ("post", f"/sites/{site['id']}/pages", {"title": "x", "colour": 1}),
        ("post", f"/pages/{page['id']}/placements", {"placement": {"name": "x"}, "lead": True}),
        ("post", f"/sites/{site['id']}/readings", {"placement": {"name": "x"}, "spans": []}),
        (
            "put",
            f"/placements/{placement['id']}",
            {"revision": 1, "placement": {"name": "x"}, "force": True},
        ),
        ("patch", f"/originals/{original['id']}", {"alt": "x", "name": "y"}),
        ("patch", f"/sites/{site['id']}/originals", {"ids": [original["id"]], "tags": []}),
    ):
        answer = designer.call(method, path, body)
        problem(answer, 422)
        assert "not known here" in json.dumps(answer.json()["errors"])


@pytest.mark.parametrize(
    "change",
    [
        {"heights": []},
        {
            "heights": (
                [{"to_px": 7680, "least_px": 300, "typical_px": 400, "greatest_px": 500}] * 1000
            )
        },
        {"densities": [1, *[1 + i / 10_000 for i in range(10_000)]]},
        {"titles": {f"A{i}": "x" for i in range(1000)}},
        {"titles": {"A": "x" * 41}},
        {"breakpoints": list(range(400, 2000))},
        {"budget_bytes": 10**400},
        {"formats": ["jpeg"] * 1000},
        {"container": {"max_width_px": 1e308}},
    ],
)
def test_every_list_and_number_of_a_site_has_a_bound(designer, site, change):
    answer = designer.put(
        f"/sites/{site['id']}", {"name": "x", "plan": {**site["plan"], **change}, "revision": 1}
    )
    problem(answer, 422)
    assert designer.get(f"/sites/{site['id']}").json()["plan"] == site["plan"]


@pytest.mark.parametrize(
    "treatment",
    [
        {"height": {"kind": "ratio", "w": 1e-300, "h": 1}},
        {"height": {"kind": "ratio", "w": 10000, "h": 0.001}},
        {"crop": {"x": 0, "y": 0, "w": 1e-7, "h": 1}},
        {"width": {"kind": "fixed", "width_px": 1e-300}},
        {"original": 10**30},
        {"keeps": ["x"] * 41},
    ],
)
def test_every_number_of_a_treatment_has_a_bound(designer, site, treatment):
    draft = {"placement": one_part("x", {"D": treatment})}
    problem(designer.post(f"/sites/{site['id']}/readings", draft), 422)


def test_too_many_of_anything_is_refused(designer, site, placement):
    draft = {"placement": one_part("x", {chr(65 + i) * 2: {} for i in range(26)})}
    problem(designer.post(f"/sites/{site['id']}/readings", draft), 422)
    looks = {str(i): {"focal": [0.5, 0.5]} for i in range(1000)}
    problem(
        designer.post(
            f"/sites/{site['id']}/readings", {"placement": {"name": "x"}, "looks": looks}
        ),
        422,
    )
    problem(designer.get(f"/originals/{10**30}/suggestion"), 404)


def test_a_safe_area_s_png_is_bounded(designer, page):
    noun = one_part("To be made", {"D": {"height": {"kind": "ratio", "w": 2, "h": 1}}})
    made = designer.post(f"/pages/{page['id']}/placements", {"placement": noun}).json()
    said = problem(designer.get(f"/placements/{made['id']}/safe-area/png?ratio=0.05"), 422)
    assert "Take the SVG" in said
    assert designer.get(f"/placements/{made['id']}/safe-area/svg?ratio=0.05").status_code == 200
    assert designer.get(f"/placements/{made['id']}/safe-area/png?ratio=2").status_code == 200


# -- signing in --


def sign_in(client, name, password="wrong", **extra):
    client.get("/api/session")
    token = {"X-CSRFToken": client.cookies["csrftoken"].value}
    body = json.dumps({"name": name, "password": password})
    return client.post(
        "/api/session", body, content_type="application/json", headers=token, **extra
    ).status_code


@pytest.mark.parametrize("ways", [["ada", "ADA", "Ada ", "àda", "aDa  ", "ÁDA", "ada", "Ada"]])
def test_the_throttle_counts_what_the_database_takes_for_the_same(designer, ways):
    cache.clear()
    client = Client(enforce_csrf_checks=True)
    assert [sign_in(client, way) for way in ways[:-1]] == [401] * 7
    assert sign_in(client, ways[-1]) == 429
    assert sign_in(client, "ada", "long-enough-word") == 429


def test_many_names_from_one_address_are_throttled_and_others_are_not(designer):
    client = Client(enforce_csrf_checks=True)
    answers = [sign_in(client, f"name{n}", REMOTE_ADDR="8.8.8.8") for n in range(41)]
    assert answers[:39] == [401] * 39 and answers[-1] == 429
    assert sign_in(client, "ada", "long-enough-word", REMOTE_ADDR="9.9.9.9") == 200


def test_behind_a_proxy_nobody_is_locked_out_with_a_stranger(designer, settings):
    def through(forwarded):
        return {"REMOTE_ADDR": "127.0.0.1", "HTTP_X_FORWARDED_FOR": forwarded}

    client = Client(enforce_csrf_checks=True)
    for n in range(45):  # a proxy that nobody has told us of: its address says nothing
        assert sign_in(client, f"name{n}", **through(f"8.8.{n}.8")) == 401
    assert sign_in(client, "ada", "long-enough-word", **through("8.8.8.8")) == 200
    settings.PROXIES = 1
    answers = [sign_in(client, f"other{n}", **through("1.1.1.1, 7.7.7.7")) for n in range(41)]
    assert answers[-1] == 429  # the address that our proxy saw, whatever stands before it
    assert sign_in(client, "ada", "long-enough-word", **through("7.7.7.7, 6.6.6.6")) == 200


# -- services that are away --


def test_without_redis_sessions_reading_and_saving_go_on(designer, settings, placement):
    from common.cache import ForgivingRedisCache

    settings.CACHES = {
        "default": {
            "BACKEND": "common.cache.ForgivingRedisCache",
            "LOCATION": "redis://127.0.0.1:1/0",
            "OPTIONS": {},
        }
    }
    client = Client(enforce_csrf_checks=True)
    assert sign_in(client, "ada", "long-enough-word") == 200
    assert client.get("/api/sites").status_code == 200
    body = {
        "revision": placement["revision"],
        "placement": with_own(placement["placement"], alt="words"),
    }
    assert designer.put(f"/placements/{placement['id']}", body).status_code == 200
    ForgivingRedisCache.asked_again_at = 0.0


@pytest.mark.parametrize("code", [2002, 2006, 2013, 1040])
def test_without_the_database_there_are_problem_documents(designer, monkeypatch, code):
    def away(self):
        raise OperationalError(code, "gone")

    monkeypatch.setattr("django.db.backends.base.base.BaseDatabaseWrapper.ensure_connection", away)
    for path in ("/api/sites", "/api/session", "/api/deliveries/1"):
        assert "try again" in problem(designer.client.get(path), 503)
    assert designer.client.get("/").status_code in (200, 503)


def test_no_page_of_html_anywhere_under_api(designer):
    problem(designer.get("/nothing"), 404)
    problem(designer.client.get("/api/sites", HTTP_HOST="evil.example"), 400)
    problem(designer.client.delete("/api/sites"), 405)
    problem(designer.get("/originals/x/preview/480"), 404)


def test_a_fault_of_ours_is_a_problem_document_too(designer, site, monkeypatch):
    designer.client.raise_request_exception = False
    monkeypatch.setattr("endpoints.sites.sites.site_out", lambda site: 1 / 0)
    assert "Nothing was lost" in problem(designer.get(f"/sites/{site['id']}"), 500)


def test_a_file_that_is_no_longer_stored_is_said(designer, placement):
    from deliveries import work

    started = designer.post(f"/placements/{placement['id']}/deliveries").json()
    work.run(started["id"])
    for r in Rendition.objects.all():
        default_storage.delete(r.stored)
    problem(designer.get(f"/deliveries/{started['id']}/tree/t/{started['files'][0]['name']}"), 404)
    default_storage.delete(Delivery.objects.get().stored_zip)
    assert "no longer stored" in problem(designer.get(f"/deliveries/{started['id']}/zip"), 409)


# -- what is served --


def test_static_files_carry_the_same_headers_and_no_dot_files(client, settings):
    page, static = client.get("/"), None
    for path in Path(settings.WEB_DIST).glob("assets/*.js"):
        static = client.get(f"/assets/{path.name}")
        break
    if static is None:
        pytest.skip("the web application is not built")
    for header in (
        "Content-Security-Policy",
        "X-Frame-Options",
        "X-Content-Type-Options",
        "Referrer-Policy",
    ):
        assert static[header] == page[header]
    assert not list(Path(settings.WEB_DIST).glob(".*"))


def test_the_document_is_for_who_is_signed_in(designer):
    for path in ("/api/docs", "/api/openapi.json"):
        problem(Client().get(path), 401)
        assert designer.client.get(path).status_code == 200


# -- sweeping --


def test_what_nothing_refers_to_goes_after_a_grace(designer, site, placement, original, settings):
    import os

    from deliveries import work

    started = designer.post(f"/placements/{placement['id']}/deliveries").json()
    work.run(started["id"])
    removed = designer.bring(site["id"], picture(seed=7), "gone.jpg").json()
    gone = Original.objects.get(id=removed["id"])
    names = [gone.stored, gone.preview(480), gone.preview(1600)]
    assert designer.delete(f"/originals/{removed['id']}").status_code == 204
    left = Path(settings.WORK_ROOT) / "tmpkilled"
    left.mkdir(parents=True)
    (left / "upload").write_bytes(b"half")
    assert sweeping.sweep() == 0  # somebody may be about to refer to them

    def age(hours):
        then = time.time() - hours * 3600
        for path in [*Path(settings.MEDIA_ROOT).rglob("*"), *Path(settings.WORK_ROOT).iterdir()]:
            os.utime(path, (then, then))
        Rendition.objects.update(created=timezone.now() - timedelta(hours=hours))

    age(30)
    assert sweeping.sweep() == len(names) + 1 and not left.exists()
    assert not any(default_storage.exists(n) for n in names)
    kept = Original.objects.get()
    assert default_storage.exists(kept.stored) and default_storage.exists(kept.preview(480))
    assert designer.get(f"/deliveries/{started['id']}/zip").status_code == 200

    Delivery.objects.all().delete()
    age(30)
    assert sweeping.sweep() == started["total"] + 1 and not Rendition.objects.exists()


# -- queries --


def queries(api, path):
    from django.test.utils import CaptureQueriesContext

    with CaptureQueriesContext(connection) as found:
        assert api.get(path).status_code == 200
    return len(found)


def test_queries_do_not_grow_with_rows(designer, site, page, placement, original):
    from deliveries import work

    def more():
        for i in range(4):
            noun = {**placement["placement"], "name": f"More {i}"}
            made = designer.post(f"/pages/{page['id']}/placements", {"placement": noun}).json()
            started = designer.post(f"/placements/{made['id']}/deliveries").json()
            work.run(started["id"])

    wide = {"name": "Shore", "rect": {"x": 0.05, "y": 0.3, "w": 0.9, "h": 0.3}}
    designer.put(
        f"/originals/{original['id']}/look", {"revision": 1, "focal": [0.5, 0.5], "areas": [wide]}
    )
    more()
    paths = [
        f"/sites/{site['id']}/{what}"
        for what in ("deliveries", "remedies", "placements", "originals")
    ] + ["/sites"]
    few = [queries(designer, p) for p in paths]
    more()
    assert [queries(designer, p) for p in paths] == few


def test_polling_a_run_plans_nothing(designer, placement, monkeypatch):
    from deliveries import runs

    started = designer.post(f"/placements/{placement['id']}/deliveries").json()
    monkeypatch.setattr(runs, "blueprint", lambda *a, **k: pytest.fail("planned"))
    assert designer.get(f"/deliveries/{started['id']}").json()["state"] == "queued"


def test_a_save_checks_with_a_plan_alone(designer, placement, monkeypatch):
    monkeypatch.setattr(
        "endpoints.placements.placements.glimpses", lambda site: pytest.fail("more than a plan")
    )
    body = {
        "revision": placement["revision"],
        "placement": with_own(placement["placement"], alt="x"),
    }
    assert designer.put(f"/placements/{placement['id']}", body).status_code == 200


# -- names --


def test_placements_of_a_site_are_called_apart_in_code_and_files(designer, site, page, original):
    def brought(name):
        held = {"original": original["id"], "width": {"kind": "fixed", "width_px": 100}}
        noun = one_part(name, {"D": held})
        return designer.post(f"/pages/{page['id']}/placements", {"placement": noun}).json()

    made = [brought(name) for name in ("船", "Chuan", "3 boats")]
    readings = [
        designer.post(
            f"/sites/{site['id']}/readings", {"placement": m["placement"], "placement_id": m["id"]}
        ).json()
        for m in made
    ]
    classes = [r["code"]["css_text"].split(" {")[0] for r in readings]
    assert classes == [".chuan", ".chuan-2", ".picture-3-boats"]
    assert [r["files"][0]["stem"] for r in readings] == ["chuan", "chuan-2", "picture-3-boats"]
    exported = designer.post(f"/placements/{made[1]['id']}/deliveries").json()
    assert exported["files"][0]["name"] == "images/chuan-2.avif"
    foreign = {**made[0]["placement"], "stem": "evil"}
    saved = designer.put(
        f"/placements/{made[0]['id']}", {"revision": 1, "placement": foreign}
    ).json()
    assert saved["placement"]["stem"] is None


def test_titles_stay_on_their_widths_when_a_post_is_added(designer, site):
    titled = {**site["plan"], "titles": {"A": "phone", "D": "desk"}}
    saved = designer.put(
        f"/sites/{site['id']}", {"name": "x", "plan": titled, "revision": 1}
    ).json()
    added = {**saved["plan"], "breakpoints": [400, 599, 1023, 1599]}
    saved = designer.put(f"/sites/{site['id']}", {"name": "x", "plan": added, "revision": 2}).json()
    assert saved["plan"]["titles"] == {"B": "phone", "E": "desk"}


# -- ids of others --


def _fields(schema, document, at=""):
    """The names of all fields of a body, however deep, with their way there."""
    if "$ref" in schema:
        schema = document["components"]["schemas"][schema["$ref"].rsplit("/", 1)[1]]
    for name, of in schema.get("properties", {}).items():
        yield f"{at}{name}"
        if at.count(".") < 3:
            yield from _fields(of, document, f"{at}{name}.")
    for inner in (schema.get("items", {}), *schema.get("anyOf", ()), *schema.get("oneOf", ())):
        if inner:
            yield from _fields(inner, document, at)


def _that_name_rows(document):
    """Every body that names a row by an id."""
    for path, operations in document["paths"].items():
        for method, operation in operations.items():
            content = operation.get("requestBody", {}).get("content", {})
            for kind in content.values():
                named = {f for f in _fields(kind["schema"], document) if f.endswith("_id")}
                if named:
                    yield method, path, frozenset(named)


def test_a_body_that_names_a_row_of_another_site_is_told_nothing_of_it(
    designer, stranger, site, page, placement
):
    """All fields named `…_id` of the OpenAPI document, each with the id of somebody else's
    placement."""
    theirs = stranger.post("/sites", {"name": "Hidden Site"}).json()
    (home,) = theirs["pages"]
    stranger.call("patch", f"/pages/{home['id']}", {"title": "Hidden Page"})
    made = [
        stranger.post(f"/pages/{home['id']}/placements", {"placement": one_part(name, {})}).json()
        for name in ("Hidden One", "Hidden Two")
    ]
    foreign = made[0]["id"]
    draft = {"placement": placement["placement"], "placement_id": foreign, "chosen": "D"}
    choice = {"placement_id": foreign, "revision": 1, "span": "D", "remedy": 0}
    own_site, own_page = f"/sites/{site['id']}", f"/pages/{page['id']}"
    bodies = {
        "/api/sites/{site_id}/readings": (f"{own_site}/readings", draft),
        "/api/sites/{site_id}/readings/moving": (f"{own_site}/readings/moving", draft),
        "/api/sites/{site_id}/readings/sum": (f"{own_site}/readings/sum", {**draft, "at": 800}),
        "/api/sites/{site_id}/readings/code": (
            f"{own_site}/readings/code",
            {**draft, "output": "jsx"},
        ),
        "/api/sites/{site_id}/readings/host": (f"{own_site}/readings/host", draft),
        "/api/sites/{site_id}/readings/stage": (
            f"{own_site}/readings/stage",
            {**draft, "held": {"letter": "D", "width": 1280, "height": 800}},
        ),
        "/api/sites/{site_id}/readings/pull": (
            f"{own_site}/readings/pull",
            {
                **draft,
                "held": {"letter": "D", "width": 1280, "height": 800},
                "pull": {"handle": "height", "to": 300},
            },
        ),
        "/api/sites/{site_id}/crops": (f"{own_site}/crops", {**draft, "ratio": 1}),
        "/api/sites/{site_id}/kinds/{kind}": (f"{own_site}/kinds/banner", draft),
        "/api/sites/{site_id}/remedies": (f"{own_site}/remedies", {"choices": [choice]}),
        "/api/pages/{page_id}/homes": (f"{own_page}/homes", {"placement_id": foreign}),
        "/api/pages/{page_id}/lead": (f"{own_page}/lead", {"placement_id": foreign}),
    }
    from config.api import api

    methods = {path: method for method, path, _ in _that_name_rows(api.get_openapi_schema())}
    assert set(methods) == set(bodies)
    for named, (path, body) in bodies.items():
        answer = designer.call(methods[named], path, body)
        assert b"Hidden" not in answer.content, path
        assert answer.status_code == 404 or answer.status_code == 200, path
    undone = designer.post(f"{own_site}/remedies/undo", {"placements": [[foreign, 1]]})
    assert b"Hidden" not in undone.content and not undone.json()[0]["applied"]
    for row in made:
        assert stranger.get(f"/placements/{row['id']}").json() == row


# -- headers --

HEADERS = {
    "X-Content-Type-Options": "nosniff",
    "Referrer-Policy": "same-origin",
    "Cross-Origin-Opener-Policy": "same-origin",
}


@pytest.mark.parametrize("https", [False, True])
@pytest.mark.parametrize(
    ("method", "path", "status"),
    [
        ("get", "/api/placements/1", 401),
        ("get", "/api/nothing-here", 404),
        ("get", "/api/sites", 200),
        ("put", "/api/sites", 405),
        ("get", "/sites/1/placements", 200),
        ("get", "/assets/nothing.js", 404),
    ],
)
def test_every_answer_carries_the_same_headers(designer, settings, https, method, path, status):
    """Problem documents, pages of the framework and static files too (Permissions Policy; RFC
    6797)."""
    settings.SESSION_COOKIE_SECURE = https
    client = Client(raise_request_exception=False) if status == 401 else designer.client
    answer = getattr(client, method)(path)
    assert answer.status_code == status
    assert {k: answer.headers.get(k) for k in HEADERS} == HEADERS
    assert "frame-ancestors" in answer.headers["Content-Security-Policy"]
    assert answer.headers["X-Frame-Options"] in ("DENY", "SAMEORIGIN")
    assert "camera=()" in answer.headers["Permissions-Policy"]
    assert ("Strict-Transport-Security" in answer.headers) is https
