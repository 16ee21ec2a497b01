"""Every call as every kind of person, by the table in docs/rights.md."""

import json
import re
from pathlib import Path

import pytest
from api_client import PASSWORD, Api, numbers
from django.contrib.auth import get_user_model
from django.test import Client

from courses.models import Membership

TABLE = Path(__file__).resolve().parents[2] / "docs" / "rights.md"
KINDS = ("owner", "teacher", "assistant")
ANYONE = {"session"}


def table():
    """(method, path, kind) → whether the call is carried out."""
    rights = {}
    for line in TABLE.read_text().splitlines():
        cells = [cell.strip() for cell in line.strip("|").split("|")]
        for method, path in re.findall(r"`([A-Z]+) ([^`]+)`", cells[0]) if line.startswith("| `") else ():
            for kind, answer in zip(KINDS, cells[1:], strict=True):
                assert answer in {"yes", "no"}
                rights[method, path, kind] = answer == "yes"
    return rights


RIGHTS = table()
CALLS = sorted({(method, path) for method, path, _ in RIGHTS})


@pytest.fixture
def by_kind(checked, people):
    teacher = get_user_model().objects.create_user("tessa", password=PASSWORD)
    other = get_user_model().objects.create_user("theo", password=PASSWORD)
    for user in (teacher, other):
        Membership.objects.create(course=checked.course, user=user, part="teacher")
    return {"owner": people["ines"], "teacher": teacher, "assistant": people["rolf"]}


def test_the_table_has_every_call_and_no_other(db):
    schema = json.loads(Client().get("/api/schema?format=json").content)
    there = {(m.upper(), p.removeprefix("/api/")) for p, methods in schema["paths"].items() for m in methods}
    assert set(CALLS) == there - {("GET", "schema")}


@pytest.mark.parametrize(("method", "path"), CALLS, ids=[f"{m} {p}" for m, p in CALLS])
def test_a_call_is_carried_out_for_those_whom_the_table_names(method, path, checked, by_kind, stranger):
    attempt = checked.submissions.first().latest()
    found = {**numbers(checked), "criterion": "repetition", "user": "theo"}
    body = json.dumps({"user": "ines", "password": "x", "part": "owner"})
    for kind in reversed(KINDS):
        own = attempt.remarks.create(words="A remark of one's own.", state="accepted")
        address = path.format(**(found | {"remark": own.pk} if method == "DELETE" else found))
        client = Api(by_kind[kind]).client
        answer = client.generic(method, f"/api/{address}", body, content_type="application/json")
        allowed = RIGHTS[method, path, kind]
        # What is carried out may still find nothing in an empty body to do; it is never refused to the person.
        refused = answer.status_code == 403
        assert refused != allowed or (path.endswith("members") and kind == "teacher"), (kind, answer.content)
        assert answer.status_code != 404, (kind, answer.content)
        if refused:
            assert isinstance(answer.json()["detail"], str)
    if path.partition("/")[0] in ANYONE:
        return
    assert Api()(method, address, {})[0] == 401
    if "{" in path:
        assert stranger(method, address, {})[0] == 404


def test_only_an_owner_makes_an_owner_and_the_last_one_stays(checked, by_kind):
    owner, teacher = Api(by_kind["owner"]), Api(by_kind["teacher"])
    members = f"courses/{checked.course_id}/members"
    assert teacher("POST", members, {"user": "theo", "part": "owner"})[0] == 403
    assert teacher("POST", members, {"user": "ines", "part": "assistant"})[0] == 403
    assert owner("POST", members, {"user": "ines", "part": "teacher"})[1]["detail"].startswith(
        "A course needs an owner"
    )
    assert owner("DELETE", f"{members}/ines")[0] == 400
    owner.good("POST", members, {"user": "theo", "part": "owner"})
    stepped = owner.good("POST", members, {"user": "ines", "part": "teacher"})
    assert {m["user"]: m["part"] for m in stepped}["ines"] == "teacher"
    teacher.good("DELETE", f"{members}/rolf")
    assert teacher("DELETE", f"{members}/theo")[0] == 403
    teacher.good("DELETE", f"{members}/tessa")
    assert teacher("GET", members)[0] == 404


def test_an_assistant_leaves_what_a_teacher_set_and_sees_no_private_link(checked, by_kind):
    owner, assistant = Api(by_kind["owner"]), Api(by_kind["assistant"])
    submission = checked.submissions.get(name="Nadia Ferrow")
    path = f"submissions/{submission.pk}/marks/repetition"
    assistant.good("PUT", path, {"level": 2, "reason": "Seen."})
    owner.good("PUT", path, {"level": 1, "reason": "Seen in class."})
    status, data = assistant("PUT", path, {"level": 3, "reason": "No."})
    assert (status, "only a teacher" in data["detail"]) == (403, True)
    owner.good("POST", f"assignments/{checked.pk}/return")
    returns = f"assignments/{checked.pk}/return"
    assert all(line["link"] for line in owner.good("GET", returns)["students"])
    assert not any(line["link"] for line in assistant.good("GET", returns)["students"])
