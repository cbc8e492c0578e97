"""A draft shaped by hand over the API."""

import pytest

pytestmark = pytest.mark.django_db

HELD = {"letter": "D", "width": 1280, "height": 800}


@pytest.fixture
def ask(designer, site, placement):
    def asked(path, draft=None, **more):
        body = {"placement": draft or placement["placement"], "placement_id": placement["id"]}
        return designer.post(f"/sites/{site['id']}/readings/{path}", {**body, **more})

    return asked


def test_a_stage_says_what_can_be_pulled(ask):
    found = ask("stage", held=HELD).json()
    by_id = {h["id"]: h for h in found["handles"]}
    assert by_id["height"]["y0"] == 60 and by_id["height"]["is_own"]
    assert found["wide"] == 120 and found["told"][:2] == ["120 × 60", "2:1"]


def test_a_pull_says_what_is_set(ask):
    found = ask("pull", held=HELD, pull={"handle": "height", "to": 81, "near_px": 3}).json()
    assert found["stop"] == "3:2" and found["treatment"]["height"]["w"] == 3
    assert not found["of_all"] and found["part"] == 0


@pytest.mark.parametrize(
    ("held", "pull", "said"),
    [
        (HELD, {"handle": "height"}, "Say where a handle is pulled to"),
        (HELD, {"handle": "height", "to": 3, "value": 4}, "Say where a handle is pulled to"),
        (HELD, {"handle": "nothing", "to": 3}, "no such edge"),
        ({**HELD, "letter": "Q"}, {"handle": "height", "to": 3}, "no span Q"),
        ({**HELD, "width": 20}, {"handle": "height", "to": 3}, "120"),
        (HELD, {"handle": "height", "to": "far"}, "number"),
        (HELD, {"handle": "height", "value": -1}, "least"),
        ({**HELD, "lines": {"x": [0] * 500}}, {"handle": "height", "to": 3}, "400"),
    ],
)
def test_what_cannot_be_pulled_is_told_in_a_sentence(ask, held, pull, said):
    answer = ask("pull", held=held, pull=pull)
    assert answer.status_code == 422
    assert said in answer.content.decode()


def test_strangers_pull_nothing(stranger, site, placement):
    body = {"placement": placement["placement"], "held": HELD}
    assert stranger.post(f"/sites/{site['id']}/readings/stage", body).status_code == 404
