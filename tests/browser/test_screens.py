"""Every screen with the demo class: no fault that axe-core calls serious, nothing cut off, in both themes."""

from __future__ import annotations

from chrome import Browser

from assignments.models import Assignment
from intake.models import Submission


def screens() -> list[tuple[str, str]]:
    """(address, what it shows when it is there)."""
    number = Assignment.objects.earliest("id").pk
    nadia = Submission.objects.get(assignment=Assignment.objects.earliest("id"), name="Nadia Ferrow").pk
    return [
        ("/", "Saltmarsh field station"),
        (f"/courses/{Assignment.objects.earliest('id').course_id}/new", "New assignment"),
        (f"/assignments/{number}/setup", "Required functions"),
        (f"/assignments/{number}/collect", "All 24 checked"),
        (f"/assignments/{number}/class?sort=repeated_share", "across the class"),
        (f"/desk/{nadia}", "A remark of your own"),
        (f"/assignments/{number}/return", "Hint level for all"),
    ]


def test_every_screen_is_accessible_and_whole(demo, browser):
    browser.open("/login")
    browser.see("Password")
    assert browser.faults() == []
    browser.log_in("ines", "saltmarsh-demo")
    browser.open(f"/assignments/{Assignment.objects.earliest('id').pk}/collect")
    browser.see("All 24 checked")
    browser.see("All 1 checked")
    for theme in ("light", "dark"):
        for path, words in screens():
            browser.open(path)
            browser.see(words)
            use_theme(browser, theme)
            if path.startswith("/desk"):
                browser.press_key("t", "as suggested")
            assert browser.faults() == [], (theme, path)
            assert_nothing_is_cut_off(browser, path)
    browser.keys("?")
    browser.see("Show these keys")
    assert browser.faults() == []


def use_theme(browser: Browser, theme: str) -> None:
    browser.driver.execute_script(f"document.documentElement.dataset.theme = '{theme}'")


def assert_nothing_is_cut_off(browser: Browser, path: str) -> None:
    for width in (1280, 1024):
        browser.resize(width, 800)
        fits = browser.driver.execute_script("return document.documentElement.scrollWidth <= innerWidth")
        assert fits, (path, width)
    browser.resize(1280, 800)


def test_what_is_not_kept_is_still_there_after_going_away(demo, browser):
    number = Assignment.objects.earliest("id").pk
    browser.log_in("ines", "saltmarsh-demo")
    browser.open(f"/assignments/{number}/setup")
    browser.field("Title").send_keys(" at low water")
    browser.open("/")
    browser.see("Saltmarsh")
    browser.open(f"/assignments/{number}/setup")
    browser.see("have not kept yet")
    assert browser.field("Title").get_attribute("value") == "Sluice gates at low water"
    browser.press("Throw them away")
    assert browser.field("Title").get_attribute("value") == "Sluice gates"


def test_a_changed_limit_is_tried_before_it_counts(demo, browser):
    number = Assignment.objects.earliest("id").pk
    browser.log_in("ines", "saltmarsh-demo")
    browser.open(f"/assignments/{number}/collect")
    browser.see("All 24 checked")
    browser.see("All 1 checked")
    browser.open(f"/assignments/{number}/setup")
    longest = browser.field("Longest procedure")
    longest.clear()
    longest.send_keys("6")
    browser.press("Keep the assignment")
    browser.see("Kept.")
    browser.press("Class")
    browser.see("The assignment has changed since 24 programs were checked.")
    browser.press("Check again")
    browser.see("would change")
    assert browser.faults() == []
    browser.press("Take it over")
    browser.wait(lambda: "Take it over" not in browser.text(), "the change to be taken over")
    browser.see("24 of 24")


def test_a_refused_upload_says_why_and_keeps_the_place(demo, browser, tmp_path):
    number = Assignment.objects.earliest("id").pk
    broken = tmp_path / "holiday.zip"
    broken.write_bytes(b"PK\x03\x04 this is no archive")
    browser.log_in("ines", "saltmarsh-demo")
    browser.open(f"/assignments/{number}/collect")
    browser.give_file(broken)
    browser.see("holiday.zip: is not a whole ZIP archive")
