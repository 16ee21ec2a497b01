"""Courses, members, class lists and assignments."""

import pytest
from api_client import DEMO

pytestmark = pytest.mark.django_db


def roster(api, course, text):
    return api.upload(f"courses/{course.pk}/roster", ("class.csv", text.encode()), method="put")


def test_a_new_course_belongs_to_its_maker(teacher, people):
    made = teacher.good("POST", "courses", {"title": "Robots", "term": "Spring"})
    assert made["part"] == "owner"
    assert [m["user"] for m in teacher.good("GET", f"courses/{made['id']}/members")] == ["ines"]


def test_members_are_added_by_login_and_the_owner_stays(teacher, course):
    path = f"courses/{course.pk}/members"
    members = teacher.good("POST", path, {"user": "stranger", "part": "teacher"})
    assert {m["user"]: m["part"] for m in members} == {"ines": "owner", "rolf": "assistant", "stranger": "teacher"}
    assert teacher("POST", path, {"user": "nobody", "part": "teacher"})[1]["detail"] == "No one here logs in as nobody."
    refused = teacher("POST", path, {"user": "ines", "part": "assistant"})[1]["detail"]
    assert refused == "A course needs an owner. Make someone else one first."


def test_the_class_list_takes_the_columns_that_course_systems_write(teacher, course):
    status, rows = roster(teacher, course, "Last name;First name;ID\nHolm;Ida;SF101\nØdegård;Åse;SF9\n")
    assert (status, [r["name"] for r in rows]) == (200, ["Ida Holm", "Åse Ødegård"])


def test_a_class_list_that_cannot_be_read_says_where(teacher, course):
    for text, sentence in [
        ("", "The class list is empty."),
        ("mark,grade\n1,2\n", 'line 1: no column is called "name"'),
        ("name\nIda\nIda\n", "line 3: Ida is there twice."),
        ("name,number\n,7\n", "line 2: there is no name."),
        ("name\n", "has a heading and no students"),
    ]:
        status, data = roster(teacher, course, text)
        assert status == 400
        assert sentence in data["detail"] or "empty" in data["detail"]
    assert course.roster.count() == 26


def test_students_with_work_stay_on_the_list(teacher, checked):
    status, rows = roster(teacher, checked.course, "name\nIda Holm\n")
    assert status == 200
    assert {"Nadia Ferrow", "Salma Brook", "Ida Holm"} <= {r["name"] for r in rows}
    assert "Tomas Reed" not in {r["name"] for r in rows}


def test_an_assignment_by_file_comes_back_as_the_same_assignment(teacher, course):
    text = (DEMO / "assignment.toml").read_text()
    made = teacher.good("POST", f"courses/{course.pk}/assignments", {"text": text, "starter": {"gates.py": "x = 1\n"}})
    assert made["spec"]["functions"][0]["name"] == "print_heading"
    assert made["starter"] == {"gates.py": "x = 1\n"}
    file = teacher.client.get(f"/api/assignments/{made['id']}/file").content.decode()
    again = teacher.good("POST", f"courses/{course.pk}/assignments", {"text": file})
    assert again["spec"] == made["spec"]


def test_an_assignment_by_form_and_its_next_version(teacher, course):
    spec = {**teacher.good("GET", "default-assignment")["spec"], "title": "Tide log", "entry": "main"}
    made = teacher.good("POST", f"courses/{course.pk}/assignments", {"spec": spec})
    assert (made["version"], made["spec"]["entry"]) == (1, "main")
    path = f"assignments/{made['id']}"
    assert teacher.good("PUT", path, {"spec": spec})["version"] == 1
    spec["limits"]["procedure_statements"] = 12
    changed = teacher.good("PUT", path, {"spec": spec})
    assert (changed["version"], changed["spec"]["limits"]["procedure_statements"]) == (2, 12)


def test_a_bad_assignment_is_refused_with_line_and_key(teacher, course):
    text = 'format = "partitor-assignment"\nversion = 1\ntitle = "T"\n\n[limits]\nnestling = 3\n'
    status, data = teacher("POST", f"courses/{course.pk}/assignments", {"text": text})
    assert status == 400
    assert "nestling" in data["detail"]
    assert "line 6" in data["detail"]
    assert teacher("POST", f"courses/{course.pk}/assignments", {})[0] == 400
    assert teacher("POST", f"courses/{course.pk}/assignments", {"spec": {"title": 7}})[0] == 400


def test_the_sample_says_what_would_be_said(teacher):
    spec = {**teacher.good("GET", "default-assignment")["spec"], "title": "T"}
    text = "".join(f'print("gate", {n})\nprint("at", {n * 10})\n' for n in range(4))
    report = teacher.good("POST", "sample", {"spec": spec, "text": text})["report"]
    assert [f["rule"] for f in report["findings"]] == ["repeated-run"]
    assert teacher.good("POST", "sample", {"spec": spec, "text": ""})["report"] is None


def test_the_course_list_counts_what_waits(teacher, checked):
    line = teacher.good("GET", "courses")[0]["assignments"][0]
    assert (line["submissions"], line["unfinished"], line["returned"]) == (4, 4, 0)
