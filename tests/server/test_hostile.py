"""Hostile input: every odd value is answered with a sentence, and one bad file never hurts another."""

import csv
import io
import json
import logging
import sys
import tarfile

import pytest
from api_client import DEMO, Api, hand_in, zipped
from django.db import OperationalError
from django.test import Client

from checking import services as checking
from checking.models import Check
from config import children
from config.logs import logging_of
from intake import services
from intake.models import Batch
from partitor.isolation import CallLimits, Child
from partitor.reading.collect import read_uploads

LOOP = b"for i in range(3):\n    print(i)\n"


def shared_blocks(depth):
    """A small project whose branches both go on with the same block: without end, if each is followed."""
    blocks = {}
    for k in range(depth):
        below = [2, f"b{k + 1}"]
        blocks[f"b{k}"] = {"opcode": "control_if_else", "inputs": {"SUBSTACK": below, "SUBSTACK2": below}, "fields": {}}
    blocks[f"b{depth}"] = {"opcode": "motion_movesteps", "inputs": {}, "fields": {}}
    blocks["b0"]["topLevel"] = True
    return zipped({"project.json": json.dumps({"targets": [{"name": "Boat", "blocks": blocks}]})})


def notebook(source):
    cells = [{"cell_type": "code", "metadata": {}, "outputs": [], "execution_count": None, "source": source}]
    return json.dumps({"nbformat": 4, "nbformat_minor": 5, "metadata": {}, "cells": cells}).encode()


def odd_tar():
    out = io.BytesIO()
    with tarfile.open(fileobj=out, mode="w", format=tarfile.GNU_FORMAT, encoding="latin-1") as archive:
        for name in ("Ida Holm_SF101_caf\u00e9.py", "", "Bo\u202eReed.py"[:2] + ".py"):
            member = tarfile.TarInfo(name)
            member.size = len(LOOP)
            archive.addfile(member, io.BytesIO(LOOP))
    return out.getvalue()


ODD = {
    "a lone surrogate": ("b.ipynb", notebook("print('\ud800')\n")),
    "a notebook of odd fields": ("b.ipynb", json.dumps({"nbformat": 4, "cells": [3, None], "metadata": []}).encode()),
    "a tar archive with odd names": ("b.tar", odd_tar()),
    "a damaged LZMA member": ("b.tar.xz", b"\xfd7zXZ\x00" + bytes(range(256)) * 4),
    "a project without its blocks": (
        "b.sb3",
        zipped({"project.json": '{"targets": [{"blocks": {"a": {"inputs": 3}}}]}'}),
    ),
    "a project that shares its blocks": ("b.sb3", shared_blocks(60)),
    "JSON nested too deep": ("b.json", b'{"blocks": {"languageVersion": 0, "blocks": ' + b"[" * 100_000),
    "XML in no encoding": ("b.xml", b'<?xml version="1.0" encoding="nope"?><xml><block type="a"/></xml>'),
    "a workspace of odd fields": (
        "b.json",
        b'{"blocks": {"languageVersion": 0, "blocks": [{"next": 3, "inputs": []}]}}',
    ),
    "a file of one long line": ("b.py", b"x = 1; " * 400_000),
    "control characters in its name": ("b\x01\n.py", LOOP),
}


@pytest.mark.parametrize("what", ODD)
def test_one_bad_part_costs_no_other_part_its_check(what, assignment, people, work):
    name, data = ODD[what]
    hand_in(assignment, people["ines"], zipped({name: data, "Ida Holm_SF101_gates.py": LOOP}))
    work()
    batch = Batch.objects.get()
    assert batch.state == "done", batch.problem
    ended = Check.objects.filter(attempt__submission__name="Ida Holm").first()
    assert ended.state == "done"
    said = [u.why for u in batch.unread.all()] + [c.problem for c in Check.objects.exclude(pk=ended.pk)]
    assert all("Error" not in why and "Traceback" not in why for why in said)
    assert batch.attempts.count() + batch.unread.count() >= 2


@pytest.mark.parametrize("what", ODD)
def test_a_bad_file_alone_ends_with_a_sentence(what, assignment, people, work):
    name, data = ODD[what]
    hand_in(assignment, people["ines"], data, name)
    work()
    batch = Batch.objects.get()
    assert batch.state in {"done", "refused"}
    assert batch.problem or batch.unread.exists() or batch.attempts.exists()


def test_a_project_archive_alone_is_a_program(assignment, people, work):
    version = assignment.versions.get()
    version.text = version.text.replace('language = "python"', 'language = "auto"')
    version.save()
    hand_in(assignment, people["ines"], shared_blocks(3), "Ida Holm_SF101_boat.sb3")
    work()
    (attempt,) = Batch.objects.get().attempts.all()
    assert attempt.submission.name == "Ida Holm"
    assert attempt.files.get().language == "blocks"


def test_500_loose_files_go_in_at_once_and_namesakes_stay_apart(teacher, assignment, work):
    files = [(f"student{n}.py", LOOP) for n in range(498)] + [("main.py", LOOP), ("main.py", LOOP)]
    status, _ = teacher.upload(f"assignments/{assignment.pk}/batches", *files)
    assert status == 201
    services.divide(Batch.objects.get().pk)
    assert Batch.objects.get().attempts.count() == 500


def test_a_batch_that_cannot_be_divided_is_refused_after_the_last_try(assignment, people, work, monkeypatch):
    def fails(*args):
        raise RuntimeError("ours")

    monkeypatch.setattr(children, "read", fails)
    monkeypatch.setattr("checking.tasks.AGAIN.wait", 0)
    hand_in(assignment, people["ines"], zipped({"a.py": LOOP}))
    for _ in range(5):
        work()
    batch = Batch.objects.get()
    assert batch.state == "refused"
    assert batch.problem.startswith("Partitor itself failed to read it")


def test_a_check_that_fails_every_time_ends_with_a_sentence(assignment, people, work, monkeypatch):
    def fails(*args):
        raise RuntimeError("ours")

    monkeypatch.setattr(checking, "outcome", fails)
    monkeypatch.setattr("checking.tasks.AGAIN.wait", 0)
    hand_in(assignment, people["ines"], zipped({"a.py": LOOP}))
    for _ in range(5):
        work()
    assert Batch.objects.get().state == "done"
    assert Check.objects.get().state == "failed"
    assert "failed several times" in Check.objects.get().problem


def test_an_outage_in_the_middle_is_waited_for_and_costs_no_try(assignment, people, work, monkeypatch):
    calls = []

    def away_at_first(check):
        calls.append(check)
        if len(calls) < 3:
            raise OperationalError("the connection is lost")
        return real(check)

    real = checking.outcome
    monkeypatch.setattr(checking, "outcome", away_at_first)
    monkeypatch.setattr("checking.tasks.time.sleep", lambda _: None)
    hand_in(assignment, people["ines"], zipped({"a.py": LOOP}))
    work()
    assert (len(calls), Check.objects.get().state) == (3, "done")


def test_a_check_past_its_limits_ends_and_the_worker_lives(assignment, people, work, monkeypatch):
    small = Child(CallLimits(cpu_seconds=1, wall_seconds=20, memory=400_000_000))
    monkeypatch.setattr(children._checks, "child", small)
    text = b"".join(b"def f%d(a):\n    return a * %d + f%d(a)\n" % (n, n, n + 1) for n in range(30_000))
    hand_in(assignment, people["ines"], zipped({"big.py": text, "Ida Holm_SF101_gates.py": LOOP}))
    work()
    small.close()
    states = {c.attempt.submission.name: c for c in Check.objects.all()}
    assert states["Ida Holm"].state == "done"
    assert states["big"].state == "failed"
    assert states["big"].problem.startswith("It is too costly to check: it ")


def test_a_trial_that_was_dropped_meanwhile_does_not_come_back(checked):
    check = Check.objects.filter(state="done").first()
    Check.objects.filter(pk=check.pk).update(state="running")
    report = check.record()
    Check.objects.filter(pk=check.pk).delete()
    checking.keep([(check, report)])
    assert not Check.objects.filter(pk=check.pk).exists()


ODD_BODIES = [
    b'{"title": "a\\u0000b"}',
    b'{"title": "\\ud800"}',
    b'{"title": ' + b"[" * 200_000,
    b'{"title": ' + b"9" * 5000 + b"}",
    b'{"title": NaN}',
    b'{"title": 1e999}',
    b"\xff\xfe",
    b'{"level": 99999999999999999999, "line": 1e300, "reason": []}',
    b'{"words": "x", "path": "' + b"y" * 500 + b'", "line": 99999999999}',
    b'{"starter": {"' + b"p" * 900 + b'": "x"}}',
    b'{"text": "' + b"a = [" + b"[" * 5000 + b'"}',
    b'{"student": 123456789012345678901234567890}',
    b"[]",
    b'"text"',
    b"null",
]


@pytest.mark.parametrize("body", ODD_BODIES, ids=range(len(ODD_BODIES)))
def test_odd_bodies_are_answered_with_a_sentence(body, teacher, checked):
    submission = checked.submissions.first()
    remark = submission.latest().remarks.first()
    for method, path in [
        ("POST", "courses"),
        ("POST", f"courses/{checked.course_id}/assignments"),
        ("PUT", f"assignments/{checked.pk}"),
        ("PUT", f"submissions/{submission.pk}/marks/repetition"),
        ("POST", f"submissions/{submission.pk}/remarks"),
        ("PUT", f"submissions/{submission.pk}/student"),
        ("PATCH", f"submissions/{submission.pk}/return"),
        ("PATCH", f"remarks/{remark.pk}"),
        ("POST", "sample"),
        ("POST", "session"),
    ]:
        answer = teacher.client.generic(method, f"/api/{path}", body, content_type="application/json")
        assert answer.status_code < 500, (path, answer.content)
        if answer.status_code >= 400:
            assert isinstance(json.loads(answer.content)["detail"], str)


@pytest.mark.parametrize(
    "path", ["courses%00", "submissions/1?attempt=%C2%B2", "submissions/1?attempt=x%00", "nothing"]
)
def test_odd_addresses_are_answered_with_a_sentence(path, teacher, checked):
    path = path.replace("submissions/1", f"submissions/{checked.submissions.first().pk}")
    answer = teacher.client.get(f"/api/{path}")
    assert answer.status_code in {400, 404}
    assert json.loads(answer.content)["detail"]


@pytest.mark.parametrize(
    ("data", "said"),
    [
        (b'name\n"Ida Holm\n', "never closed"),
        (b"name,number\rIda Holm,1\rBo Reed,2\r", 2),
        (b"name\n" + b"x" * 200_000, "cannot be read as CSV"),
        (b"name\nIda \x00Holm\n", 1),
        (b'name\n"Ida ""the gull"" Holm"\r\nBo Reed\n', 2),
        (b"\xff\xfe\x00", "no column is called"),
        (b"name\nIda\xe2\x80\xaeHolm\n", 1),
    ],
)
def test_odd_class_lists_are_read_or_refused_with_a_sentence(data, said, teacher, course):
    status, answer = teacher.upload(f"courses/{course.pk}/roster", ("list.csv", data), method="put")
    if isinstance(said, int):
        assert (status, len(answer)) == (200, said)
        assert not any("\u202e" in line["name"] or "\x00" in line["name"] for line in answer)
    else:
        assert (status, said in answer["detail"]) == (400, True), answer


def test_what_turns_text_round_is_shown_in_names_and_pages(teacher, assignment, people, work):
    text = "print('a\u202eb')\nprint('a\u202eb')\nprint('a\u202eb')\n"
    hand_in(assignment, people["ines"], zipped({"evil\u202e_1.py": text}))
    work()
    (member,) = teacher.good("GET", f"assignments/{assignment.pk}/class")["members"]
    assert "\u202e" not in member["name"]
    assert "U+202E" in member["name"]
    page = teacher.client.get(f"/preview/{member['id']}").content.decode()
    assert "\u202e" not in page
    assert "U+202E" in page


@pytest.mark.parametrize(
    ("error", "status"), [(KeyError("words of a student"), 500), (OperationalError("words of a student"), 503)]
)
def test_an_error_of_ours_and_an_outage_are_a_sentence(error, status, people, monkeypatch):
    client = Client(raise_request_exception=False)
    client.force_login(people["ines"])

    def fails(*args, **named):
        raise error

    monkeypatch.setattr("courses.api.own_courses", fails)
    monkeypatch.setattr("returns.services.published_page", fails)
    answer = client.get("/api/courses")
    assert answer.status_code == status
    assert "words of" not in answer.json()["detail"]
    page = client.get("/s/" + "a" * 40)
    assert page.status_code == status
    assert "Not this time" in page.content.decode()
    assert "words of" not in page.content.decode()


def test_log_lines_tell_where_and_hold_no_words_of_people():
    settings = dict(logging_of("INFO")["formatters"]["json"])
    formatter = settings.pop("()")(**settings)
    try:
        json.loads("words of a student")
    except ValueError:
        problem = sys.exc_info()
    record = logging.LogRecord("django.request", logging.ERROR, "x.py", 1, "Failed: /s/abc123", (), problem)
    record.check = 7
    record.text = "words of a student"
    line = json.loads(formatter.format(record))
    assert (line["event"], line["check"], line["kind"], line["level"]) == (
        "Failed: /s/…",
        7,
        "JSONDecodeError",
        "error",
    )
    assert "raw_decode" in line["frames"][-1]
    assert "words of" not in json.dumps(line)


def test_an_address_of_nothing_is_a_sentence(db):
    assert Client().get("/api/nothing").json()["detail"].startswith("There is nothing at this address")
    assert "Not this time" in Client().get("/preview/1").content.decode()


def test_the_live_sample_has_limits_and_is_throttled(teacher, people, course):
    spec = teacher.good("GET", "default-assignment")["spec"]
    spec["title"] = "Gates"
    answers = [teacher("POST", "sample", {"spec": spec, "text": "x = 1\n"})[0] for _ in range(42)]
    assert answers[0] == 200
    assert answers[-1] == 429
    assert Api(people["rolf"])("POST", "sample", {"spec": spec, "text": "x = 1\n"})[0] == 200


def test_what_a_spreadsheet_wrote_is_read(teacher, course):
    out = io.StringIO()
    writer = csv.writer(out, delimiter=";")
    writer.writerows([["name", "number"], ["Holm; Ida", "1"], ['Bo "Bee" Reed', "2"]])
    status, answer = teacher.upload(f"courses/{course.pk}/roster", ("list.csv", out.getvalue().encode()), method="put")
    assert (status, sorted(line["name"] for line in answer)) == (200, ['Bo "Bee" Reed', "Holm; Ida"])


def test_uploads_are_private_until_they_are_divided_and_then_gone(assignment, people, work, settings):
    hand_in(assignment, people["ines"], zipped({"a.py": LOOP}))
    (folder,) = settings.UPLOADS.iterdir()
    assert [oct(p.stat().st_mode & 0o777) for p in (folder, *folder.iterdir())] == ["0o700", "0o600", "0o600"]
    work()
    assert not list(settings.UPLOADS.iterdir())


def test_reading_stays_in_its_bounds_for_the_whole_class(tmp_path):
    path = tmp_path / "class.zip"
    path.write_bytes(zipped({p.name: p.read_bytes() for p in (DEMO / "submissions").iterdir()}))
    batch, junk = read_uploads([("class.zip", path)])
    assert (len(batch.submissions), junk) == (24, 0)
