"""Two people at one thing: a write on an old version is refused, and only what is changed is written."""

from concurrent.futures import ThreadPoolExecutor

import pytest
from django.db import connections

from returns.models import Handback
from review.models import Remark


@pytest.fixture
def submission(checked):
    return checked.submissions.get(name="Nadia Ferrow")


def test_a_remark_that_another_has_changed_is_shown_not_overwritten(teacher, assistant, submission):
    remark = teacher.good("GET", f"submissions/{submission.pk}")["remarks"][0]
    path = f"remarks/{remark['id']}"
    assistant.good("PATCH", path, {"words": "Rolf's words", "version": remark["version"]})
    status, answer = teacher("PATCH", path, {"state": "aside", "version": remark["version"]})
    assert status == 409
    assert answer["detail"].startswith("Rolf Valder changed this remark")
    assert answer["current"] == {"state": "open", "hint": "", "words": "Rolf's words"}
    kept = teacher.good("PATCH", path, {"state": "aside"})
    assert (kept["state"], kept["words"]) == ("aside", "Rolf's words")


def test_nobody_has_to_choose_between_two_changes_of_their_own(teacher, submission):
    remark = teacher.good("GET", f"submissions/{submission.pk}")["remarks"][0]
    for state in ("accepted", "aside", "open"):
        kept = teacher.good("PATCH", f"remarks/{remark['id']}", {"state": state, "version": remark["version"]})
    assert (kept["state"], kept["version"]) == ("open", 3)


def test_a_mark_a_return_and_a_set_up_carry_a_version_too(teacher, assistant, people, checked, submission):
    path = f"submissions/{submission.pk}/marks/repetition"
    assistant.good("PUT", path, {"level": 2, "reason": "Seen in class.", "version": 0})
    status, answer = teacher("PUT", path, {"level": 1, "reason": "x", "version": 0})
    assert (status, answer["current"]) == (409, {"level": 2, "reason": "Seen in class."})

    path = f"submissions/{submission.pk}/return"
    assistant.good("PATCH", path, {"words": "Well done.", "version": 0})
    status, answer = teacher("PATCH", path, {"held": True, "version": 0})
    assert (status, answer["current"]["words"]) == (409, "Well done.")

    checked.course.memberships.filter(user=people["rolf"]).update(part="teacher")
    path = f"assignments/{checked.pk}"
    before = teacher.good("GET", path)
    before["spec"]["limits"]["nesting"] = 5
    assistant.good("PUT", path, {"spec": before["spec"], "version": before["version"]})
    before["spec"]["limits"]["nesting"] = 6
    status, answer = teacher("PUT", path, {"spec": before["spec"], "version": before["version"]})
    assert (status, answer["current"]["spec"]["limits"]["nesting"]) == (409, 5)


def in_threads(*calls):
    """What the calls answer when they are made at once."""

    def call(one):
        try:
            return one()
        finally:
            connections.close_all()

    with ThreadPoolExecutor(len(calls)) as pool:
        return list(pool.map(call, calls))


def test_of_two_edits_at_once_of_different_fields_none_is_lost(teacher, assistant, submission):
    remark = submission.latest().remarks.first()
    for turn in range(8):
        in_threads(
            lambda: teacher("PATCH", f"remarks/{remark.pk}", {"words": f"words {turn}"}),  # noqa: B023
            lambda: assistant("PATCH", f"remarks/{remark.pk}", {"hint": "answer" if turn % 2 else "where"}),  # noqa: B023
        )
        kept = Remark.objects.get(pk=remark.pk)
        assert (kept.words, kept.hint) == (f"words {turn}", "answer" if turn % 2 else "where")


def test_a_return_that_is_changed_during_the_first_publish_keeps_its_page(teacher, assistant, checked, submission):
    in_threads(
        lambda: teacher.good("POST", f"assignments/{checked.pk}/return"),
        lambda: assistant.good("PATCH", f"submissions/{submission.pk}/return", {"words": "Well done."}),
    )
    handback = Handback.objects.get(submission=submission)
    assert handback.words == "Well done."
    assert handback.page is not None
    assert handback.published is not None


def test_right_after_publishing_no_page_says_that_something_changed(teacher, checked, submission):
    teacher.good("POST", f"assignments/{checked.pk}/return")
    lines = teacher.good("GET", f"assignments/{checked.pk}/return")["students"]
    assert [line["stale"] for line in lines] == [False] * 4
    remark = submission.latest().remarks.first()
    teacher.good("PATCH", f"remarks/{remark.pk}", {"words": "Look here."})
    lines = teacher.good("GET", f"assignments/{checked.pk}/return")["students"]
    assert [line["name"] for line in lines if line["stale"]] == ["Nadia Ferrow"]


def test_the_list_of_returns_tells_what_the_pages_hold(teacher, checked, submission):
    remarks = list(submission.latest().remarks.all())
    for remark in remarks[:2]:
        teacher.good("PATCH", f"remarks/{remark.pk}", {"state": "accepted"})
    from returns.services import handback_of, page_for, plan_of

    lines = {line["name"]: line for line in teacher.good("GET", f"assignments/{checked.pk}/return")["students"]}
    for one in checked.submissions.all():
        page = page_for(one, plan_of(checked), handback_of(one))
        assert (len(page.remarks), page.total) == (lines[one.name]["remarks"], lines[one.name]["total"])


def test_looking_writes_nothing(teacher, checked):
    before = Handback.objects.count()
    teacher.good("GET", f"assignments/{checked.pk}/return")
    assert Handback.objects.count() == before == 0
    assert not hasattr(checked, "return_plan")


def test_deleting_a_remark_of_ones_own_is_in_the_record(teacher, checked, submission):
    made = teacher.good("POST", f"submissions/{submission.pk}/remarks", {"words": "A fine heading."})
    teacher.good("DELETE", f"remarks/{made['id']}")
    event = checked.course.events.first()
    assert (event.verb, event.data["words"]) == ("remark deleted", "A fine heading.")


def test_the_gradebook_asks_for_the_right_that_the_pack_asks_for(assistant, checked):
    for path in ("pack", "gradebook"):
        assert assistant("GET", f"assignments/{checked.pk}/{path}")[0] == 403


def test_no_view_asks_more_of_the_database_for_a_larger_class(
    teacher, people, checked, work, django_assert_max_num_queries
):
    from api_client import demo_zip, hand_in
    from django.db import connection
    from django.test.utils import CaptureQueriesContext

    paths = [f"assignments/{checked.pk}/{view}" for view in ("class", "return", "batches", "again")] + ["courses"]

    def counts():
        found = []
        for path in paths:
            with CaptureQueriesContext(connection) as queries:
                teacher.good("GET", path)
            found.append(len(queries))
        return found

    counts()
    small = counts()
    hand_in(checked, people["ines"], demo_zip("B", "C", "D", "E"))
    work()
    large = counts()
    large[2] -= small[2] - 4 if large[2] > small[2] else 0
    assert all(b <= a + 4 for a, b in zip(small, large, strict=True)), dict(
        zip(paths, zip(small, large, strict=True), strict=True)
    )
