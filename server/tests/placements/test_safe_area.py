"""The safe area as numbers, SVG and PNG; for a picture that is here and for one that is still to be
made."""

import io

import pytest
from conftest import one_part
from PIL import Image

pytestmark = pytest.mark.django_db


def test_the_safe_area_of_one_span_and_of_all(designer, placement):
    """An 800×500 picture centred: 2:1 shows 400 px of its height, 1:1 (span A) 500 px of its width
    (rules §4)."""
    path = f"/placements/{placement['id']}/safe-area"
    a = designer.get(f"{path}?span=A").json()
    assert (a["safe_px"], a["spans"]) == ([150, 650, 0, 500], ["A"])
    d = designer.get(f"{path}?span=D").json()
    assert d["safe_px"] == [0, 800, 50, 450]
    both = designer.get(path).json()
    assert both["safe_px"] == [150, 650, 50, 450] and both["spans"] == list("ABCD")
    assert "x 150 to 650, y 50 to 450" in both["sentence"]


def test_the_overlays_have_the_size_of_the_original(designer, placement):
    path = f"/placements/{placement['id']}/safe-area"
    svg = designer.get(f"{path}/svg")
    assert svg["Content-Type"] == "image/svg+xml" and b'width="800" height="500"' in svg.content
    assert svg["Content-Disposition"] == 'attachment; filename="lighthouse-safe-area.svg"'
    image = Image.open(io.BytesIO(designer.get(f"{path}/png?span=A").content))
    assert image.size == (800, 500)
    assert image.getpixel((100, 250))[3] > 100 and image.getpixel((400, 250))[3] == 0
    assert designer.get(f"{path}/pdf").status_code == 422


def test_what_a_picture_has_to_look_like_that_is_not_there_yet(designer, page):
    """Frames of 2000×1000 and 500×500 px at 2x: a 2:1 picture of 4000×2000 px, of which the middle
    half always shows."""
    wide = {
        "width": {"kind": "fixed", "width_px": 2000},
        "height": {"kind": "ratio", "w": 2, "h": 1},
    }
    square = {
        "width": {"kind": "fixed", "width_px": 500},
        "height": {"kind": "ratio", "w": 1, "h": 1},
    }
    body = one_part("Harbour", {"D": wide, "A": square})
    made = designer.post(f"/pages/{page['id']}/placements", {"placement": body}).json()
    found = designer.get(f"/placements/{made['id']}/safe-area?ratio=2").json()
    assert (found["width_px"], found["height_px"], found["density"]) == (4000, 2000, 2)
    assert found["safe"] == {"x": 0.25, "y": 0, "w": 0.5, "h": 1} and found["original"] is None
    assert "At least 4000 × 2000 px for 2x." in found["sentence"]
    assert designer.get(f"/placements/{made['id']}/safe-area/png?ratio=2").status_code == 200


@pytest.mark.parametrize("query", ["?span=Q", "?original=999999"])
def test_what_is_not_there_is_said(designer, placement, query):
    answer = designer.get(f"/placements/{placement['id']}/safe-area{query}")
    assert answer.status_code == 404 and answer.json()["detail"].startswith(
        ("There is no span", "No picture shows")
    )


def test_a_strangers_safe_area_is_not_shown(stranger, placement):
    assert stranger.get(f"/placements/{placement['id']}/safe-area").status_code == 404
