"""Debian's headless Chromium, driven through ChromeDriver, and the few moves that the tests share."""

from __future__ import annotations

import tempfile
from collections.abc import Callable
from pathlib import Path
from typing import TypeVar

from selenium import webdriver
from selenium.common.exceptions import TimeoutException
from selenium.webdriver.common.by import By
from selenium.webdriver.remote.webelement import WebElement
from selenium.webdriver.support.ui import WebDriverWait

AXE = Path(__file__).resolve().parents[2] / "web" / "node_modules" / "axe-core" / "axe.min.js"
FLAGS = """
    --headless=new --no-sandbox --disable-gpu --disable-quic --no-first-run --disable-background-networking
    --disable-component-update --disable-sync --disable-dev-shm-usage --hide-scrollbars --force-device-scale-factor=1
    --lang=en
""".split()
PATIENCE = 20
T = TypeVar("T")


class Browser:
    """A window of 1280x800 on one server."""

    def __init__(self, address: str, width: int = 1280, height: int = 800) -> None:
        options = webdriver.ChromeOptions()
        options.binary_location = "/usr/bin/chromium"
        for flag in FLAGS:
            options.add_argument(flag)
        self.folder = tempfile.TemporaryDirectory(prefix="partitor-browser-")
        options.add_argument(f"--user-data-dir={self.folder.name}/profile")
        self.downloads = Path(self.folder.name) / "downloads"
        options.add_experimental_option("prefs", {"download.default_directory": str(self.downloads)})
        options.set_capability("goog:loggingPrefs", {"browser": "ALL"})
        self.driver = webdriver.Chrome(options=options, service=webdriver.ChromeService("/usr/bin/chromedriver"))
        self.driver.set_script_timeout(60)
        self.address = address
        self.resize(width, height)

    def resize(self, width: int, height: int) -> None:
        """Give the page itself this size in CSS pixels."""
        self.driver.execute_cdp_cmd(
            "Emulation.setDeviceMetricsOverride",
            {"width": width, "height": height, "deviceScaleFactor": 1, "mobile": False},
        )

    def close(self) -> None:
        """End the browser."""
        self.driver.quit()
        self.folder.cleanup()

    def open(self, path: str) -> None:
        """Go to an address of the server."""
        self.driver.get(self.address + path)

    def wait(self, done: Callable[[], T], what: str, seconds: float = PATIENCE) -> T:
        """Wait until `done` gives something; fails with `what` was waited for."""
        return WebDriverWait(self.driver, seconds).until(lambda _: done(), f"waited for {what}")

    def text(self) -> str:
        """All text that the page shows."""
        return self.driver.find_element(By.TAG_NAME, "body").text

    def see(self, words: str, seconds: float = PATIENCE) -> None:
        """Wait until the words stand on the page."""
        self.wait(lambda: words in self.text(), f"{words!r} on {self.driver.current_url}", seconds)

    def find(self, xpath: str, seconds: float = PATIENCE) -> WebElement:
        """The first shown element of an XPath, waiting for it."""

        def shown() -> WebElement | None:
            return next((e for e in self.driver.find_elements(By.XPATH, xpath) if e.is_displayed()), None)

        return self.wait(shown, xpath, seconds)

    def field(self, label: str) -> WebElement:
        """The input that a label names."""
        return self.find(
            f"//label[contains(normalize-space(.), '{label}')]//*[self::input or self::select or self::textarea]"
            f"|//*[@aria-label='{label}']"
        )

    def press(self, name: str) -> None:
        """Click the button or link with this text."""
        self.find(
            f"//button[contains(normalize-space(.), '{name}')]|//a[contains(normalize-space(.), '{name}')]"
        ).click()

    def give_file(self, path: Path, css: str = "input[type=file]") -> None:
        """Choose a file in the (hidden) file input."""
        found = self.wait(lambda: self.driver.find_elements("css selector", css), css)
        found[0].send_keys(str(path))

    def keys(self, keys: str) -> None:
        """Type where the focus is."""
        self.driver.switch_to.active_element.send_keys(keys)

    def press_key(self, key: str, words: str) -> None:
        """Press a key of the screen until its words show; a busy page may lose the first."""
        for _ in range(4):
            self.keys(key)
            try:
                return self.see(words, PATIENCE / 4)
            except TimeoutException:
                continue
        self.see(words)

    def log_in(self, user: str, password: str) -> None:
        """Through the login screen."""
        self.open("/login")
        self.field("Name").send_keys(user)
        self.field("Password").send_keys(password)
        self.press("Log in")
        self.wait(lambda: "/login" not in self.driver.current_url, "the login to be accepted")

    def picture(self, path: Path) -> None:
        """Save what the window shows as PNG."""
        path.parent.mkdir(parents=True, exist_ok=True)
        assert self.driver.save_screenshot(str(path))

    def complaints(self) -> list[str]:
        """Errors in the browser's console since the last look."""
        return [entry["message"] for entry in self.driver.get_log("browser") if entry["level"] == "SEVERE"]

    def faults(self) -> list[str]:
        """What axe-core calls serious or critical on this page, a line each."""
        self.driver.execute_script(AXE.read_text())
        result = self.driver.execute_async_script(
            "const done = arguments[arguments.length - 1];"
            "axe.run(document, {resultTypes: ['violations'],"
            " runOnly: ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa', 'best-practice']}).then(done);"
        )
        return [
            f"{v['id']}: {v['help']}: {node['html'][:160]}"
            for v in result["violations"]
            if v["impact"] in {"serious", "critical"}
            for node in v["nodes"]
        ]
