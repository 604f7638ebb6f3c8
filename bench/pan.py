"""Panning and zooming in headless Chromium: frames against an empty plane, and how soon the picture is exact.

Run against a started Axis Path: PYTHONPATH=src .venv/bin/python -m bench.pan [address]
"""

from __future__ import annotations

import sys

import numpy as np
from playwright.sync_api import Page, sync_playwright

from bench.motion import ARGUMENTS
from bench.six import LINES

MOVES = 150
#: Counts frames, and notes when a window was wished for and when the exact picture of it was painted.
HOOKS = """() => {
  window.pan = { frames: 0, wishes: [], exact: [], isOn: true };
  const tick = () => { if (window.pan.isOn) { window.pan.frames += 1; requestAnimationFrame(tick); } };
  requestAnimationFrame(tick);
  const put = WebSocket.prototype.send;
  WebSocket.prototype.send = function (question) {
    this.addEventListener('message', () => requestAnimationFrame(() => window.pan.exact.push(performance.now())), { once: true });
    put.call(this, question);
  };
  document.querySelector('.plane-surface').addEventListener('pointermove', (event) => {
    if (event.buttons) window.pan.wishes.push(performance.now());
  }, true);
}"""
#: A hand that pans to and fro, a move with every frame. It moves in the page, as in `bench.motion`.
HAND = """([x, y, moves]) => new Promise((done) => {
  const surface = document.querySelector('.plane-surface');
  let k = 0;
  const step = () => {
    const clientX = x + 120 * Math.sin(k / 12), clientY = y + 40 * Math.cos(k / 9);
    surface.dispatchEvent(new PointerEvent('pointermove', { bubbles: true, pointerId: 1, buttons: 1, clientX, clientY }));
    k += 1;
    if (k === moves) done();
    else requestAnimationFrame(step);
  };
  requestAnimationFrame(step);
})"""


def open_study(page: Page, base: str, lines: tuple[str, ...]) -> None:
    page.goto(f"{base}/studies")
    page.get_by_role("button", name="New study").click()
    page.wait_for_selector(".tick-label")
    page.wait_for_timeout(500)
    for line in lines:
        page.locator("#new-line").fill(line)
        page.locator("#new-line").press("Enter")
        page.wait_for_timeout(400)


def drag(page: Page) -> tuple[float, np.ndarray]:
    """Pan to and fro; give the frames a second, and the times from a move to the next exact picture, ms."""
    box = page.locator(".plane-surface").bounding_box()
    if box is None:
        raise SystemExit("there is no plane")
    page.evaluate(HOOKS)
    # Beside both axes, which would be stretched.
    x, y = box["x"] + box["width"] * 0.3, box["y"] + box["height"] / 3
    page.mouse.move(x, y)
    page.mouse.down()
    began = page.evaluate("() => { window.pan.frames = 0; return performance.now() }")
    page.evaluate(HAND, [x, y, MOVES])
    ended = page.evaluate("() => performance.now()")
    page.wait_for_timeout(500)
    page.mouse.up()
    pan = page.evaluate("() => { window.pan.isOn = false; return window.pan }")
    exact = np.array(pan["exact"])
    wishes = np.array(pan["wishes"])
    after = [float(exact[exact >= wish].min() - wish) for wish in wishes if (exact >= wish).any()]
    return 1000 * pan["frames"] / (ended - began), np.array(after)


def main() -> None:
    base = sys.argv[1] if len(sys.argv) > 1 else "http://127.0.0.1:8765"
    with sync_playwright() as playwright:
        browser = playwright.chromium.launch(
            executable_path="/usr/bin/chromium", args=list(ARGUMENTS)
        )
        rates = {}
        for name, lines in (("an empty plane", ()), ("six curves", ("s = 1.5", *LINES))):
            page = browser.new_page(viewport={"width": 1280, "height": 800})
            open_study(page, base, lines)
            rates[name], after = drag(page)
            print(f"{name}: {rates[name]:.1f} frames a second", end="")
            print(
                f", exact after median {np.median(after):.0f} ms, p95 {np.quantile(after, 0.95):.0f} ms"
            )
            page.close()
        print(
            f"of an empty plane's frames: {rates['six curves'] / rates['an empty plane']:.2f} (wanted: 0.9)"
        )
        browser.close()


if __name__ == "__main__":
    main()
