"""The real application in Debian's Chromium: a server, a browser, and the ways of a pointer."""

from __future__ import annotations

import unicodedata
import unittest
from dataclasses import dataclass
from functools import cache
from pathlib import Path
from typing import Any

from playwright.sync_api import Browser, ConsoleMessage, Locator, Page, sync_playwright

from axis_path.store import session_scope
from axis_path.store.demo import load_demo
from tests.databases import fresh_database
from tests.site import RunningSite

ROOT = Path(__file__).resolve().parent.parent.parent
AXE = (ROOT / "tests/vendor/axe.min.js").read_text()
ARGUMENTS = [
    "--no-sandbox",
    "--disable-gpu",
    "--disable-quic",
    "--no-first-run",
    "--disable-background-networking",
    "--disable-component-update",
    "--disable-sync",
]
TIMEOUT_MS = 20_000
#: Counts what the page has asked for and not got yet, and how many scenes that were at most.
COUNTED = """
  Object.assign(window, { asked: 0, scenes: 0, mostScenes: 0 })
  const count = (by, isScene) => {
    window.asked += by
    if (isScene) window.mostScenes = Math.max(window.mostScenes, window.scenes += by)
  }
  const send = window.fetch
  window.fetch = async (...request) => {
    const isScene = String(request[0]).endsWith('/scene')
    count(1, isScene)
    try {
      const response = await send(...request)
      // What it says may come a while after its beginning.
      await response.clone().arrayBuffer()
      return response
    } finally { count(-1, isScene) }
  }
  window.WebSocket = class extends WebSocket {
    constructor(...address) {
      super(...address)
      this.open = 0
      const end = () => { count(-this.open, true); this.open = 0 }
      for (const name of ['message', 'close']) this.addEventListener(name, end)
    }
    send(question) {
      this.open += 1
      count(1, true)
      super.send(question)
    }
  }"""
#: Looked at in every frame: true when nothing has been on its way for eight of them.
SETTLED = """() => {
  const isQuiet = !window.asked
    && document.querySelector('.saved').textContent === 'saved'
    && !document.querySelector('.is-behind:not([hidden])')?.checkVisibility()
    && !document.querySelector('.is-sketched')
  window.quiet = isQuiet ? (window.quiet ?? 0) + 1 : 0
  if (window.quiet < 8) return false
  window.quiet = 0
  return true
}"""
#: Wait until what was just changed is painted and has its final colours, at most for a second: an
#: animation that is paused never ends, and a page that is not seen paints no frames.
PAINTED = """async () => {
  const frame = () => new Promise((done) => requestAnimationFrame(done))
  const ends = (animation) => animation.effect.getComputedTiming().endTime < Infinity
  const painted = async () => {
    await frame()
    await Promise.allSettled(document.getAnimations().filter(ends).map((one) => one.finished))
    await frame()
  }
  await Promise.race([painted(), new Promise((done) => setTimeout(done, 1000))])
}"""
#: How close two places on the screen must be to be the same, in px.
SAME_PX = 1.0


@dataclass(frozen=True)
class _Place:
    """A running server with the demo studies, and a browser."""

    url: str
    base: str
    browser: Browser


@cache
def _place(module: str, site: str) -> _Place:
    """Start what the tests of one module share, to its end: a start takes as long as several."""
    unittest.addModuleCleanup(_place.cache_clear)
    url, engine = fresh_database(unittest.addModuleCleanup)
    with session_scope(engine) as session:
        load_demo(session)
    base = _start_server(url, site)
    playwright = sync_playwright().start()
    unittest.addModuleCleanup(playwright.stop)
    browser = playwright.chromium.launch(executable_path="/usr/bin/chromium", args=ARGUMENTS)
    unittest.addModuleCleanup(browser.close)
    return _Place(url, base, browser)


def _start_server(database_url: str, module: str) -> str:
    """Start the application with all its processes; give its address."""
    server = RunningSite(database_url, module=module)
    unittest.addModuleCleanup(server.stop)
    return server.base


class BrowserTest(unittest.TestCase):
    """A server with the demo studies and one browser for the module; a fresh page for each test."""

    #: What is run: the application, or one with faults.
    site = "axis_path.serving"
    url: str
    base: str
    browser: Browser

    @classmethod
    def setUpClass(cls) -> None:
        place = _place(cls.__module__, cls.site)
        cls.url, cls.base, cls.browser = place.url, place.base, place.browser

    def setUp(self) -> None:
        self.faults: list[str] = []
        self.page = self.open_page()

    def open_page(self, width: int = 1280, height: int = 800, **more: object) -> Page:
        context = self.browser.new_context(
            viewport={"width": width, "height": height},
            **more,  # type: ignore[arg-type]
        )
        self.addCleanup(context.close)
        context.set_default_timeout(TIMEOUT_MS)
        context.add_init_script(COUNTED)
        context.add_init_script(
            "addEventListener('securitypolicyviolation', (event) => {"
            " console.error('policy: ' + event.violatedDirective + ' ' + event.blockedURI) })"
        )
        page = context.new_page()
        page.on("console", self.note)
        page.on("pageerror", lambda error: self.faults.append(str(error)))
        self.addCleanup(lambda: self.assertEqual([], self.faults))
        return page

    def note(self, message: ConsoleMessage) -> None:
        # A refusal of the server is an answer, not a fault of the page.
        if message.type == "error" and not message.text.startswith("Failed to load resource"):
            self.faults.append(message.text)

    # Ways of a pointer

    def open_new_study(self, *lines: str) -> None:
        self.page.goto(f"{self.base}/studies")
        self.page.get_by_role("button", name="New study").click()
        self.page.wait_for_selector(".tick-label")
        for line in lines:
            self.write(line)

    def open_demo(self, title: str) -> None:
        self.page.goto(f"{self.base}/studies")
        self.page.locator(".study-title", has_text=title).first.click()
        self.page.wait_for_selector(".tick-label")
        self.settle()

    def write(self, text: str) -> None:
        self.page.fill("#new-line", text)
        self.page.press("#new-line", "Enter")
        self.settle()

    def settle(self) -> None:
        """Wait until everything is stored and nothing has been on its way for some frames."""
        self.page.wait_for_function(SETTLED)

    def row(self, name: str) -> Locator:
        return self.page.locator(
            ".row-item", has=self.page.get_by_label(f"More for {name}", exact=True)
        )

    def handle(self, name: str, side: str) -> Locator:
        return self.page.get_by_role("slider", name=f"{side} end of the domain of {name}")

    def drag(self, target: Locator, dx: float, dy: float = 0, *, steps: int = 8) -> None:
        box = self.box(target)
        x, y = box["x"] + box["width"] / 2, box["y"] + box["height"] / 2
        self.page.mouse.move(x, y)
        self.page.mouse.down()
        self.page.mouse.move(x + dx, y + dy, steps=steps)
        self.page.mouse.up()
        self.settle()

    def box(self, target: Locator) -> dict[str, float]:
        box = target.bounding_box()
        assert box is not None
        return dict(box)  # type: ignore[arg-type]

    def centre_x(self, target: Locator) -> float:
        box = self.box(target)
        return box["x"] + box["width"] / 2

    def choose_for(self, name: str, item: str) -> None:
        """Choose an item from the menu of a line."""
        self.page.get_by_role("button", name=f"More for {name}", exact=True).click()
        self.page.get_by_role("menuitem", name=item, exact=True).click()
        self.settle()

    def text(self, target: Locator) -> str:
        # Chromium gives the letters of formulas as slanted letters of their own.
        return "".join(unicodedata.normalize("NFKC", target.inner_text()).split())

    def ink(self) -> int:
        """How many pixels of the canvas are painted."""
        count: int = self.page.evaluate(
            "() => { const c = document.querySelector('.plane-curves');"
            " const d = c.getContext('2d').getImageData(0, 0, c.width, c.height).data;"
            " let n = 0; for (let k = 3; k < d.length; k += 4) n += d[k] > 0; return n; }"
        )
        return count

    def darkest_x(self, lane: Locator) -> float:
        """Where on the screen the mark of a lane stands: beside its band there is nothing else."""
        place: float = lane.evaluate(
            "(lane) => { const { top, bottom } = lane.getBoundingClientRect();"
            " const c = [...document.querySelectorAll('.lane-sheet')].find((sheet) => {"
            "   const box = sheet.getBoundingClientRect();"
            "   return box.top <= top + 0.5 && box.bottom >= top + 53.5; });"
            " const at_y = Math.round(top - c.getBoundingClientRect().top);"
            " const { width } = c, height = 54;"
            " const d = c.getContext('2d').getImageData(0, at_y, width, height).data;"
            " const ink = (x, y) => d[4 * (y * width + x) + 3] / (1 + d[4 * (y * width + x)]);"
            " const sums = Array.from({ length: width }, (_, x) =>"
            "   ink(x, 19) + ink(x, 20) + ink(x, 34) + ink(x, 35));"
            " const most = Math.max(...sums);"
            " const at = sums.flatMap((sum, x) => (sum > most / 2 ? [x] : []));"
            " return c.getBoundingClientRect().left + (at[0] + at.at(-1) + 1) / 2; }"
        )
        return place

    def check_access(self) -> None:
        """Let axe-core look for what keeps people out.

        The other colour scheme differs in its colours alone; they are checked after the rest.
        """
        rules = {name: {"enabled": True} for name in ("target-size", "label-content-name-mismatch")}
        self._check_with_axe({"rules": rules})
        is_dark = self.page.evaluate("() => matchMedia('(prefers-color-scheme: dark)').matches")
        for scheme in ("light", "dark") if is_dark else ("dark", "light"):
            self.page.emulate_media(color_scheme=scheme)
            self.page.wait_for_function(
                "(scheme) => document.documentElement.dataset.bsTheme === scheme", arg=scheme
            )
            self.page.evaluate(PAINTED)
            if (scheme == "dark") is not is_dark:
                contrast = {"type": "rule", "values": ["color-contrast"]}
                self._check_with_axe({"runOnly": contrast})

    def _check_with_axe(self, options: dict[str, Any]) -> None:
        if self.page.evaluate("() => !window.axe"):
            self.page.evaluate(AXE)
        found = self.page.evaluate(
            "async (options) => (await axe.run(document, options)).violations.map((v) =>"
            " v.id + ': ' + v.nodes.map((n) => n.target.join(' ') + ' ' + n.failureSummary)"
            ".slice(0, 4).join(', '))",
            options | {"resultTypes": ["violations"], "preload": False},
        )
        self.assertEqual([], found)
