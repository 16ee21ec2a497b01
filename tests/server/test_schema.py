"""The API keeps its own schema, and no input makes it fall over."""

import os

import pytest
import schemathesis
from api_client import Api, numbers
from hypothesis import HealthCheck, given, settings

from config.wsgi import application

EXAMPLES = int(os.environ.get("PARTITOR_FUZZ_EXAMPLES", "6"))
"""Odd values for each call; `./run fuzz api` tries more."""
pytestmark = pytest.mark.django_db(transaction=True)


def test_no_call_is_a_server_error(checked, teacher):
    cookies = {name: morsel.value for name, morsel in teacher.client.cookies.items()}
    schema = schemathesis.openapi.from_wsgi("/api/schema?format=json", application)
    calls = 0
    real = numbers(checked)
    for found in schema.get_all_operations():
        operation = found.ok()
        if (operation.method, operation.path) == ("delete", "/api/session"):
            continue

        @given(case=operation.as_strategy())
        @settings(max_examples=EXAMPLES, deadline=None, suppress_health_check=list(HealthCheck), database=None)
        def call(case):
            nonlocal calls
            calls += 1
            case.path_parameters = {k: real.get(k, v) for k, v in (case.path_parameters or {}).items()}
            response = case.call(cookies=cookies)
            assert response.status_code < 500, (case.method, case.formatted_path, case.body, response.text)
            if response.status_code >= 400:
                assert isinstance(response.json()["detail"], str)

        call()
    assert calls > 100


def test_every_error_is_one_sentence(teacher, course):
    for method, path, body in [
        ("POST", "courses", {}),
        ("POST", "courses", {"title": "x" * 500}),
        ("PUT", "assignments/999999", {}),
        ("POST", f"courses/{course.pk}/assignments", {"text": "not toml ["}),
    ]:
        status, data = teacher(method, path, body)
        assert 400 <= status < 500
        assert isinstance(data["detail"], str)
    assert Api()("GET", "courses")[0] == 401
