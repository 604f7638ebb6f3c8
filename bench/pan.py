"""Panning and zooming in headless Chromium: frames against an empty plane, and how soon the picture is exact.

Run against a started Axis Path: PYTHONPATH=src .venv/bin/python -m bench.pan [address]
"""

from __future__ import annotations

import sys
from bisect import bisect_right
from typing import Any

import numpy as np
from playwright.sync_api import Page, sync_playwright

from bench.machine import telling_what_was_taken
from bench.motion import ARGUMENTS
from bench.six import LINES

MOVES = 150
ROUNDS = 5
#: Notes frames, where the hand wished the window to be, and for which windows pictures were painted.
HOOKS = """() => {
  const isHooked = Boolean(window.pan);
  window.pan = { frames: [], wishes: [], painted: [], isOn: true };
  const tick = () => { if (window.pan.isOn) { window.pan.frames.push(performance.now()); requestAnimationFrame(tick); } };
  requestAnimationFrame(tick);
  if (isHooked) return;
  const put = WebSocket.prototype.send;
  WebSocket.prototype.send = function (question) {
    const { window: asked, beyond = 0 } = JSON.parse(question);
    const note = () => window.pan.painted.push({ at: performance.now(), asked, beyond });
    this.addEventListener('message', () => requestAnimationFrame(note), { once: true });
    put.call(this, question);
  };
  const wish = (event) => {
    if (event.buttons || event.type === 'wheel') window.pan.wishes.push({ at: performance.now(), x: event.clientX, y: event.clientY });
  };
  for (const kind of ['pointermove', 'wheel']) document.querySelector('.plane-surface').addEventListener(kind, wish, true);
}"""
#: A hand that pans to and fro, a move with every frame. It moves in the page, as in `bench.motion`.
#: It leaves the window a little away; the next one goes the other way, and not through the same places.
HAND = """([x, y, moves, turn]) => new Promise((done) => {
  const surface = document.querySelector('.plane-surface');
  const [far, near] = [120 + turn, 40 + turn].map((size) => (turn % 2 ? -size : size));
  let k = 0;
  const step = () => {
    const clientX = x + far * Math.sin(k / 12), clientY = y + near * Math.cos(k / 9);
    surface.dispatchEvent(new PointerEvent('pointermove', { bubbles: true, pointerId: 1, buttons: 1, clientX, clientY }));
    k += 1;
    if (k === moves) done();
    else requestAnimationFrame(step);
  };
  requestAnimationFrame(step);
})"""

#: One that zooms in and out about a place, by at most 4 % with every frame.
ZOOM = """([x, y, moves]) => new Promise((done) => {
  const surface = document.querySelector('.plane-surface');
  let k = 0;
  const step = () => {
    const deltaY = 28 * Math.cos(k / 12);
    surface.dispatchEvent(new WheelEvent('wheel', { bubbles: true, cancelable: true, clientX: x, clientY: y, deltaY }));
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


def measured(page: Page, hand: str, turn: int) -> tuple[float, dict[str, Any]]:
    """Let a hand move; give the frames a second, and what was noted."""
    box = page.locator(".plane-surface").bounding_box()
    if box is None:
        raise SystemExit("there is no plane")
    page.evaluate(HOOKS)
    # Beside both axes, which would be stretched.
    x, y = box["x"] + box["width"] * 0.3, box["y"] + box["height"] / 3
    page.mouse.move(x, y)
    if hand == HAND:
        page.mouse.down()
    began = page.evaluate("() => performance.now()")
    page.evaluate(hand, [x, y, MOVES, turn])
    ended = page.evaluate("() => performance.now()")
    page.wait_for_timeout(500)
    page.mouse.up()
    noted = page.evaluate("() => { window.pan.isOn = false; return window.pan }")
    count = sum(began <= at <= ended for at in noted["frames"])
    return 1000 * count / (ended - began), noted


def drag(page: Page, turn: int) -> tuple[float, np.ndarray]:
    """Pan to and fro; give the frames a second, and the times from a move to an exact picture, ms."""
    rate, noted = measured(page, HAND, turn)
    return rate, np.array(exact_after(noted))


def zoom(page: Page, turn: int) -> tuple[float, np.ndarray]:
    """Zoom in and out; give the same. What is zoomed is exact when a later picture is painted."""
    rate, noted = measured(page, ZOOM, turn)
    painted = [picture["at"] for picture in noted["painted"]]
    wished = [wish["at"] for wish in noted["wishes"]]
    return rate, np.array(
        [painted[bisect_right(painted, at)] - at for at in wished if at < painted[-1]]
    )


def exact_after(pan: dict[str, Any]) -> list[float]:
    """Give how long it took from each wish to a frame with an exact picture, in ms.

    A picture is exact for its own window, and for one that is moved from it by no more than it was
    drawn beyond.
    """
    wishes, painted = pan["wishes"], pan["painted"]
    last = painted[-1]["asked"]
    unit = [
        (last[axis][1] - last[axis][0]) / last[px] for axis, px in (("x", "width"), ("y", "height"))
    ]

    def hand_at(asked: dict[str, Any]) -> tuple[float, float]:
        """Give where the hand was at a question: the last one was asked when it had come to rest."""
        x = wishes[-1]["x"] - (asked["x"][0] - last["x"][0]) / unit[0]
        return x, wishes[-1]["y"] + (asked["y"][0] - last["y"][0]) / unit[1]

    places = [hand_at(picture["asked"]) for picture in painted]
    wished_at = [wish["at"] for wish in wishes]
    painted_at = [picture["at"] for picture in painted]

    def is_exact(frame: float) -> bool:
        k, j = bisect_right(wished_at, frame) - 1, bisect_right(painted_at, frame) - 1
        if k < 0 or j < 0:
            return False
        away = max(abs(wishes[k]["x"] - places[j][0]), abs(wishes[k]["y"] - places[j][1]))
        return away <= painted[j]["beyond"] + 0.5

    exact = [frame for frame in pan["frames"] if is_exact(frame)]
    return [exact[bisect_right(exact, at)] - at for at in wished_at if at < exact[-1]]


def main() -> None:
    base = sys.argv[1] if len(sys.argv) > 1 else "http://127.0.0.1:8765"
    with sync_playwright() as playwright:
        browser = playwright.chromium.launch(
            executable_path="/usr/bin/chromium", args=list(ARGUMENTS)
        )
        studies = {"an empty plane": (), "six curves": ("s = 1.5", *LINES)}
        pages = {}
        for name, lines in studies.items():
            pages[name] = browser.new_page(viewport={"width": 1280, "height": 800})
            open_study(pages[name], base, lines)
        for word, hand in (("panning", drag), ("zooming", zoom)):
            found = {name: [] for name in studies}
            # In turn, for a shared machine changes its pace within seconds.
            for turn in range(ROUNDS):
                for name, page in pages.items():
                    page.bring_to_front()
                    found[name].append(hand(page, turn))
            rates = []
            for name, rounds in found.items():
                rate = float(np.median([rate for rate, _ in rounds]))
                after = np.concatenate([after for _, after in rounds])
                rates.append(rate)
                late = f"median {np.median(after):.0f} ms, p95 {np.quantile(after, 0.95):.0f} ms"
                print(f"{word}, {name}: {rate:.1f} frames a second, exact after {late}")
            print(f"  of an empty plane's frames: {rates[1] / rates[0]:.2f} (wanted: 0.9)")
        browser.close()


if __name__ == "__main__":
    with telling_what_was_taken():
        main()
