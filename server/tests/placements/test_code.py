"""The code of a draft in each kind of output, and where it looks for files."""

import json
from urllib.parse import unquote

import pytest
from conftest import one_part
from django.template import Context, Template

OUTPUTS = {"html": 2, "jsx": 2, "django": 2, "json": 1}


def code(designer, site, placement, output, **more):
    body = {"placement": placement["placement"], "placement_id": placement["id"], **more}
    return designer.post(f"/sites/{site['id']}/readings/code", {**body, "output": output})


@pytest.mark.parametrize(("output", "count"), OUTPUTS.items())
def test_a_draft_is_written_in_every_output(designer, site, placement, output, count):
    answer = code(designer, site, placement, output)
    assert answer.status_code == 200
    files = answer.json()
    assert len(files) == count
    for f in files:
        assert f["text"] == "".join(f"{line['text']}\n" for line in f["lines"])


def test_what_django_renders_of_the_fragment_is_the_html(designer, site, placement, settings):
    fragment, html = (
        code(designer, site, placement, o).json()[0]["text"] for o in ("django", "html")
    )
    rendered = Template(fragment).render(Context())
    # addresses of static files are quoted
    assert unquote(rendered).replace(settings.STATIC_URL, "").split() == html.split()


def test_files_are_looked_for_where_the_site_says(designer, site, placement):
    plan = {
        **site["plan"],
        "hand_over": {"outputs": ["jsx"], "prefix": "/pictures", "hashed": True},
    }
    body = {"name": site["name"], "revision": site["revision"], "plan": plan}
    answer = designer.put(f"/sites/{site['id']}", body)
    assert answer.json()["plan"]["hand_over"]["prefix"] == "/pictures/"
    for output in OUTPUTS:
        text = code(designer, site, placement, output).json()[0]["text"]
        assert "/pictures/" in text and "static '" not in text
    reading = designer.post(
        f"/sites/{site['id']}/readings", {"placement": placement["placement"]}
    ).json()
    assert "/pictures/" in reading["code"]["markup_text"]


def test_without_a_picture_there_is_nothing_to_write(designer, site, placement):
    waits = {"id": placement["id"], "placement": one_part("Wait", {})}
    assert code(designer, site, waits, "jsx").json() == []


def test_what_is_no_output_is_refused_and_so_is_a_stranger(designer, stranger, site, placement):
    answer = code(designer, site, placement, "pascal")
    assert answer.status_code == 422 and "html" in json.dumps(answer.json())
    assert code(stranger, site, placement, "jsx").status_code == 404


def test_a_prefix_that_is_no_address_is_refused_at_its_field(designer, site):
    plan = {**site["plan"], "hand_over": {"prefix": "javascript:alert/"}}
    body = {"name": site["name"], "revision": site["revision"], "plan": plan}
    answer = designer.put(f"/sites/{site['id']}", body)
    assert answer.status_code == 422
    assert "https" in json.dumps(answer.json())
