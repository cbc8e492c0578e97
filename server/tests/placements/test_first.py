"""What a screen asks for first comes in one answer, each part as if it had been asked for by
itself."""

import gzip
import json
import zlib

import pytest
from endpoints import first as module
from endpoints.first import address_of
from placements.models import Placement

pytestmark = pytest.mark.django_db


def first(api, at, **headers):
    response = api.client.get(address_of(at), headers=headers)
    assert response.status_code == 200
    data = b"".join(response.streaming_content)
    if response.headers.get("Content-Encoding") == "gzip":
        data = gzip.decompress(data)
    head, *lines = map(json.loads, data.splitlines())
    assert head["addresses"] == [line["address"] for line in lines]
    return {line["address"]: line for line in lines}


def alone(api, address):
    return api.client.get(address)


def test_each_screen_gets_what_it_would_ask_for(designer, site, page, placement):
    own = f"/sites/{site['id']}"
    for at, last in (
        ("/", "/api/sites"),
        (own, f"/api{own}/placements?as_remembered=true&skip=0&most=60"),
        (f"{own}/placements", f"/api{own}/placements?as_remembered=true&skip=0&most=60"),
        (f"{own}/originals", f"/api{own}/originals?skip=0&most=200"),
        (f"{own}/deliveries", f"/api{own}/deliveries"),
        (f"{own}/settings", f"/api{own}"),
        (f"{own}/pages/{page['id']}", f"/api/pages/{page['id']}/reading?as_remembered=true"),
        (
            f"{own}/placements/{placement['id']}/words",
            f"/api{own}/originals?skip=0&most=200",
        ),
        ("/nowhere", "/api/session"),
    ):
        found = first(designer, at)
        assert list(found)[-1] == last
        for address, line in found.items():
            answer = alone(designer, address)
            assert (line["status"], line["body"]) == (answer.status_code, answer.json())


@pytest.mark.parametrize(
    ("query", "part", "chosen"),
    [("", 0, "D"), ("?width=400", 0, "A"), ("?width=99999&part=2", 1, "D"), ("?span=B", 0, "B")],
)
def test_the_desk_gets_its_reading(designer, site, placement, query, part, chosen):
    at = f"/sites/{site['id']}/placements/{placement['id']}/aim{query}"
    address = next(a for a in first(designer, at) if "/reading" in a)
    assert f"part={part}&chosen={chosen}&words=false&every=false" in address
    assert address.endswith(f"revision={placement['revision']}")


def test_a_reading_of_what_is_stored_is_that_of_the_draft(designer, site, placement):
    of = f"/placements/{placement['id']}/reading?chosen=D&revision={placement['revision']}"
    asked = {"placement": placement["placement"], "placement_id": placement["id"], "chosen": "D"}
    drafted = designer.post(f"/sites/{site['id']}/readings", asked)
    assert designer.get(of).json() == drafted.json()
    Placement.objects.filter(id=placement["id"]).update(revision=placement["revision"] + 1)
    old = designer.get(of)
    assert old.status_code == 409 and "saved anew" in old.json()["detail"]


def test_strangers_are_told_nothing(designer, stranger, client, site, placement):
    at = f"/sites/{site['id']}/placements/{placement['id']}/aim"
    found = first(stranger, at)
    assert [line["status"] for line in found.values()] == [200, 404]
    assert "Tern Point" not in json.dumps(found) and "Lighthouse" not in json.dumps(found)
    nobody = client.get(address_of(at))
    _, session = map(json.loads, b"".join(nobody.streaming_content).splitlines())
    assert session["address"] == "/api/session" and session["body"]["name"] is None


@pytest.mark.parametrize(
    "at",
    ["", "//", "/sites/0", f"/sites/{10**20}/originals", "/sites/1/placements/٣"],
)
def test_any_address_is_answered(designer, at):
    assert first(designer, at)["/api/session"]["status"] == 200


def test_lines_come_packed_one_by_one(designer):
    """Whatever has come can be read before the rest has (RFC 1952; zlib, Z_SYNC_FLUSH)."""
    response = designer.client.get(address_of("/"), headers={"Accept-Encoding": "gzip"})
    chunks = list(response.streaming_content)
    assert len(chunks) == 4
    unpacked = zlib.decompressobj(16 + zlib.MAX_WBITS).decompress(chunks[0])
    assert json.loads(unpacked) == {"addresses": ["/api/session", "/api/sites"]}


def test_one_that_fails_is_left_out(designer, monkeypatch, caplog):
    def answer(request, address):
        if address == "/api/sites":
            raise ZeroDivisionError
        return real(request, address)

    real = module._answer
    monkeypatch.setattr(module, "_answer", answer)
    lines = b"".join(designer.client.get(address_of("/")).streaming_content).splitlines()
    assert [json.loads(line).get("address") for line in lines] == [None, "/api/session"]
    assert "ZeroDivisionError" in caplog.text


def test_the_document_asks_for_it_before_the_application_does(designer, settings, tmp_path):
    """With the pieces of the screen, so that nothing waits for what is read before it."""
    known = {
        "index.html": {"file": "assets/a.js", "imports": ["_b.js"]},
        "_b.js": {"file": "assets/b.js"},
        "src/desk/Desk.tsx": {"file": "assets/d.js", "imports": ["_b.js", "_c.js", "index.html"]},
        "_c.js": {"file": "assets/c.js"},
    }
    (tmp_path / "manifest.json").write_text(json.dumps(known))
    (tmp_path / "index.html").write_text("<html><head></head><body></body></html>")
    settings.WEB_DIST = tmp_path
    page = designer.client.get('/sites/1/placements/2/aim?width=1&x="><b>').content.decode()
    assert 'data-address="/api/first?at=%2Fsites%2F1%2Fplacements%2F2%2Faim%3Fwidth%3D1' in page
    assert "<b>" not in page
    assert [line in page for line in ("assets/d.js", "assets/c.js", "assets/b.js")] == [1, 1, 0]
    assert "modulepreload" not in designer.client.get("/sites/1/settings").content.decode()
