"""A Chromium to which nobody listens during a drag in it.

A driver hears of every message of a socket, with all that is in it: on a machine of two processors that
takes a tenth of the frames of a drag, and of its replay without messages none. So the driver goes away
before the pointer moves, and comes back when it has come to rest.
"""

from __future__ import annotations

import subprocess
import time
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path
from tempfile import TemporaryDirectory
from typing import Any

from playwright.sync_api import Browser, Page, Playwright

ARGUMENTS = (
    "--no-sandbox", "--disable-gpu", "--disable-quic", "--no-first-run", "--disable-background-networking",
    "--disable-component-update", "--disable-sync",
)  # fmt: skip
_CHROMIUM = "/usr/bin/chromium"
#: The driver has gone within this time, in ms; a pointer begins to move then.
AWAY_MS = 400
#: Only the page knows when the pointer has come to rest.
_MOVE = """([given, afterMs]) => {
  window.hasMoved = false;
  setTimeout(() => (HAND)(given).then(() => { window.hasMoved = true; }), afterMs);
}"""


class Tab:
    """A page that outlives its driver; ask for ``page`` anew after each move."""

    def __init__(self, alone: Alone, name: str) -> None:
        self._alone = alone
        self._name = name

    @property
    def page(self) -> Page:
        """Return the page as the present driver knows it."""
        return self._alone.pages()[self._name]

    def move(self, hand: str, given: list[Any], seconds: float) -> Page:
        """Let a pointer move while no driver listens, and give the page when it rests.

        Args:
            hand: a script's function that gives a promise.
            given: what it is called with.
            seconds: how long it will take, about.
        """
        self.page.evaluate(_MOVE.replace("HAND", hand), [given, AWAY_MS])
        self._alone.leave()
        time.sleep(AWAY_MS / 1000 + seconds)
        page = self.page
        page.wait_for_function("() => window.hasMoved")
        page.wait_for_timeout(AWAY_MS)
        return page


class Alone:
    """The browser; made with `alone`."""

    def __init__(self, playwright: Playwright, address: str) -> None:
        self._playwright = playwright
        self._address = address
        self._browser: Browser | None = None
        self._pages: dict[str, Page] = {}

    @property
    def browser(self) -> Browser:
        """Return the browser as the present driver knows it."""
        if self._browser is None:
            self._browser = self._playwright.chromium.connect_over_cdp(self._address)
        return self._browser

    def pages(self) -> dict[str, Page]:
        """Return the pages by the names of their tabs."""
        if not self._pages:
            for page in self.browser.contexts[0].pages:
                self._pages[page.evaluate("() => window.name")] = page
        return self._pages

    def leave(self) -> None:
        """Let the driver go away; the pages stay."""
        if self._browser is not None:
            self._browser.close()
        self._browser, self._pages = None, {}

    def open(self, name: str, width: int, height: int, *scripts: str) -> Tab:
        """Open a page of a name and a size in px, with scripts that run before its own."""
        page = self.browser.contexts[0].new_page()
        for script in (f"window.name = {name!r};", *scripts):
            page.add_init_script(script)
        page.evaluate(f"() => {{ window.name = {name!r}; }}")
        # No size of the driver's own, which would go with it: that of the browser's window.
        session = page.context.new_cdp_session(page)
        found = session.send("Browser.getWindowForTarget")
        across, down = page.evaluate("() => [outerWidth - innerWidth, outerHeight - innerHeight]")
        bounds = {"width": width + across, "height": height + down}
        session.send("Browser.setWindowBounds", {"windowId": found["windowId"], "bounds": bounds})
        page.wait_for_function(f"() => innerWidth === {width} && innerHeight === {height}")
        self.pages()[name] = page
        return Tab(self, name)


@contextmanager
def alone(playwright: Playwright) -> Iterator[Alone]:
    """Start a Chromium that can be left alone, and end it."""
    with TemporaryDirectory() as profile:
        chromium = subprocess.Popen(
            [_CHROMIUM, "--headless", "--hide-scrollbars", "--remote-debugging-port=0", f"--user-data-dir={profile}",
             *ARGUMENTS, "about:blank"],
            stdout=subprocess.DEVNULL, stderr=subprocess.DEVNULL,
        )  # fmt: skip
        try:
            port_file = Path(profile) / "DevToolsActivePort"
            while not (port_file.exists() and "\n" in port_file.read_text()):
                if chromium.poll() is not None:
                    raise SystemExit("Chromium did not start.")
                time.sleep(0.05)
            found = Alone(playwright, f"http://127.0.0.1:{port_file.read_text().split()[0]}")
            yield found
            found.leave()
        finally:
            chromium.terminate()
            chromium.wait()
