"""Every operation of the OpenAPI document, asked with what its bounds allow and with what they do
not."""

import json
from urllib.parse import urlencode

import pytest
import schemathesis
from config.api import api
from hypothesis import HealthCheck, settings

schema = schemathesis.openapi.from_dict(api.get_openapi_schema())


@pytest.mark.slow
@pytest.mark.django_db
@schema.include(method=["GET", "POST", "PUT", "PATCH"]).parametrize()
@settings(max_examples=10, deadline=None, suppress_health_check=list(HealthCheck))
def test_no_request_makes_the_server_fail_and_every_answer_is_declared(
    case, designer, site, placement, monkeypatch
):
    from deliveries.tasks import run_delivery

    monkeypatch.setattr(run_delivery, "delay", lambda *_: None)
    known = {"site_id": site["id"], "placement_id": placement["id"]}
    path = case.path
    for name, value in (case.path_parameters or {}).items():
        path = path.replace(f"{{{name}}}", str(known.get(name, value)))
    body = json.dumps(case.body) if isinstance(case.body, dict | list) else ""
    query = f"?{urlencode(case.query, doseq=True)}" if case.query else ""
    answer = designer.client.generic(
        case.method, path + query, body, content_type="application/json"
    )
    assert answer.status_code < 500
    if case.operation.definition.raw["responses"].get(str(answer.status_code)) is None:
        # what any endpoint may answer to a request that does not fit
        assert answer.status_code in (
            400,
            401,
            404,
            405,
            422,
        )
    if answer.status_code >= 400 and answer.get("Content-Type", "").startswith("application"):
        assert answer["Content-Type"] == "application/problem+json" and answer.json()["detail"]
