"""What a tired teacher relies on: keys alone are enough, links keep their place, hostile text stays text."""

from __future__ import annotations

import zipfile
from pathlib import Path

import pytest
from chrome import Browser
from selenium.webdriver.common.keys import Keys

from assignments.models import Assignment
from intake.models import Submission
from review.models import Remark

HOSTILE = "<img src=x onerror=document.title='caught'>"
PROGRAM = f"""# </script><script>document.title='caught'</script>
def {{name}}():
    print("{HOSTILE}")
    print("</textarea><b>bold</b>")
    print("one more line for it")


def main():
    print("{HOSTILE}")
    print("</textarea><b>bold</b>")
    print("one more line for it")
    print("and the last")
    print("{HOSTILE}")
    print("</textarea><b>bold</b>")
    print("one more line for it")


main()
"""


@pytest.fixture
def checked(demo: None, browser: Browser) -> Browser:
    """The demo class, checked, with the teacher logged in."""
    browser.log_in("ines", "saltmarsh-demo")
    browser.open(f"/assignments/{Assignment.objects.earliest('id').pk}/collect")
    browser.see("All 24 checked", 60)
    browser.see("All 1 checked", 60)
    return browser


def test_a_class_is_gone_through_with_keys_alone(checked):
    order = list(Submission.objects.values_list("pk", "name"))
    checked.open(f"/desk/{order[0][0]}")
    checked.see(order[0][1])
    checked.see("A remark of your own")
    checked.press_key("j", "In your words")
    checked.keys("a")
    checked.see("accepted")
    checked.keys("u")
    checked.wait(lambda: not Remark.objects.filter(state="accepted").exists(), "the decision to be taken back")
    checked.keys("x")
    checked.see("set aside")
    checked.press_key("d", order[1][1])
    checked.wait(lambda: f"/desk/{order[1][0]}" in checked.driver.current_url, "the next student")
    checked.press_key("p", order[0][1])
    checked.see("Looked through")
    assert Submission.objects.get(pk=order[0][0]).reviewed


def test_an_address_brings_back_the_same_view(checked):
    nadia = Submission.objects.get(assignment=Assignment.objects.earliest("id"), name="Nadia Ferrow").pk
    checked.open(f"/desk/{nadia}")
    checked.see("are alike")
    checked.press_key("t", "as suggested")
    address = checked.driver.current_url.removeprefix(checked.address)
    assert "show=then-now" in address
    assert "remark=" in address
    checked.open("/")
    checked.see("Sluice gates")
    checked.open(address)
    checked.see("as suggested")
    checked.see("What differs")
    place = f"/assignments/{Assignment.objects.earliest('id').pk}/class"
    checked.open(f"{place}?sort=name&rule=idle-loop")
    checked.see("2 of 24")


def test_hostile_names_and_programs_stay_text(checked, tmp_path: Path):
    archive = tmp_path / "more.zip"
    with zipfile.ZipFile(archive, "w") as out:
        out.writestr("<b>Mallory<b>_1.py", PROGRAM.replace("{name}", "show_it"))
    place = f"/assignments/{Assignment.objects.earliest('id').pk}"
    checked.open(f"{place}/collect")
    checked.give_file(archive)
    checked.see("not on the class list")
    checked.see("<b>Mallory<b>")
    guest = Submission.objects.get(student=None).pk
    for path, words in [
        (f"{place}/class", "Mallory"),
        (f"/desk/{guest}", "onerror"),
        (f"{place}/return?student={guest}", "Mallory"),
        (f"/preview/{guest}", "Mallory"),
    ]:
        checked.open(path)
        checked.see(words)
        assert checked.driver.title != "caught"
        assert not checked.driver.find_elements("css selector", "img[src=x], main b, article b")
    checked.open(f"/desk/{guest}")
    checked.see("onerror")
    checked.keys("n")
    assert checked.driver.title != "caught"


def test_the_theme_is_kept_and_the_focus_is_always_seen(checked):
    checked.open("/")
    checked.see("Sluice gates")
    checked.press("Lamplight")
    checked.see("Daylight")
    checked.open(f"/assignments/{Assignment.objects.earliest('id').pk}/setup")
    checked.see("Daylight")
    checked.field("Title").send_keys(Keys.TAB)
    outline = checked.driver.execute_script("return getComputedStyle(document.activeElement).outlineStyle")
    assert outline == "solid"


def test_a_class_is_shown_where_the_same_one_could_not_be_read_twice(checked, tmp_path):
    assignment = Assignment.objects.earliest("id").pk
    for name in ("first.zip", "second.zip"):
        with zipfile.ZipFile(tmp_path / name, "w") as out:
            out.writestr("Otto Brand/main.pyc", b"\0")
            out.writestr("Wanda Reed/", b"")
        checked.open(f"/assignments/{assignment}/collect")
        checked.give_file(tmp_path / name)
        checked.see("None could be read")
    checked.open(f"/assignments/{assignment}/class")
    checked.see("What they share")
    assert checked.text().count("Otto Brand") == 2
