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
#: A calm hand, and one that moves with every frame of the screen.
PAUSES_MS = (70, 12)
#: Notes which value of the slider the hand wanted and which was painted, with the times; keeps the
#: answers of the server by their requests, and in a replay gives them without it.
HOOKS = """async () => {
  const loaded = performance.getEntriesByType('resource').map((each) => each.name);
  const { default: Alpine } = await import(loaded.find((name) => name.includes('alpine')));
  window.drag = { wishes: [], paints: [], answers: new Map(), isReplay: false, misses: 0 };
  const slider = () => Alpine.store('bench').sliders[0];
  const clear = CanvasRenderingContext2D.prototype.clearRect;
  CanvasRenderingContext2D.prototype.clearRect = function (...box) {
    window.drag.paints.push([performance.now(), slider().value]);
    return clear.apply(this, box);
  };
  const track = document.querySelector('.track');
  track.addEventListener('pointermove', (event) => {
    const box = track.getBoundingClientRect();
    const { low_value: low, high_value: high, step_value: step } = slider();
    // A hand cannot mean less than a pixel, so steps finer than that are taken together.
    const grain = Math.max(1, Math.floor((high - low) / step / box.width)) * step;
    const steps = Math.round(((event.clientX - box.left) / box.width) * (high - low) / grain);
    window.drag.wishes.push([performance.now(), low + steps * grain]);
  }, true);
  const real = window.fetch;
  window.fetch = async (path, options) => {
    if (!String(path).endsWith('/scene')) return real(path, options);
    const known = window.drag.answers.get(options.body);
    if (window.drag.isReplay && known) return new Response(known);
    if (window.drag.isReplay) window.drag.misses += 1;
    const answer = await real(path, options);
    window.drag.answers.set(options.body, await answer.clone().text());
    return answer;
  };
}"""


def hand(moves: int) -> np.ndarray:
    """Give the places of a hand that starts, hurries, slows down and stops, from 0 to 1.

    Source:
        Flash and Hogan, *The coordination of arm movements*, J. Neurosci. 5 (1985): least jerk.
    """
    t = np.arange(1, moves + 1) / moves
    return t**3 * (10 - 15 * t + 6 * t**2)


def latencies(page: Page, pause_ms: float) -> np.ndarray:
    """Drag the first slider; give the times until its value, or a later one, was painted, in ms.

    Moves that do not reach another step of the slider ask for nothing and are left out.
    """
    box = page.locator(".track").first.bounding_box()
    if box is None:
        raise SystemExit("the study has no slider")
    page.mouse.move(box["x"] + 10, box["y"] + 10)
    page.mouse.down()
    page.wait_for_timeout(400)
    page.evaluate("() => { window.drag.wishes = []; window.drag.paints = [] }")
    for place in hand(MOVES):
        page.mouse.move(box["x"] + 10 + (box["width"] - 20) * place, box["y"] + 10)
        page.wait_for_timeout(pause_ms)
    page.wait_for_timeout(300)
    wishes, paints = page.evaluate("() => [window.drag.wishes, window.drag.paints]")
    page.keyboard.press("Escape")
    page.mouse.up()
    page.wait_for_timeout(300)
    times, last = [], -np.inf
    for asked, wanted in wishes:
        if wanted > last + 1e-9:
            last = wanted
            shown = [at for at, value in paints if at >= asked and value >= wanted - 1e-9]
            times.append(min(shown, default=np.inf) - asked)
    return np.array(times)


def compare(page: Page, what: str) -> None:
    """Drag with the server and in the page alone, at both speeds, and print both."""
    for pause in PAUSES_MS:
        page.evaluate("() => { window.drag.answers.clear(); window.drag.isReplay = false }")
        served = latencies(page, pause)
        page.evaluate("() => { window.drag.isReplay = true; window.drag.misses = 0 }")
        replayed = latencies(page, pause)
        misses = page.evaluate("() => window.drag.misses")
        print(f"{what}, a move every {pause} ms")
        _print("with the server", served)
        _print("replayed in the page", replayed)
        print(f"  p95 ratio: {np.quantile(served, 0.95) / np.quantile(replayed, 0.95):.2f}")
        print(f"  asked the server all the same in the replay: {misses}")


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
        compare(page, "the demo's steps")
        page.locator(".slider-head button").first.click()
        page.locator(".slider-range").first.get_by_label("step").fill("1/1000")
        page.get_by_role("button", name="Keep").first.click()
        page.wait_for_timeout(500)
        compare(page, "steps finer than a pixel")
        page.get_by_role("button", name="Undo").click()
        page.wait_for_timeout(500)
        browser.close()


def _print(name: str, times: np.ndarray) -> None:
    median, p95 = np.median(times), np.quantile(times, 0.95)
    print(f"  {name}: {len(times)} moves, median {median:.1f} ms, p95 {p95:.1f} ms")


if __name__ == "__main__":
    main()
