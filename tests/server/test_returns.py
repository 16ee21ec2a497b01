"""What goes back to students: exactly what was shown, to them alone."""

import csv
import io
import zipfile

import pytest
from django.test import Client


def returns(api, assignment):
    data = api.good("GET", f"assignments/{assignment.pk}/return")
    return {s["name"]: s for s in data["students"]}


@pytest.fixture
def published(teacher, checked):
    nadia = checked.submissions.get(name="Nadia Ferrow")
    teacher.good("PATCH", f"submissions/{nadia.pk}/return", {"held": True})
    teacher.good("POST", f"assignments/{checked.pk}/return")
    return checked


def test_publishing_opens_every_page_that_is_not_held(teacher, published):
    seen = returns(teacher, published)
    assert seen["Nadia Ferrow"]["link"] == ""
    page = Client().get(seen["Salma Brook"]["link"])
    text = page.content.decode()
    assert page.status_code == 200
    assert "For Salma Brook" in text
    for other in ("Nadia", "Femke", "Anton"):
        assert other not in text
    assert "noindex" in page["X-Robots-Tag"]
    assert "default-src 'none'" in page["Content-Security-Policy"]


def test_a_wrong_or_withdrawn_key_opens_nothing(teacher, published):
    link = returns(teacher, published)["Salma Brook"]["link"]
    assert Client().get(link[:-1] + ("0" if link[-1] != "0" else "1")).status_code == 404
    assert Client().get("/s/short").status_code == 404
    submission = published.submissions.get(name="Salma Brook")
    teacher.good("PATCH", f"submissions/{submission.pk}/return", {"withdraw": True})
    assert Client().get(link).status_code == 404
    teacher.good("POST", f"assignments/{published.pk}/return")
    assert returns(teacher, published)["Salma Brook"]["link"] != link


def test_a_published_page_stays_as_it_was_until_it_is_published_again(teacher, published):
    submission = published.submissions.get(name="Salma Brook")
    link = returns(teacher, published)["Salma Brook"]["link"]
    before = Client().get(link).content.decode().partition("<main")[2]
    teacher.good("PATCH", f"submissions/{submission.pk}/return", {"words": "Well begun, Salma."})
    assert returns(teacher, published)["Salma Brook"]["stale"]
    assert Client().get(link).content.decode().partition("<main")[2] == before
    teacher.good("POST", f"assignments/{published.pk}/return")
    assert "Well begun, Salma." in Client().get(link).content.decode()


def test_decisions_at_the_desk_reach_the_page(teacher, checked):
    submission = checked.submissions.get(name="Nadia Ferrow")
    remarks = teacher.good("GET", f"submissions/{submission.pk}")["remarks"]
    for remark in remarks:
        teacher.good("PATCH", f"remarks/{remark['id']}", {"state": "aside"})
    teacher.good("POST", f"submissions/{submission.pk}/remarks", {"words": "<b>Lovely</b> names.", "line": 6})
    page = teacher.client.get(f"/preview/{submission.pk}").content.decode()
    assert "&lt;b&gt;Lovely" in page
    assert "north_gate, mill_gate" not in page


def test_the_answer_is_shown_only_at_that_hint_level(teacher, checked):
    submission = checked.submissions.get(name="Nadia Ferrow")

    def page():
        return teacher.client.get(f"/preview/{submission.pk}").content.decode()

    teacher.good("PUT", f"assignments/{checked.pk}/return", {"hint": "where"})
    where = page()
    teacher.good("PUT", f"assignments/{checked.pk}/return", {"hint": "answer"})
    assert "print_gate(level, name):" in page()
    assert "print_gate(level, name):" not in where
    assert teacher("PUT", f"assignments/{checked.pk}/return", {"hint": "all"})[0] == 400


def test_the_pack_holds_pages_gradebook_and_links(teacher, published):
    teacher.good("PUT", f"assignments/{published.pk}/return", {"hint": "answer"})
    data = teacher.client.get(f"/api/assignments/{published.pk}/pack").content
    with zipfile.ZipFile(io.BytesIO(data)) as archive:
        names = set(archive.namelist())
        assert {"gradebook.csv", "links.csv", "Salma Brook/feedback.html", "Salma Brook/feedback.md"} <= names
        assert "Salma Brook/all.patch" in names
        assert not any(n.startswith("Nadia") for n in names)
        links = archive.read("links.csv").decode()
        assert "http://testserver/s/" in links


def test_the_gradebook_has_everyone_and_no_formulas(teacher, checked):
    submission = checked.submissions.first()
    submission.name = '=HYPERLINK("x")'
    submission.save()
    text = teacher.client.get(f"/api/assignments/{checked.pk}/gradebook").content.decode()
    rows = list(csv.reader(io.StringIO(text)))
    assert len(rows) == 1 + 4 + 22
    assert rows[0][:2] == ["name", "number"]
    assert not any(cell.startswith(("=", "+", "@")) for row in rows for cell in row)


def test_a_second_attempt_says_what_changed(teacher, checked, people, work):
    from api_client import DEMO, hand_in

    better = (DEMO / "submissions" / "Femke Tarn_SF115_gates.py").read_bytes()
    hand_in(checked, people["ines"], better, "Nadia Ferrow_SF105_gates.py")
    work()
    submission = checked.submissions.get(name="Nadia Ferrow")
    page = teacher.client.get(f"/preview/{submission.pk}").content.decode()
    assert "Your score went from 18 to 30." in page
