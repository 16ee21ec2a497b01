"""From an upload to checked submissions; nothing is lost on the way."""

import pytest
from api_client import DEMO, demo_zip, hand_in, queued, zipped

from checking.models import Check
from config import children
from intake import services
from intake.models import Batch
from partitor.isolation import Failed

LOOP = "for i in range(3):\n    print(i)\n"


def members(api, assignment):
    return {m["name"]: m for m in api.good("GET", f"assignments/{assignment.pk}/class")["members"]}


def test_the_whole_class_goes_in_by_the_api(teacher, assignment, work):
    status, batch = teacher.upload(f"assignments/{assignment.pk}/batches", ("class.zip", demo_zip()))
    assert (status, batch["state"], batch["total"]) == (201, "received", 0)
    work()
    batch = teacher.good("GET", f"batches/{batch['id']}")
    assert (batch["state"], batch["total"], batch["done"]) == ("done", 24, 24)
    assert [u["name"] for u in batch["unread"]] == ["Petra Nyman", "Quentin Ash"]
    assert all(line["student"] for line in batch["submissions"])
    data = teacher.good("GET", f"assignments/{assignment.pk}/class")
    assert sorted(data["missing"]) == ["Petra Nyman", "Quentin Ash"]
    assert data["patterns"]


def test_single_files_are_one_submission_each(teacher, assignment, work):
    files = [(p.name, p.read_bytes()) for p in sorted((DEMO / "submissions").glob("[AB]*.py"))]
    teacher.upload(f"assignments/{assignment.pk}/batches", *files)
    work()
    assert set(members(teacher, assignment)) == {"Anton Creek", "Bastian Quill"}


def test_a_late_second_attempt_joins_the_first(teacher, checked, people, work):
    submission = checked.submissions.get(name="Nadia Ferrow")
    teacher.good("PUT", f"submissions/{submission.pk}/reviewed", {"reviewed": True})
    hand_in(checked, people["ines"], LOOP.encode(), "Nadia Ferrow_SF105_LATE_gates.py")
    work()
    desk = teacher.good("GET", f"submissions/{submission.pk}")
    assert (desk["attempt"], [a["number"] for a in desk["attempts"]], desk["reviewed"]) == (2, [1, 2], False)
    assert teacher.good("GET", f"submissions/{submission.pk}?attempt=1")["files"][0]["text"] != LOOP


def test_unknown_work_is_kept_and_matched_by_hand(teacher, checked, people, work):
    hand_in(checked, people["ines"], zipped({"mystery_1.py": LOOP}))
    work()
    unknown = members(teacher, checked)["mystery"]
    assert not unknown["matched"]
    students = {s["name"]: s["id"] for s in teacher.good("GET", f"courses/{checked.course_id}/roster")}
    path = f"submissions/{unknown['id']}/student"
    assert teacher.good("PUT", path, {"student": students["Ida Holm"]})["name"] == "Ida Holm"
    hand_in(checked, people["ines"], zipped({"mystery_2.py": LOOP}))
    work()
    again = members(teacher, checked)["mystery"]
    kept = teacher.good("PUT", f"submissions/{again['id']}/student", {"student": students["Ida Holm"]})
    assert kept["submission"] == unknown["id"]
    assert teacher.good("GET", f"submissions/{unknown['id']}")["attempt"] == 2
    assert teacher("PUT", path, {"student": 987654})[1]["detail"].startswith("That student is not on")


@pytest.mark.parametrize(
    ("name", "data", "sentence"),
    [
        ("class.zip", b"PK\x03\x04 not really", "class.zip"),
        ("class.tar.gz", b"\x1f\x8bnope", "class.tar.gz"),
    ],
)
def test_a_broken_archive_is_refused_with_a_sentence(name, data, sentence, teacher, assignment, work):
    _, batch = teacher.upload(f"assignments/{assignment.pk}/batches", (name, data))
    work()
    batch = teacher.good("GET", f"batches/{batch['id']}")
    assert batch["state"] in {"refused", "done"}
    said = batch["problem"] + " ".join(u["why"] + u["name"] for u in batch["unread"])
    assert sentence in said
    assert "Traceback" not in said


def test_an_upload_past_the_limit_is_refused_by_name(teacher, assignment, settings):
    settings.UPLOAD_MOST_BYTES = 2_000_000
    status, data = teacher.upload(f"assignments/{assignment.pk}/batches", ("huge.zip", b"\0" * 2_100_000))
    assert status == 413
    assert data["detail"] == "huge.zip: is larger than the 2 MB that are taken. Send it in parts."
    assert not Batch.objects.exists()
    assert teacher("POST", f"assignments/{assignment.pk}/batches", {})[0] in {400, 415}


def test_escaping_paths_and_bombs_do_no_harm(teacher, assignment, work, tmp_path):
    data = zipped({"../../escape.py": LOOP, "Ida Holm_SF101_a.py": LOOP, "bomb.py": b"0" * 60_000_000})
    _, batch = teacher.upload(f"assignments/{assignment.pk}/batches", ("class.zip", data))
    work()
    batch = teacher.good("GET", f"batches/{batch['id']}")
    assert not list(tmp_path.parent.rglob("escape.py"))
    said = batch["problem"] + " ".join(u["why"] for u in batch["unread"])
    assert said
    assert batch["state"] in {"done", "refused"}


def test_the_job_is_queued_with_the_records_or_not_at_all(assignment, people, work, monkeypatch):
    batch = hand_in(assignment, people["ines"], demo_zip("Nadia", "Salma"))
    assert queued() == ["checking.tasks.receive_batch"]
    monkeypatch.setattr(services, "AT_ONCE", 1)
    stored = []

    def dies_at_the_second(*args):
        if stored:
            raise RuntimeError("the worker dies here")
        stored.append(keep(*args))

    keep = services.store_attempts
    monkeypatch.setattr(services, "store_attempts", dies_at_the_second)
    with pytest.raises(RuntimeError):
        services.divide(batch.pk)
    assert (batch.attempts.count(), Check.objects.count()) == (1, 1)
    assert queued().count("checking.tasks.run_checks") == 1
    monkeypatch.setattr(services, "store_attempts", keep)
    work()
    batch.refresh_from_db()
    assert (batch.state, batch.attempts.count()) == ("done", 2)
    assert sorted(a.submission.name for a in batch.attempts.all()) == ["Nadia Ferrow", "Salma Brook"]
    assert not list(services.Path(services.settings.UPLOADS).iterdir())


def test_a_cancelled_batch_keeps_what_is_checked_and_checks_no_more(teacher, assignment, people, work):
    batch = hand_in(assignment, people["ines"], demo_zip("Nadia", "Salma", "Femke"))
    services.divide(batch.pk)
    from checking.services import run

    run([Check.objects.order_by("pk").first().pk])
    answer = teacher.good("DELETE", f"batches/{batch.pk}")
    assert answer["state"] == "cancelled"
    work()
    states = sorted(Check.objects.values_list("state", flat=True))
    assert states == ["cancelled", "cancelled", "done"]


def test_an_error_of_ours_is_said_plainly_and_the_rest_goes_on(teacher, assignment, people, work, monkeypatch):
    real = children.checked

    def fails_for_one(submission, *args):
        if submission.name == "Salma Brook":
            raise Failed("a bug of ours")
        return real(submission, *args)

    monkeypatch.setattr(children, "checked", fails_for_one)
    batch = hand_in(assignment, people["ines"], demo_zip("Nadia", "Salma"))
    work()
    seen = members(teacher, assignment)
    assert seen["Salma Brook"]["state"] == "failed"
    assert "Partitor itself failed" in seen["Salma Brook"]["problem"]
    assert "bug of ours" not in seen["Salma Brook"]["problem"]
    assert seen["Nadia Ferrow"]["state"] == "done"
    batch.refresh_from_db()
    assert batch.state == "done"


def test_odd_characters_are_stored(teacher, assignment, people, work):
    text = "# caf\u00e9 \U0001f41f\nprint('a\x00b')\n"
    hand_in(assignment, people["ines"], zipped({"Ida Holm_SF101_a.py": text.encode()}))
    work()
    data = members(teacher, assignment)
    batch = teacher.good("GET", f"assignments/{assignment.pk}/batches")[0]
    assert "Ida Holm" in data or batch["unread"]


def test_a_long_batch_is_listed_page_by_page_and_counted_whole(teacher, assignment, people, work, monkeypatch):
    monkeypatch.setattr("intake.api.PAGE", 2)
    hand_in(assignment, people["ines"], demo_zip("Nadia", "Salma", "Femke", "Anton", "Bastian"))
    work()
    (first,) = teacher.good("GET", f"assignments/{assignment.pk}/batches")
    pages = [teacher.good("GET", f"batches/{first['id']}?start={start}") for start in (0, 2, 4, 6)]
    assert [[line["name"].split()[0] for line in page["submissions"]] for page in pages] == [
        ["Anton", "Bastian"],
        ["Femke", "Nadia"],
        ["Salma"],
        [],
    ]
    assert {(page["total"], page["done"], page["checked"], page["failed"]) for page in pages} == {(5, 5, 5, 0)}
    assert teacher("GET", f"batches/{first['id']}?start=-1")[0] == 400
