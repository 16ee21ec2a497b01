"""Logging in, and what is behind the login."""

import json

import pytest
from api_client import PASSWORD, Api, numbers
from django.test import Client

pytestmark = pytest.mark.django_db

PLACES = [
    "courses/{course}/roster",
    "courses/{course}/members",
    "assignments/{assignment}",
    "assignments/{assignment}/file",
    "assignments/{assignment}/batches",
    "assignments/{assignment}/class",
    "assignments/{assignment}/return",
    "assignments/{assignment}/again",
    "assignments/{assignment}/pack",
    "assignments/{assignment}/gradebook",
    "batches/{batch}",
    "submissions/{submission}",
]


def test_the_session_says_who_is_logged_in(people):
    api = Api()
    assert api.good("GET", "session") == {"user": "", "name": ""}
    assert api.good("POST", "session", {"user": "ines", "password": PASSWORD})["name"] == "Ines Valder"
    assert api.good("GET", "session")["user"] == "ines"
    api.good("DELETE", "session")
    assert api.good("GET", "session")["user"] == ""


def test_a_wrong_password_is_a_sentence_and_eight_lock_the_login(people):
    api = Api()
    for _ in range(7):
        status, data = api("POST", "session", {"user": "ines", "password": "guess"})
        assert (status, data["detail"]) == (400, "The name and the password do not go together.")
    api("POST", "session", {"user": "ines", "password": "guess"})
    status, data = api("POST", "session", {"user": "ines", "password": PASSWORD})
    assert status == 429
    assert "quarter of an hour" in data["detail"]


def test_changes_need_the_csrf_token(people, assignment):
    client = Client(enforce_csrf_checks=True)
    client.force_login(people["ines"])
    answer = client.post("/api/courses", {"title": "X"}, content_type="application/json")
    assert answer.status_code == 403
    client.get("/api/session")
    token = client.cookies["csrftoken"].value
    answer = client.post(
        "/api/courses", {"title": "X"}, content_type="application/json", headers={"X-CSRFToken": token}
    )
    assert answer.status_code == 201


def test_anothers_course_does_not_exist(checked, stranger, teacher):
    for place in PLACES:
        path = place.format(**numbers(checked))
        assert stranger.client.get(f"/api/{path}").status_code == 404, path
        assert Api().client.get(f"/api/{path}").status_code == 401, path
        assert teacher.client.get(f"/api/{path}").status_code == 200, path


def test_a_stranger_cannot_change_anything_either(checked, stranger):
    submission = checked.submissions.first()
    remark = submission.latest().remarks.first()
    for method, path in [
        ("PUT", f"assignments/{checked.pk}"),
        ("POST", f"assignments/{checked.pk}/return"),
        ("POST", f"assignments/{checked.pk}/again"),
        ("PUT", f"submissions/{submission.pk}/student"),
        ("PUT", f"submissions/{submission.pk}/marks/repetition"),
        ("POST", f"submissions/{submission.pk}/remarks"),
        ("PUT", f"submissions/{submission.pk}/reviewed"),
        ("PATCH", f"submissions/{submission.pk}/return"),
        ("PATCH", f"remarks/{remark.pk}"),
        ("DELETE", f"remarks/{remark.pk}"),
    ]:
        assert stranger(method, path, {})[0] == 404, path
    assert stranger.client.get(f"/preview/{submission.pk}").status_code == 404


def test_an_assistant_reviews_but_does_not_decide(checked, assistant):
    submission = checked.submissions.first()
    assert assistant.good("PUT", f"submissions/{submission.pk}/reviewed", {"reviewed": True}) == {"reviewed": True}
    for method, path in [
        ("POST", f"courses/{checked.course_id}/assignments"),
        ("PUT", f"assignments/{checked.pk}"),
        ("POST", f"assignments/{checked.pk}/return"),
        ("GET", f"assignments/{checked.pk}/pack"),
        ("POST", f"assignments/{checked.pk}/again"),
        ("POST", f"courses/{checked.course_id}/members"),
        ("DELETE", f"batches/{checked.batches.first().pk}"),
    ]:
        status, data = assistant(method, path, {})
        assert status == 403, path
        assert "teacher" in data["detail"]


def test_pages_carry_a_strict_content_security_policy(people, course):
    answer = Client().get("/")
    policy = answer["Content-Security-Policy"]
    assert "default-src 'none'" in policy
    assert "unsafe-inline" not in policy
    assert "unsafe-eval" not in policy
    assert "frame-ancestors 'none'" in policy
    assert answer["X-Frame-Options"] == "DENY"
    assert answer["X-Content-Type-Options"] == "nosniff"


def test_the_server_says_that_it_is_well():
    assert Client().get("/healthy").content == b"ok"


def test_a_stranger_does_not_lock_a_victim_out(people, settings, db):
    settings.TRUSTED_PROXIES = 1
    wrong = json.dumps({"user": "ines", "password": "guessed"})
    for number in range(12):
        # What the stranger writes into the header himself changes nothing: only our proxy's entry counts.
        forged = {"x-forwarded-for": f"10.0.0.{number}, 203.0.113.9"}
        last = Client().post("/api/session", wrong, content_type="application/json", headers=forged)
    assert last.status_code == 429
    right = json.dumps({"user": "ines", "password": PASSWORD})
    own = {"x-forwarded-for": "198.51.100.4"}
    assert Client().post("/api/session", right, content_type="application/json", headers=own).status_code == 200


def test_tries_from_one_address_are_limited_whoever_they_are_for(people, db, settings):
    answers = [
        Client().post(
            "/api/session", json.dumps({"user": f"nobody{n}", "password": "x"}), content_type="application/json"
        )
        for n in range(62)
    ]
    assert {a.status_code for a in answers[:60]} == {400}
    assert answers[-1].status_code == 429
    assert isinstance(answers[-1].json()["detail"], str)
    long = json.dumps({"user": "ines", "password": "x" * 100_000})
    settings.TRUSTED_PROXIES = 0
    assert Client().post("/api/session", long, content_type="application/json").status_code in {400, 429}
