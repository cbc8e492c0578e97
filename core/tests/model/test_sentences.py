"""What a validator finds is told in sentences that say what to do."""

import pytest
from pydantic import ValidationError
from skypane import model
from skypane.errors import _WRITTEN, sentence_of

WRONG = [
    (model.Treatment, {"background": "teal"}, "six digits"),
    (model.Naming, {"span_lead": "a b"}, "no spaces"),
    (model.Placement, {"name": "a", "kind": "Grid 2"}, "small letters"),
    (model.Placement, {"name": "a", "stem": "9a"}, "begin with a small letter"),
    (model.Placement, {"name": "a", "common": {"aa": {}}}, "letter of a span"),
]


@pytest.mark.parametrize(("noun", "value", "said"), WRONG)
def test_how_a_text_has_to_be_written_is_said(noun, value, said):
    with pytest.raises(ValidationError) as found:
        noun.model_validate(value)
    assert said in sentence_of(found.value)


def patterns(schema):
    if isinstance(schema, dict):
        if isinstance(schema.get("pattern"), str):
            yield schema["pattern"]
        for inner in schema.values():
            yield from patterns(inner)
    elif isinstance(schema, list):
        for inner in schema:
            yield from patterns(inner)


@pytest.mark.parametrize("noun", [model.Site, model.Placement, model.Original, model.Rendition])
def test_every_pattern_has_its_sentence(noun):
    assert set(patterns(noun.model_json_schema())) <= set(_WRITTEN)
