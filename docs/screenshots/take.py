"""Takes the pictures of every screen at 1280x800 from a fresh demo class: `./run shots`."""

from __future__ import annotations

import sys
import time
from pathlib import Path

from chrome import Browser
from selenium.webdriver.support.ui import Select

HERE = Path(__file__).resolve().parent


def main(address: str) -> None:
    """Walk through the teacher's screens, then the student's page, a picture each."""
    browser = Browser(address)
    browser.log_in("ines", "saltmarsh-demo")
    browser.see("Saltmarsh field station")
    number = browser.find("//a[text()='Sluice gates']").get_attribute("href").split("/")[-2]
    place = f"/assignments/{number}"
    browser.open(f"{place}/collect")
    browser.see("All 24 checked", 60)
    browser.see("All 1 checked", 60)
    keep(browser, "collect")
    browser.open("/")
    browser.see("Sluice gates")
    keep(browser, "courses")
    browser.open(f"{place}/setup")
    browser.see("outside any function")
    keep(browser, "set-up")
    browser.open(f"{place}/class?sort=repeated_share")
    browser.see("across the class")
    keep(browser, "class")
    browser.press("Nadia Ferrow")
    browser.see("are alike")
    browser.press_key("t", "as suggested")
    keep(browser, "desk")
    browser.press_key("m", "Call map")
    keep(browser, "call-map")
    browser.open(f"{place}/class")
    browser.press("Salma Brook")
    browser.see("nine statements")
    browser.find("//article//button[contains(., 'nine statements')]").click()
    browser.find("//button[contains(., 'Lamplight')]").click()
    keep(browser, "desk-dark")
    browser.find("//button[contains(., 'Daylight')]").click()
    browser.open("/")
    sketches = browser.find("//a[text()='Pump panel']").get_attribute("href").split("/")[-2]
    browser.open(f"/assignments/{sketches}/class?sort=repeated_share")
    browser.press("Tomas Reed")
    browser.see("stand three times in a row")
    browser.press_key("t", "as suggested")
    keep(browser, "desk-sketch")
    browser.open(f"{place}/return")
    browser.press("Nadia Ferrow")
    Select(browser.find("//select[@aria-label='Hint level for Nadia Ferrow']")).select_by_value("answer")
    keep(browser, "return")
    browser.press("Publish…")
    browser.find("//button[starts-with(normalize-space(.), 'Publish 2')]").click()
    link = browser.find("//tr[.//button[text()='Nadia Ferrow']]//a[text()='open']").get_attribute("href")
    browser.driver.get(link)
    browser.see("For Nadia Ferrow")
    keep(browser, "student-page")
    browser.close()


def keep(browser: Browser, name: str) -> None:
    """Let drawings and fonts settle, then save the picture."""
    time.sleep(1)
    browser.picture(HERE / f"{name}.png")


if __name__ == "__main__":
    main(sys.argv[1])
