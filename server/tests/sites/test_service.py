"""The image service that comes with Sky Pane, asked as browsers of visitors ask it."""

import io
import re
import time
from concurrent.futures import ThreadPoolExecutor
from html import unescape

import pytest
from common import keys
from deliveries import service
from deliveries.sweeping import sweep
from django.core.files.storage import default_storage
from django.db import connections
from django.test import Client
from PIL import Image
from skypane import model as m

NEW = "image/avif,image/webp,image/*,*/*;q=0.8"


@pytest.fixture
def named(designer, site, placement):
    """The site with its own service, and the addresses that its code then has."""
    service.forget()

    def name(**query):
        asked = "&".join(f"{k}={v}" for k, v in query.items())
        own = designer.get(f"/sites/{site['id']}/service/own?{asked}").json()
        now = designer.get(f"/sites/{site['id']}").json()
        plan = {**now["plan"], "hand_over": {"service": own}}
        body = {"name": site["name"], "revision": now["revision"], "plan": plan}
        assert designer.put(f"/sites/{site['id']}", body).status_code == 200
        reading = designer.post(
            f"/sites/{site['id']}/readings",
            {"placement": placement["placement"], "placement_id": placement["id"]},
        ).json()
        text = unescape(reading["code"]["markup_text"])
        return re.findall(r"/service/\S+?(?=[\s\",])", text)

    return name


def test_every_address_in_the_code_is_answered_with_that_file(named):
    """To whoever asks, signed in or not."""
    addresses = named()
    assert len(addresses) > 3
    for address in dict.fromkeys(addresses):
        answer = Client().get(address)
        assert answer.status_code == 200, address
        picture = Image.open(io.BytesIO(b"".join(answer.streaming_content)))
        assert picture.width == int(re.search(r"w=(\d+)", address)[1])
        asked = re.search(r"[?&]f=(\w+)", address)[1]
        assert {"jpg": "JPEG", "webp": "WEBP", "avif": "AVIF"}[asked] == picture.format
        assert answer["Cache-Control"] == "public, max-age=31536000, immutable"
        assert not answer.has_header("Vary") and not answer.has_header("Content-Encoding")


@pytest.mark.parametrize(
    ("accept", "kind"),
    [
        (NEW, "image/avif"),
        ("image/webp,*/*", "image/webp"),
        ("*/*", "image/jpeg"),
        ("image/png,image/*;q=0.8", "image/jpeg"),
        ("text/html", None),
    ],
)
def test_without_a_format_the_browser_s_own_list_decides_and_is_told_of(named, accept, kind):
    """RFC 9110 §12.5.1 and §12.5.5: caches keep one answer for each such list."""
    (address, *_) = named(negotiates="true")
    answer = Client().get(address, HTTP_ACCEPT=accept)
    if kind is None:
        assert answer.status_code == 406
        return
    assert answer.status_code == 200 and answer["Content-Type"] == kind
    assert answer["Vary"] == "Accept"


def test_who_has_the_file_is_not_sent_it_again(named):
    """RFC 9110 §13.1.2 and §15.4.5."""
    (address, *_) = named()
    etag = Client().get(address)["ETag"]
    again = Client().get(address, HTTP_IF_NONE_MATCH=etag)
    assert again.status_code == 304 and again["ETag"] == etag and not again.content
    assert Client().get(address, HTTP_IF_NONE_MATCH='"other"').status_code == 200
    assert Client().head(address).status_code == 200
    assert Client().post(address).status_code == 405


def test_what_was_not_signed_here_or_was_changed_is_refused(named):
    (address, *_) = named()
    forged = re.sub(r"w=\d+", "w=4000", address)
    for bad in (
        forged,
        re.sub(r"sig=\w+", "sig=", address),
        re.sub(r"sig=\w+", f"sig={'0' * 32}", address),
        address.replace("key=1", "key=2"),
        address.replace("/service/", "/service/9"),
        address.partition("?")[0],
    ):
        answer = Client().get(bad)
        assert answer.status_code == 403 and b"not signed here" in answer.content, bad


def signed(address):
    below = re.sub(r"sig=\w+", "sig=unsigned", address)
    return re.sub("sig=unsigned", f"sig={keys.sign(below, '1')}", below)


def test_beyond_the_plan_and_after_its_time_nothing_is_given_out(named):
    (address, *_) = named()
    assert signed(address) == address
    late = signed(re.sub(r"until=\d+", f"until={int(time.time()) - 1}", address))
    assert Client().get(late).status_code == 410
    for bad, status in (
        (re.sub(r"w=\d+", "w=4001", address), 404),
        (re.sub(r"cw=\d+", "cw=7", address), 404),
        (re.sub(r"w=\d+", "w=wide", address), 400),
        (re.sub(r"f=\w+", "f=gif", address), 406),
        (re.sub(r"/service/\d+", "/service/999999", address), 404),
    ):
        answer = Client().get(signed(bad))
        assert answer.status_code == status and answer.content.endswith(b".\n"), bad


def test_keys_take_turns(named, settings):
    (old, *_) = named()
    settings.SERVICE_KEYS = ["2", "1"]
    (new, *_) = named()
    assert "key=2" in new and Client().get(new).status_code == 200
    assert Client().get(old).status_code == 200
    settings.SERVICE_KEYS = ["2"]
    assert Client().get(old).status_code == 403 and Client().get(new).status_code == 200


def test_a_site_names_a_key_that_is_there(designer, site):
    own = designer.get(f"/sites/{site['id']}/service/own").json()
    plan = {**site["plan"], "hand_over": {"service": {**own, "key": "gone"}}}
    body = {"name": site["name"], "revision": site["revision"], "plan": plan}
    answer = designer.put(f"/sites/{site['id']}", body)
    assert answer.status_code == 422 and "no key called gone" in str(answer.json())


@pytest.mark.django_db(transaction=True)
def test_fifty_that_ask_at_once_have_it_made_once(named, monkeypatch):
    (address, *_) = named()
    made = []
    make = service._make
    monkeypatch.setattr(service, "_make", lambda *of: (made.append(of), make(*of)))

    def ask(_):
        try:
            answer = Client().get(address)
            return answer.status_code, b"".join(answer.streaming_content)
        finally:
            connections.close_all()

    with ThreadPoolExecutor(50) as pool:
        answers = set(pool.map(ask, range(50)))
    assert len(answers) == len(made) == 1
    assert answers.pop()[0] == 200


def test_what_was_exported_is_given_out_as_it_is(named, designer, site, placement):
    (address, *_) = named()
    wanted, of = next(iter(service.planned(service.Site.objects.get(id=site["id"])).items()))
    r: m.Rendition = next(iter(of.values()))
    row = service.Rendition.objects.create(
        key=r.key,
        format=r.format,
        width_px=r.width_px,
        height_px=r.height_px,
        size_bytes=5,
        sha256="x",
    )
    default_storage.save(row.stored, io.BytesIO(b"bytes"))
    assert service.stored_file(site["id"], r) == row.stored
    assert wanted.width == r.width_px and address


def test_an_original_that_is_gone_is_a_sentence(named):
    (address, *_) = named()
    for name in default_storage.listdir("originals")[0]:
        for file in default_storage.listdir(f"originals/{name}")[1]:
            default_storage.delete(f"originals/{name}/{file}")
    answer = Client().get(address)
    assert answer.status_code == 422 and b"no longer here" in answer.content


def test_a_template_is_read_off_what_is_pasted(designer, stranger, site):
    path = f"/sites/{site['id']}/service/proposed"
    body = {"addresses": ["https://p.example/quay.jpg?w=800&f=webp"]}
    found = designer.post(path, body).json()
    assert found["template"] == "https://p.example/{name}{?w,f}"
    answer = designer.post(path, {"addresses": ["https://p.example/"]})
    assert answer.status_code == 422 and "name of a picture" in str(answer.json())
    assert stranger.post(path, body).status_code == 404


def test_pictures_are_not_compressed_once_more(named):
    (address, *_) = named()
    answer = Client().get(address, HTTP_ACCEPT_ENCODING="gzip")
    assert not answer.has_header("Content-Encoding")
    text = Client().get("/nowhere-at-all", HTTP_ACCEPT_ENCODING="gzip")
    assert text.status_code in (200, 503)


def test_proof_runs_against_the_service_too(named, designer, site, placement):
    """What is predicted of the page whose pictures a service gives out is what that page asks
    for."""
    named()
    run = designer.post(f"/placements/{placement['id']}/deliveries").json()
    texts = service.Site.objects.get(id=site["id"]).deliveries.get(id=run["id"]).written["texts"]
    assert "/service/" in texts["page-service.html"] and "/service/" not in texts["page.html"]
    path = f"/deliveries/{run['id']}/picks"
    for asked in (True, False):
        found = designer.post(path, {"densities": [1], "service": asked}).json()
        assert found and all(p["url"].startswith("/service/") == asked for p in found)
        page = texts["page-service.html" if asked else "page.html"]
        assert all(p["url"].replace("&", "&amp;") in page for p in found)


def test_a_delivery_from_before_has_no_page_of_the_service(designer, placement):
    run = designer.post(f"/placements/{placement['id']}/deliveries").json()
    answer = designer.post(f"/deliveries/{run['id']}/picks", {"service": True})
    assert answer.status_code == 409 and "Export the placement again" in str(answer.json())


def test_what_it_made_is_swept_up_and_made_again(named, settings):
    (address, *_) = named()
    assert Client().get(address).status_code == 200
    assert default_storage.listdir("service")[0]
    settings.KEEP_UNUSED_HOURS = 0
    assert sweep() > 0
    assert not [
        f
        for d in default_storage.listdir("service")[0]
        for f in default_storage.listdir(f"service/{d}")[1]
    ]
    assert Client().get(address).status_code == 200


def test_addresses_of_a_host_are_read_for_the_files_of_the_site(
    designer, stranger, site, placement
):
    service.forget()
    names = service.file_names(service.Site.objects.get(id=site["id"]))
    path = f"/sites/{site['id']}/uploaded"
    first = f"https://files.example/{names[0]}"
    found = designer.post(path, {"text": f"{first}\nno such line"}).json()
    assert found["addresses"] == {names[0]: first}
    assert found["unread"] == ["no such line"] and len(found["missing"]) == len(names) - 1
    plan = {**site["plan"], "hand_over": {"uploaded": found["addresses"]}}
    body = {"name": site["name"], "revision": site["revision"], "plan": plan}
    assert designer.put(f"/sites/{site['id']}", body).status_code == 200
    draft = {"placement": placement["placement"], "placement_id": placement["id"]}
    code = designer.post(f"/sites/{site['id']}/readings", draft).json()["code"]
    assert first in code["markup_text"] and set(code["without_address"]) == set(found["missing"])
    assert stranger.post(path, {"text": first}).status_code == 404
