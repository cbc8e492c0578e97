"""A designer with a site, and pictures to bring. Real MariaDB and Redis; files in a folder of the
test's own."""

from __future__ import annotations

import io

import numpy as np
import pytest
from django.test import Client
from PIL import Image


def pytest_ignore_collect(collection_path, config):
    """The cases of every operation are worked out as their file is read, which takes half a minute:
    not where the slow ones are left out anyway."""
    is_slow = collection_path.name == "test_every_operation.py"
    return (is_slow and config.option.markexpr == "not slow") or None


@pytest.fixture(autouse=True)
def media(settings, tmp_path):
    settings.MEDIA_ROOT = tmp_path / "media"
    settings.WORK_ROOT = tmp_path / "work"


def picture(width=800, height=500, format="JPEG", mode="RGB", seed=1) -> bytes:
    y, x = np.mgrid[0:height, 0:width]
    pixels = np.stack(
        [x * 255 / width, y * 255 / height, (x + y + seed * 40) % 256], axis=-1
    ).astype("uint8")
    out = io.BytesIO()
    Image.fromarray(pixels).convert(mode).save(out, format)
    return out.getvalue()


def one_part(name, treatments, **part):
    """A placement of the kind picture, in JSON."""
    return {"name": name, "kind": "picture", "parts": [{"treatments": treatments, **part}]}


def own(placement):
    """What the only part of a placement sets itself."""
    (part,) = placement["parts"]
    return part["treatments"]


def with_own(placement, **values):
    """The placement with other treatments or words of its only part."""
    (part,) = placement["parts"]
    return {**placement, "parts": [{**part, **values}]}


class Api:
    """A signed-in designer's requests, JSON in and out."""

    def __init__(self, user):
        self.client = Client()
        if user is not None:
            self.client.force_login(user, backend="django.contrib.auth.backends.ModelBackend")

    def call(self, method, path, body=None):
        kw = {"data": body, "content_type": "application/json"} if body is not None else {}
        return getattr(self.client, method)(f"/api{path}", **kw)

    def get(self, path):
        return self.call("get", path)

    def post(self, path, body=None):
        return self.call("post", path, body if body is not None else {})

    def put(self, path, body):
        return self.call("put", path, body)

    def patch(self, path, body):
        return self.call("patch", path, body)

    def delete(self, path):
        return self.call("delete", path)

    def bring(self, site, content, name="boats.jpg"):
        upload = io.BytesIO(content)
        upload.name = name
        return self.client.post(f"/api/sites/{site}/originals", {"file": upload})


@pytest.fixture
def designer(db, django_user_model):
    return Api(django_user_model.objects.create_user("ada", password="long-enough-word"))


@pytest.fixture
def stranger(db, django_user_model):
    return Api(django_user_model.objects.create_user("bob", password="long-enough-word"))


@pytest.fixture
def site(designer):
    return designer.post("/sites", {"name": "Tern Point"}).json()


@pytest.fixture
def page(site):
    (home,) = site["pages"]
    return home


@pytest.fixture
def original(designer, site):
    return designer.bring(site["id"], picture()).json()


@pytest.fixture
def placement(designer, page, original):
    wide = {
        "original": original["id"],
        "width": {"kind": "fixed", "width_px": 120},
        "height": {"kind": "ratio", "w": 2, "h": 1},
    }
    square = {"height": {"kind": "ratio", "w": 1, "h": 1}}
    body = one_part("Lighthouse", {"D": wide, "A": square})
    made = designer.post(f"/pages/{page['id']}/placements", {"placement": body})
    assert made.status_code == 201, made.json()
    return made.json()
