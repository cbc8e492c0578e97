"""What is printed as a Django template, rendered by Django, is what is printed as HTML."""

import json
from pathlib import Path

import pytest
from django.template import Context, Template
from django.templatetags.static import static
from skypane.handover import Asked, blueprint
from skypane.markup.django import DjangoTemplate
from skypane.markup.elements import element
from skypane.markup.html import Html, in_folder
from skypane.markup.lines import text_of
from skypane.markup.picture import placement_elements
from skypane.model.stored import lifted

DELIVERED = Path(__file__).parents[3] / "core/tests/delivered"
FOLDER = in_folder("images/")


def at_static(rendition):
    return static(FOLDER(rendition))


@pytest.mark.parametrize("name", ["keeper-s-cottage-by-width", "whole-site"])
def test_a_rendered_template_is_the_html(name):
    told = json.loads((DELIVERED / name / "asked.json").read_text())
    for plan, files in blueprint(Asked.model_validate(lifted("asked", told))).planned:
        elements = placement_elements(plan, files)
        text = text_of(DjangoTemplate(FOLDER, None).lines(elements))
        rendered = Template(text).render(Context())
        assert rendered.removeprefix("\n") == text_of(Html(at_static, None).lines(elements))


def test_what_a_designer_has_typed_is_never_read_as_a_template():
    typed = "{{ settings.SECRET_KEY }} {% include 'a' %} {# gone #} }} %} 100 %"
    elements = [element("p", {"title": typed}, [typed])]
    text = text_of(DjangoTemplate(FOLDER).lines(elements))
    assert Template(text).render(Context()).strip() == text_of(Html(FOLDER).lines(elements)).strip()
