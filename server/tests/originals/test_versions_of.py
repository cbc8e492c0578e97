"""Originals that belong together: one is the night version of another."""

import io
import json
import zipfile

import pytest
from conftest import picture
from django.core.files.uploadedfile import SimpleUploadedFile
from originals.models import Original


def bring(api, site, name, width, height):
    content = picture(width, height, seed=width)
    return api.bring(site["id"], content, name).json()


@pytest.fixture
def pair(designer, site):
    """By day and by night, of different ratios."""
    return bring(designer, site, "day.jpg", 1600, 900), bring(designer, site, "night.jpg", 900, 900)


def say(designer, original, of, when=("dark",)):
    version = {"of": of["id"], "when": list(when)} if of else None
    return designer.call("patch", f"/originals/{original['id']}", {"version": version})


def test_one_is_said_to_be_a_version_of_another_and_no_longer(designer, site, pair):
    day, night = pair
    told = say(designer, night, day, ("still", "dark")).json()
    assert (told["version_of"], told["version_when"]) == (day["id"], ["dark", "still"])
    listed = {o["id"]: o for o in designer.get(f"/sites/{site['id']}/originals").json()}
    assert listed[night["id"]]["version_of"] == day["id"]
    # what is not spoken of stays
    told = designer.call("patch", f"/originals/{night['id']}", {"alt": "At night"}).json()
    assert told["version_of"] == day["id"]
    assert say(designer, night, None).json()["version_of"] is None


def test_what_can_be_none_is_refused_with_a_sentence(designer, stranger, site, pair):
    day, night = pair
    other = bring(designer, site, "dusk.jpg", 800, 600)
    assert "itself" in say(designer, day, day).json()["detail"]
    say(designer, night, day)
    chained = say(designer, other, night)
    assert chained.status_code == 422 and "is a version itself" in chained.json()["detail"]
    turned = say(designer, day, other)
    assert turned.status_code == 422 and "Let them stand for themselves" in turned.json()["detail"]
    assert say(designer, other, day, ()).status_code == 422
    assert say(designer, other, day, ("noon",)).status_code == 422
    assert say(designer, other, {"id": 2**62}).status_code == 404
    assert say(stranger, night, day).status_code == 404
    theirs = stranger.post("/sites", {"name": "Elsewhere"}).json()
    foreign = bring(stranger, theirs, "far.jpg", 640, 480)
    assert say(designer, other, foreign).status_code == 404


def test_when_the_usual_one_goes_the_other_stands_for_itself(designer, pair):
    day, night = pair
    say(designer, night, day)
    assert designer.call("delete", f"/originals/{day['id']}").status_code == 204
    assert Original.objects.get(id=night["id"]).as_noun().version_of is None


def test_a_site_goes_out_and_comes_in_with_it(designer, site, pair):
    day, night = pair
    say(designer, night, day)
    body = b"".join(designer.get(f"/sites/{site['id']}/archive.zip").streaming_content)
    told = json.loads(zipfile.ZipFile(io.BytesIO(body)).read("site.json"))
    by_name = {o["name"]: o for o in told["originals"]}
    assert by_name["night.jpg"]["version_of"] == by_name["day.jpg"]["id"]
    assert by_name["night.jpg"]["version_when"] == ["dark"]
    upload = SimpleUploadedFile("site.zip", body)
    made = designer.client.post("/api/sites/archive", {"file": upload}).json()
    rows = {o.name: o for o in Original.objects.filter(site=made["id"])}
    assert rows["night.jpg"].version_of == rows["day.jpg"]
    assert rows["night.jpg"].as_noun().version_when == ("dark",)
