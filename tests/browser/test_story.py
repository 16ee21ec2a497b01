"""From the login to published feedback, as a teacher does it, with the pointer and with keys."""

from __future__ import annotations

import csv
import io
import shutil
import zipfile
from pathlib import Path

import pytest
from chrome import Browser
from selenium.webdriver.common.keys import Keys
from selenium.webdriver.support.ui import Select

DEMO = Path(__file__).resolve().parents[2] / "demo" / "sluice-gates"


@pytest.fixture
def class_zip(tmp_path: Path) -> Path:
    """The demo class's work as a teacher gets it."""
    return Path(shutil.make_archive(str(tmp_path / "sluice-gates"), "zip", DEMO / "submissions"))


def test_a_teacher_takes_a_class_from_the_login_to_published_feedback(people, worker, browser, class_zip):
    make_the_course(browser)
    collect(browser, class_zip)
    look_at_the_class(browser)
    review(browser)
    link = publish(browser)
    read_as_a_student(browser, link)


def make_the_course(browser: Browser) -> None:
    browser.open("/")
    browser.field("Name").send_keys("ines")
    browser.field("Password").send_keys("wrong")
    browser.press("Log in")
    browser.see("The name and the password do not go together.")
    assert any("400" in c for c in browser.complaints())
    browser.field("Password").send_keys("saltmarsh-demo")
    browser.press("Log in")
    browser.see("You are in no course yet.")
    browser.field("New course").send_keys("Evening class")
    browser.press("Make the course")
    browser.see("No assignment yet.")
    browser.give_file(DEMO / "roster.csv")
    browser.see("26 students")
    browser.press("Members")
    browser.field("Logs in as").send_keys("rolf")
    browser.press("Add")
    browser.see("Rolf Hansen")
    browser.keys(Keys.ESCAPE)
    browser.press("New assignment")
    browser.field("Title").send_keys("Not kept")
    browser.find("//input[@accept='.toml']/..")
    browser.give_file(DEMO / "assignment.toml", "input[accept='.toml']")
    browser.see("Drop the class's work here")


def collect(browser: Browser, class_zip: Path) -> None:
    browser.give_file(class_zip)
    browser.see("All 24 checked")
    text = browser.text()
    assert "2 submissions could not be read" in text
    assert "Quentin Ash_SF125_notes.txt is in no language that is read here" in text
    assert "not on the class list" not in text
    browser.press("look at the class")


def look_at_the_class(browser: Browser) -> None:
    browser.see("24 of 24")
    names = [e.text for e in browser.driver.find_elements("css selector", "ol li a > span:first-of-type")]
    browser.see("What they share")
    Select(browser.field("Order by")).select_by_visible_text("Repeated share")
    browser.see("Repeated share across the class")
    browser.wait(lambda: "sort=repeated_share" in browser.driver.current_url, "the order in the address")
    handle = browser.find("//*[@role='slider'][1]")
    handle.send_keys(Keys.ARROW_RIGHT)
    browser.see("Use these levels")
    browser.press("Put them back")
    Select(browser.field("Show")).select_by_index(1)
    browser.wait(lambda: "24 of 24" not in browser.text(), "fewer programs")
    assert len(names) == 24


def review(browser: Browser) -> None:
    browser.open(browser.driver.current_url.removeprefix(browser.address).split("?")[0])
    browser.press("Nadia Ferrow")
    browser.see("are alike")
    browser.press_key("t", "as suggested")
    browser.keys("a")
    browser.see("accepted")
    browser.keys("e")
    browser.keys("These four differ only in a name and a level." + Keys.TAB)
    browser.find("//article[@data-state='accepted']//*[contains(., 'These four differ only in a name')]")
    browser.driver.switch_to.active_element.send_keys(Keys.ESCAPE)
    browser.find("//h2[contains(., 'Nadia')]").click()
    browser.keys("m")
    browser.see("Call map")
    browser.keys(Keys.ESCAPE)
    browser.wait(lambda: not browser.driver.find_elements("css selector", "[role=dialog]"), "the call map to close")
    browser.keys("1")
    browser.see("Reason, for teachers only")
    browser.find("//input[@type='radio'][@value='2']").click()
    browser.press("Set the level")
    browser.see("An override needs a reason, which only teachers see.")
    assert any("400" in c for c in browser.complaints())
    browser.field("Reason, for teachers only").send_keys("It was agreed in class.")
    browser.press("Set the level")
    browser.see("set by Ines Valder: It was agreed in class.")
    browser.wait(lambda: not browser.driver.find_elements("css selector", "[role=dialog]"), "the rubric to close")
    browser.keys("d")
    browser.see("Oskar Lind")
    browser.keys("p")
    browser.see("Looked through")


def publish(browser: Browser) -> str:
    browser.press("Return")
    browser.see("Hint level for all")
    browser.press("Nadia Ferrow")
    browser.field("A word to Nadia Ferrow").send_keys("A good start." + Keys.TAB)
    browser.find("//input[@aria-label='Hold back Salma Brook']").click()
    browser.press("Publish…")
    browser.see("23 pages will open")
    browser.press("Publish 23 pages")
    row = "//tr[.//button[text()='{}']]//a[text()='open']"
    link = browser.find(row.format("Nadia Ferrow")).get_attribute("href")
    assert not browser.driver.find_elements("xpath", row.format("Salma Brook"))
    browser.press("Gradebook")
    browser.press("Pack")
    pack = browser.wait(lambda: next(browser.downloads.glob("*.zip"), None), "the pack")
    table = browser.wait(lambda: next(browser.downloads.glob("*.csv"), None), "the gradebook")
    rows = list(csv.DictReader(io.StringIO(table.read_text())))
    assert len(rows) == 26
    assert next(r for r in rows if r["name"] == "Nadia Ferrow")["total"] == "23"
    with zipfile.ZipFile(pack) as archive:
        assert "Nadia Ferrow/feedback.html" in archive.namelist()
        assert link in archive.read("links.csv").decode()
    return link


def read_as_a_student(browser: Browser, link: str) -> None:
    student = Browser(browser.address, width=360, height=740)
    try:
        student.driver.get(link)
        student.see("For Nadia Ferrow")
        text = student.text()
        assert "A good start." in text
        assert "These four differ only in a name and a level." in text
        assert "Salma" not in text
        assert student.driver.execute_script("return document.documentElement.scrollWidth <= innerWidth")
        assert student.faults() == []
    finally:
        student.close()
