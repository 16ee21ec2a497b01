"""What the reviewer decides stays, whatever is checked again."""

import pytest

from checking.models import Check


@pytest.fixture
def desk(checked):
    return f"submissions/{checked.submissions.get(name='Nadia Ferrow').pk}"


def marks(api, desk):
    return {m["criterion"]: m for m in api.good("GET", desk)["marks"]}


def test_an_override_needs_a_reason_and_can_be_taken_back(teacher, desk):
    path = f"{desk}/marks/repetition"
    measured = marks(teacher, desk)["repetition"]
    assert teacher("PUT", path, {"level": 1, "reason": " "})[1]["detail"].startswith("An override needs a reason")
    assert teacher("PUT", path, {"level": 9, "reason": "x"})[1]["detail"].startswith("The criterion has levels 1 to")
    assert teacher("PUT", f"{desk}/marks/nothing", {"level": 1, "reason": "x"})[0] == 400
    mark = teacher.good("PUT", path, {"level": 1, "reason": "The copies teach the pattern."})
    assert (mark["set_level"], mark["set_points"], mark["set_by"]) == (1, 8.0, "Ines Valder")
    assert mark["points"] == measured["points"]
    back = teacher.good("PUT", path, {"level": None})
    assert (back["set_level"], back["reason"]) == (None, "")


def test_remarks_are_accepted_reworded_and_set_aside(teacher, desk):
    remark = teacher.good("GET", desk)["remarks"][0]
    path = f"remarks/{remark['id']}"
    changed = teacher.good("PATCH", path, {"state": "accepted", "words": "Look here.", "hint": "answer"})
    assert (changed["state"], changed["words"], changed["hint"]) == ("accepted", "Look here.", "answer")
    assert teacher("PATCH", path, {"state": "gone"})[0] == 400
    assert teacher("DELETE", path)[1]["detail"].startswith("A remark from a finding is set aside")


def test_own_remarks_come_and_go(teacher, desk):
    made = teacher.good("POST", f"{desk}/remarks", {"words": "A fine heading.", "path": "x.py", "line": 3})
    assert made["state"] == "accepted"
    assert teacher("POST", f"{desk}/remarks", {"words": ""})[0] == 400
    teacher.good("DELETE", f"remarks/{made['id']}")
    assert made["id"] not in [r["id"] for r in teacher.good("GET", desk)["remarks"]]


def change_limits(api, assignment, **limits):
    spec = api.good("GET", f"assignments/{assignment.pk}")["spec"]
    spec["limits"].update(limits)
    api.good("PUT", f"assignments/{assignment.pk}", {"spec": spec})


def test_checking_again_shows_first_and_counts_only_when_taken_over(teacher, checked, desk, work):
    again = f"assignments/{checked.pk}/again"
    assert teacher.good("GET", again)["outdated"] == 0
    teacher.good("PUT", f"{desk}/marks/parameters", {"level": 1, "reason": "Seen in class."})
    remark = next(r for r in teacher.good("GET", desk)["remarks"])
    teacher.good("PATCH", f"remarks/{remark['id']}", {"words": "Mine."})
    change_limits(teacher, checked, procedure_statements=5)
    assert teacher.good("GET", again)["outdated"] == 4
    teacher.good("POST", again)
    assert teacher("PUT", again)[1]["detail"].startswith("Some programs are still being checked")
    before = marks(teacher, desk)
    work()
    state = teacher.good("GET", again)
    assert (state["total"], state["done"], state["failed"]) == (4, 4, 0)
    change = next(c for c in state["changes"] if c["name"] == "Nadia Ferrow")
    assert change["total_after"] < change["total_before"]
    assert marks(teacher, desk) == before
    teacher.good("PUT", again)
    after = marks(teacher, desk)
    assert after["parameters"]["set_level"] == 1
    assert after["size"]["points"] < before["size"]["points"]
    assert "Mine." in [r["words"] for r in teacher.good("GET", desk)["remarks"]]
    assert teacher.good("GET", again)["outdated"] == 0
    total = sum(m["points"] if m["set_points"] is None else m["set_points"] for m in after.values())
    assert total == change["total_after"]


def test_checking_again_can_be_left(teacher, checked, desk, work):
    before = teacher.good("GET", desk)
    change_limits(teacher, checked, procedure_statements=5)
    teacher.good("POST", f"assignments/{checked.pk}/again")
    teacher.good("DELETE", f"assignments/{checked.pk}/again")
    work()
    assert not Check.objects.filter(trial=True).exists()
    assert teacher.good("GET", desk)["marks"] == before["marks"]


def test_every_decision_is_in_the_record(teacher, checked, desk):
    teacher.good("PUT", f"{desk}/reviewed", {"reviewed": True})
    verbs = list(checked.course.events.values_list("verb", flat=True))
    assert verbs[0] == "reviewed"
    assert {"course made", "class list read", "assignment made", "batch received"} <= set(verbs)


def test_the_class_shows_every_program_as_a_silhouette(teacher, checked):
    for member in teacher.good("GET", f"assignments/{checked.pk}/class")["members"]:
        rows = member["silhouette"]
        assert len(rows["indents"]) == len(rows["lengths"]) == len(rows["groups"]) > 10
        assert all(0 <= row < len(rows["indents"]) for row in rows["heads"])
