"""Two people at one remark, and a database that goes away: what each of them reads, and what they can do."""

from __future__ import annotations

import json

import pytest
from chrome import Browser
from django.contrib.auth import get_user_model
from django.db import OperationalError
from django.test import Client

from intake.models import Submission
from review.models import Remark


@pytest.fixture
def desk(demo: None, browser: Browser) -> Submission:
    """Nadia's program on the teacher's desk, its first remark chosen."""
    browser.log_in("ines", "saltmarsh-demo")
    browser.see("Sluice gates")
    gates = Submission.objects.filter(assignment__title="Sluice gates", name="Nadia Ferrow")
    browser.wait(lambda: Remark.objects.filter(attempt__submission__in=gates).exists(), "the check", 60)
    submission = gates.get()
    remark = submission.latest().remarks.first()
    browser.open(f"/desk/{submission.pk}?remark={remark.pk}")
    browser.see("Accept")
    return submission


def test_who_was_slower_sees_both_and_chooses(desk: Submission, browser: Browser) -> None:
    remark = desk.latest().remarks.first()
    rolf = Client()
    rolf.force_login(get_user_model().objects.get(username="rolf"))
    change = json.dumps({"words": "Look at these lines together.", "version": 0})
    assert rolf.patch(f"/api/remarks/{remark.pk}", change, content_type="application/json").status_code == 200
    browser.keys("a")
    browser.see("Rolf Hansen changed this remark while you were writing.")
    browser.see("Look at these lines together.")
    assert browser.faults() == []
    browser.press("Leave theirs")
    browser.wait(lambda: "Someone was quicker" not in browser.text(), "the dialog to close")
    remark.refresh_from_db()
    assert (remark.state, remark.words) == ("open", "Look at these lines together.")
    browser.wait(lambda: "Look at these lines together." in browser.driver.page_source, "Rolf's words")
    browser.keys("a")
    browser.wait(lambda: Remark.objects.get(pk=remark.pk).state == "accepted", "the next try to be kept")
    assert any("409" in complaint for complaint in browser.complaints())


def test_an_outage_is_said_and_waited_for(people: None, browser: Browser, monkeypatch: pytest.MonkeyPatch) -> None:
    browser.log_in("ines", "saltmarsh-demo")
    browser.see("You are in no course yet.")

    def away(*arguments: object) -> None:
        raise OperationalError("the database is away")

    with monkeypatch.context() as patched:
        patched.setattr("courses.api.own_courses", away)
        browser.open("/")
        browser.see("checking goes on by itself")
    browser.see("You are in no course yet.", 20)
    assert "checking goes on by itself" not in browser.text()
    assert any("503" in complaint for complaint in browser.complaints())
