"""The commands of docs/operate.md that back up and restore an installation, run as they stand
there."""

import json
import os
import re
import subprocess
import sys
from pathlib import Path

import pytest
from conftest import one_part, picture
from deliveries import work
from django.contrib.auth import get_user_model
from django.db import connection

pytestmark = pytest.mark.slow

ROOT = Path(__file__).parents[3]
TOLD = re.compile(
    r"<!-- tried by server/tests/common/test_backup.py[^\n]*\n```sh\n(.*?)```", re.DOTALL
)
BACK_UP, RESTORE = TOLD.findall((ROOT / "docs/operate.md").read_text())

#: Asked of an installation as its designer, in a process of its own.
ASK = """
import hashlib, json, sys
import django
django.setup()
from django.contrib.auth import get_user_model
from django.test import Client

client = Client()
client.force_login(get_user_model().objects.get(username="ada"),
                   backend="django.contrib.auth.backends.ModelBackend")
out = {}
for path in json.loads(sys.argv[1]):
    answer = client.get("/api" + path)
    body = b"".join(answer.streaming_content) if answer.streaming else answer.content
    out[path] = [answer.status_code, hashlib.sha256(body).hexdigest()]
print(json.dumps(out))
"""


@pytest.fixture
def installation(settings, tmp_path):
    """What the environment says where this test's own database and files are."""
    base = connection.settings_dict
    where = {
        "SKYPANE_DB_HOST": base["HOST"],
        "SKYPANE_DB_PORT": str(base["PORT"]),
        "SKYPANE_DB_USER": base["USER"],
        "SKYPANE_DB_PASSWORD": base["PASSWORD"],
        "SKYPANE_DB_NAME": base["NAME"],
        "SKYPANE_VAR": str(settings.MEDIA_ROOT.parent),
        "SKYPANE_HOSTS": "testserver",
        "BACKUP": str(tmp_path / "backup"),
    }
    (tmp_path / "backup").mkdir()
    return {**os.environ, **where, "PATH": f"{Path(sys.executable).parent}:{os.environ['PATH']}"}


@pytest.fixture
def emptied(installation, tmp_path):
    """Another database, not there yet, and another folder."""
    name = f"{connection.settings_dict['NAME']}_restored"
    with connection.cursor() as cursor:
        cursor.execute(f"drop database if exists `{name}`")
    yield {**installation, "SKYPANE_DB_NAME": name, "SKYPANE_VAR": str(tmp_path / "elsewhere")}
    with connection.cursor() as cursor:
        cursor.execute(f"drop database if exists `{name}`")


def run(script, env):
    done = subprocess.run(
        ["bash", "-euo", "pipefail", "-c", script],
        env=env,
        cwd=ROOT / "server",
        capture_output=True,
        text=True,
        check=False,
    )
    assert done.returncode == 0, done.stderr


def answers(paths, env):
    told = subprocess.check_output(
        [sys.executable, "-c", ASK, json.dumps(paths)], env=env, cwd=ROOT / "server"
    )
    return json.loads(told)


@pytest.mark.django_db(transaction=True)
def test_what_was_backed_up_answers_the_same_elsewhere(designer, site, page, installation, emptied):
    original = designer.bring(site["id"], picture(), "Küste – 岬.jpg").json()
    treatments = {"D": {"original": original["id"], "height": {"kind": "ratio", "w": 2, "h": 1}}}
    placement = designer.post(
        f"/pages/{page['id']}/placements", {"placement": one_part("岬", treatments)}
    ).json()
    delivery = designer.post(f"/placements/{placement['id']}/deliveries").json()
    work.run(delivery["id"])
    paths = [
        "/sites",
        f"/placements/{placement['id']}",
        original["thumb"].removeprefix("/api"),
        f"/sites/{site['id']}/deliveries",
        f"/deliveries/{delivery['id']}/zip",
    ]
    before = answers(paths, installation)
    assert {status for status, _ in before.values()} == {200}

    run(BACK_UP, installation)
    get_user_model().objects.all().delete()  # nothing is read from where it came
    run(RESTORE, emptied)
    assert answers(paths, emptied) == before
