"""The API keeps its own schema, and no input makes it fall over."""

import pytest
import schemathesis
from config.wsgi import application
from conftest import Api
from hypothesis import HealthCheck, settings
from schemathesis.checks import not_a_server_error

pytestmark = pytest.mark.django_db


def schema():
    return schemathesis.openapi.from_wsgi("/api/schema?format=json", application)


@pytest.fixture
def loaded():
    return schema()


loaded_schema = schemathesis.pytest.from_fixture("loaded")


@loaded_schema.parametrize()
@settings(max_examples=6, deadline=None, suppress_health_check=list(HealthCheck), database=None)
def test_no_call_is_a_server_error(case, checked, teacher):
    cookies = {name: morsel.value for name, morsel in teacher.client.cookies.items()}
    response = case.call(cookies=cookies)
    not_a_server_error(None, response, case)


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
