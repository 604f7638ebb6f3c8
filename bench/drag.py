"""From a slider's drag to the painted curve in headless Chromium, and the weight of the page.

Run against a started Axis Path: .venv/bin/python -m bench.drag [address]
The same drag is replayed in the page with the recorded answers, so that what the server and the
connection add is a ratio within one run.
"""

import sys

import numpy as np
from playwright.sync_api import Page, sync_playwright

ARGUMENTS = (
    "--no-sandbox",
    "--disable-gpu",
    "--disable-quic",
    "--no-first-run",
    "--disable-background-networking",
    "--disable-component-update",
    "--disable-sync",
)
MOVES = 150
PAUSE_MS = 70
#: Notes when the pointer moved and when the canvas was painted; records and replays answers.
HOOKS = """() => {
  window.drag = { moves: [], paints: [], answers: [], isReplay: false };
  const clear = CanvasRenderingContext2D.prototype.clearRect;
  CanvasRenderingContext2D.prototype.clearRect = function (...box) {
    window.drag.paints.push(performance.now());
    return clear.apply(this, box);
  };
  addEventListener('pointermove', () => window.drag.moves.push(performance.now()), true);
  const real = window.fetch;
  window.fetch = async (path, options) => {
    const isScene = String(path).endsWith('/scene');
    if (isScene && window.drag.isReplay) {
      return new Response(window.drag.answers.shift());
    }
    const answer = await real(path, options);
    if (isScene) window.drag.answers.push(await answer.clone().text());
    return answer;
  };
}"""


def latencies(page: Page) -> np.ndarray:
    """Drag the first slider and give the time from each move to the next paint, in ms."""
    page.evaluate("() => { window.drag.moves = []; window.drag.paints = [] }")
    box = page.locator(".track").first.bounding_box()
    if box is None:
        raise SystemExit("the study has no slider")
    page.mouse.move(box["x"] + 10, box["y"] + 10)
    page.mouse.down()
    page.wait_for_timeout(400)
    page.evaluate("() => { window.drag.moves = []; window.drag.paints = [] }")
    for k in range(MOVES):
        page.mouse.move(box["x"] + 10 + (box["width"] - 20) * (k + 1) / MOVES, box["y"] + 10)
        page.wait_for_timeout(PAUSE_MS)
    page.wait_for_timeout(300)
    found = page.evaluate("() => window.drag")
    page.keyboard.press("Escape")
    page.mouse.up()
    page.wait_for_timeout(300)
    paints = np.array(found["paints"])
    times = [paints[paints > move].min() - move for move in found["moves"] if (paints > move).any()]
    return np.array(times)


def main() -> None:
    base = sys.argv[1] if len(sys.argv) > 1 else "http://127.0.0.1:8765"
    with sync_playwright() as playwright:
        browser = playwright.chromium.launch(
            executable_path="/usr/bin/chromium", args=list(ARGUMENTS)
        )
        page = browser.new_page(viewport={"width": 1280, "height": 800})
        page.goto(f"{base}/studies")
        page.locator(".study-title", has_text="Morning tide").first.click()
        page.wait_for_selector(".tick-label")
        # Once more with a warm server and an empty browser cache for the page's own time.
        fresh = browser.new_context(viewport={"width": 1280, "height": 800}).new_page()
        fresh.goto(page.url)
        fresh.wait_for_selector(".tick-label")
        shown = fresh.evaluate("() => performance.now()")
        sizes = fresh.evaluate(
            "() => performance.getEntries().filter((e) => e.transferSize !== undefined)"
            ".map((e) => [e.name, e.transferSize])"
        )
        total = sum(size for name, size in sizes if "/fonts/" not in name)
        print(f"Bench shown after {shown:.0f} ms, {total / 1000:.0f} kB without fonts")
        page.evaluate(HOOKS)
        served = latencies(page)
        page.evaluate("() => { window.drag.isReplay = true }")
        replayed = latencies(page)
        browser.close()
    for name, times in (("with the server", served), ("replayed in the page", replayed)):
        print(
            f"{name}: {len(times)} moves, median {np.median(times):.1f} ms, "
            f"p95 {np.quantile(times, 0.95):.1f} ms"
        )
    print(f"p95 ratio: {np.quantile(served, 0.95) / np.quantile(replayed, 0.95):.2f}")


if __name__ == "__main__":
    main()
