"""Scrolling over a table of a million rows in headless Chromium: frames a second, and rows in sight.

Run against a started Axis Path: PYTHONPATH=src .venv/bin/python -m bench.scroll [address]
"""

from __future__ import annotations

import sys

from playwright.sync_api import Page, sync_playwright

from bench.alone import ARGUMENTS
from bench.pan import open_study

LINES = ("f(x) = x^2 - 3x", "g(x) = sin(x) exp(-x/200)", "h(x) = 1/(1 + x^2)")
ROWS, TURNS, PAUSE_MS = 1_000_000, 150, 16
#: Counts frames, and those in which a part of the frame shows no row.
HOOKS = """() => {
  window.seen = { frames: 0, empty: 0, isOn: true };
  const frame = document.querySelector('.rows-frame');
  const tick = () => {
    if (!window.seen.isOn) return;
    window.seen.frames += 1;
    const { left, bottom } = frame.getBoundingClientRect();
    if (!document.elementFromPoint(left + 20, bottom - 20)?.closest('[data-value-row]')) window.seen.empty += 1;
    requestAnimationFrame(tick);
  };
  requestAnimationFrame(tick);
}"""


def scroll(page: Page, pixels: int) -> tuple[float, float]:
    """Turn the wheel; give the frames a second, and the share of them with rows missing."""
    box = page.locator(".rows-frame").bounding_box()
    if box is None:
        raise SystemExit("there is no table")
    page.mouse.move(box["x"] + 60, box["y"] + box["height"] / 2)
    page.evaluate(HOOKS)
    began = page.evaluate("() => performance.now()")
    for _ in range(TURNS):
        page.mouse.wheel(0, pixels)
        page.wait_for_timeout(PAUSE_MS)
    ended = page.evaluate("() => performance.now()")
    seen = page.evaluate("() => { window.seen.isOn = false; return window.seen }")
    return 1000 * seen["frames"] / (ended - began), seen["empty"] / max(seen["frames"], 1)


def main() -> None:
    base = sys.argv[1] if len(sys.argv) > 1 else "http://127.0.0.1:8765"
    with sync_playwright() as playwright:
        browser = playwright.chromium.launch(
            executable_path="/usr/bin/chromium", args=list(ARGUMENTS)
        )
        page = browser.new_page(viewport={"width": 1280, "height": 800})
        open_study(page, base, LINES)
        page.get_by_role("tab", name="Values").click()
        for label, text in (("start", "0"), ("stop", str(ROWS - 1))):
            page.get_by_label(label, exact=True).fill(text)
            page.get_by_label(label, exact=True).press("Tab")
            page.wait_for_timeout(800)
        print(page.locator(".rows-told").inner_text())
        for name, pixels in (("row by row", 25), ("four rows a turn", 100), ("a page a turn", 300)):
            rate, empty = scroll(page, pixels)
            print(
                f"{name}: {rate:.1f} frames a second (wanted: 50), {empty:.1%} of them lack a row"
            )
        browser.close()


if __name__ == "__main__":
    main()
