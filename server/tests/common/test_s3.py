"""Files in a bucket: the whole job against a stand-in that speaks S3 on this machine."""

import io
import json
import zipfile

import boto3
import pytest
from common.files import is_intact, keep, local, sha256_of
from conftest import picture
from deliveries import sweeping, work
from deliveries.models import Delivery, Rendition
from django.core.files.storage import default_storage
from moto.server import ThreadedMotoServer

pytestmark = [pytest.mark.django_db, pytest.mark.slow]


@pytest.fixture(scope="module")
def store():
    server = ThreadedMotoServer(ip_address="127.0.0.1", port=0)
    server.start()
    yield "http://{}:{}".format(*server.get_host_and_port())
    server.stop()


@pytest.fixture
def bucket(store, settings, monkeypatch):
    """An empty bucket as the default storage."""
    monkeypatch.setenv("AWS_ACCESS_KEY_ID", "stand-in")
    monkeypatch.setenv("AWS_SECRET_ACCESS_KEY", "stand-in")
    s3 = boto3.resource("s3", endpoint_url=store, region_name="us-east-1")
    made = s3.Bucket("pictures")
    made.create()
    options = {
        **settings.S3,
        "bucket_name": "pictures",
        "endpoint_url": store,
        "region_name": "us-east-1",
        "location": "tern",
    }
    backend = {"BACKEND": "storages.backends.s3.S3Storage", "OPTIONS": options}
    settings.STORAGES = {**settings.STORAGES, "default": backend}
    yield made
    made.objects.all().delete()
    made.delete()


def names(bucket):
    return {o.key for o in bucket.objects.all()}


def test_a_picture_is_brought_exported_and_downloaded(bucket, designer, site, placement, original):
    assert any(n.startswith("tern/originals/") for n in names(bucket))
    assert designer.get(original["thumb"].removeprefix("/api")).status_code == 200
    started = designer.post(f"/placements/{placement['id']}/deliveries").json()
    work.run(started["id"])
    assert Delivery.objects.get().state == "done"
    answer = designer.get(f"/deliveries/{started['id']}/zip")
    archive = zipfile.ZipFile(io.BytesIO(b"".join(answer.streaming_content)))
    manifest = json.loads(archive.read("manifest.json"))
    assert {f["name"] for f in manifest["files"]} <= set(archive.namelist())
    for made in Rendition.objects.all():
        assert is_intact(made.stored, made.size_bytes, made.sha256)
    page = designer.get(f"/deliveries/{started['id']}/tree/t/page.html")
    assert b"<picture" in page.content


def test_what_is_broken_in_the_bucket_is_made_again(bucket, designer, placement):
    started = designer.post(f"/placements/{placement['id']}/deliveries").json()
    work.run(started["id"])
    made = Rendition.objects.first()
    bucket.Object(f"tern/{made.stored}").put(Body=b"half a file")
    assert not is_intact(made.stored, made.size_bytes, made.sha256)
    again = designer.post(f"/placements/{placement['id']}/deliveries").json()
    work.run(again["id"])
    made.refresh_from_db()
    assert is_intact(made.stored, made.size_bytes, made.sha256)


def test_a_file_is_kept_under_its_very_name_and_read_from_a_copy(bucket, tmp_path):
    path = tmp_path / "a.bin"
    path.write_bytes(b"one")
    keep(path, "originals/aa/a.bin")
    keep(path, "originals/aa/a.bin")
    path.write_bytes(b"two")
    keep(path, "originals/aa/a.bin")
    assert names(bucket) == {"tern/originals/aa/a.bin"}
    with local("originals/aa/a.bin") as copy:
        assert copy.read_bytes() == b"two" and sha256_of(copy) == sha256_of(path)
    assert not copy.exists()


def test_what_nothing_refers_to_is_swept_from_the_bucket(bucket, designer, site, settings):
    settings.KEEP_UNUSED_HOURS = -1
    original = designer.bring(site["id"], picture()).json()
    before = names(bucket)
    sweeping.sweep()
    assert names(bucket) == before
    designer.delete(f"/originals/{original['id']}")
    sweeping.sweep()
    assert names(bucket) == set()


def test_where_the_store_is_away_somebody_is_told(bucket, store, designer, original, settings):
    options = {**settings.STORAGES["default"]["OPTIONS"], "endpoint_url": "http://127.0.0.1:9"}
    backend = {"BACKEND": "storages.backends.s3.S3Storage", "OPTIONS": options}
    settings.STORAGES = {**settings.STORAGES, "default": backend}
    assert default_storage.bucket_name == "pictures"
    answer = designer.get(original["preview"].removeprefix("/api"))
    assert answer.status_code == 503 and "cannot be reached" in answer.json()["detail"]
