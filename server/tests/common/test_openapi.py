"""The OpenAPI document that is committed is what the server says."""

import json
from pathlib import Path

from config.api import api

COMMITTED = Path(__file__).parents[3] / "docs/openapi.json"


def test_the_committed_document_is_true():
    assert json.loads(COMMITTED.read_text()) == json.loads(json.dumps(api.get_openapi_schema()))
