"""Panning and zooming in headless Chromium: frames against an empty plane, and how soon the picture is exact.

Run against a started Axis Path: PYTHONPATH=src .venv/bin/python -m bench.pan [address [width height]]

The size is that of the browser's window, so that two layouts can be compared on planes of one size.
"""

from __future__ import annotations

import sys
from bisect import bisect_left, bisect_right
from collections.abc import Callable
from typing import Any

import numpy as np
from playwright.sync_api import Page, sync_playwright

from bench.alone import Tab, alone
from bench.machine import telling_what_was_taken
from bench.six import LINES

MOVES = 150
#: So much more a px of the wheel shows.
WHEEL = 1.0015
#: Lines are drawn within so many px of what they show, and are exact within half a px.
DRAWN_PX, EXACT_PX = 0.45, 0.5
ROUNDS = 5
#: Lines are as wide as they should be, within this part, in a picture that is exact.
WIDE = 0.1
#: Hears of answers before the page does, which may paint them at once.
SOCKETS = """window.WebSocket = class extends WebSocket {
  constructor(...address) {
    super(...address);
    this.addEventListener('message', () => this.heard?.());
  }
};"""
#: Notes frames, where the pointer wished the window to be, and for which windows pictures were painted.
HOOKS = """() => {
  const isHooked = Boolean(window.pan);
  window.pan = { frames: [], wishes: [], answered: [], painted: [], isOn: true };
  const tick = () => { if (window.pan.isOn) { window.pan.frames.push(performance.now()); requestAnimationFrame(tick); } };
  requestAnimationFrame(tick);
  if (isHooked) return;
  const put = WebSocket.prototype.send;
  WebSocket.prototype.send = function (question) {
    const { part, window: asked, beyond = 0, stretch = 1 } = JSON.parse(question);
    const sent = performance.now();
    this.heard = () => part === 'scene' && window.pan.answered.push({ asked, beyond, stretch, sent });
    put.call(this, question);
  };
  // A picture is there when the frame in which its canvas was painted has been handed over: when the
  // frame's own task ends. What is most urgent is done first after that; a message can wait.
  const clear = CanvasRenderingContext2D.prototype.clearRect;
  CanvasRenderingContext2D.prototype.clearRect = function (...box) {
    if (this.canvas.matches('.plane-curves, .plane-sketch')) {
      const { pan } = window;
      const isNew = pan.answered.length > 0;
      // Without a new answer it is the last one again, for another window.
      pan.picture = pan.answered.splice(0).pop() ?? pan.picture;
      const picture = pan.latest = { ...pan.picture, isNew, of: performance.now() };
      if (this.canvas.matches('.plane-curves')) pan.madeAt = picture.of;
      if (pan.picture) requestAnimationFrame(() => {
        scheduler.postTask(() => pan.painted.push({ at: performance.now(), ...picture }), { priority: 'user-blocking' });
      });
    }
    return clear.apply(this, box);
  };
  // A copy of the curves is of the window that they were painted for.
  const copy = CanvasRenderingContext2D.prototype.drawImage;
  CanvasRenderingContext2D.prototype.drawImage = function (...all) {
    if (this.canvas.matches('.plane-sketch') && window.pan.madeAt) window.pan.latest.of = window.pan.madeAt;
    copy.apply(this, all);
  };
  const wish = (event) => {
    if (event.buttons || event.type === 'wheel') window.pan.wishes.push({ at: performance.now(), x: event.clientX, y: event.clientY, turned: event.deltaY ?? 0 });
  };
  for (const kind of ['pointermove', 'wheel']) document.querySelector('.plane-surface').addEventListener(kind, wish, true);
}"""
#: A pointer that pans to and fro, a move with every frame. It moves in the page, as in `bench.motion`.
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

#: One that turns the wheel a click at a time, and looks at the picture between two.
CLICKS = """([x, y, moves, turn]) => new Promise((done) => {
  const surface = document.querySelector('.plane-surface');
  let k = 0;
  const click = () => {
    // To no window twice: the page knows those it has seen.
    const deltaY = ((k + turn) % 3 ? -40 : 80) + k / 7;
    surface.dispatchEvent(new WheelEvent('wheel', { bubbles: true, cancelable: true, clientX: x, clientY: y, deltaY }));
    k += 1;
    if (k === 20) done();
    else setTimeout(click, 300 + 13 * (k % 5));
  };
  click();
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


def measured(tab: Tab, hand: str, turn: int) -> tuple[float, dict[str, Any]]:
    """Let a pointer move; give the frames a second, and what was noted."""
    page = tab.page
    page.bring_to_front()
    box = page.locator(".plane-surface").bounding_box()
    if box is None:
        raise SystemExit("there is no plane")
    page.evaluate(HOOKS)
    # Beside both axes, which would be stretched.
    x, y = box["x"] + box["width"] * 0.3, box["y"] + box["height"] / 3
    page.mouse.move(x, y)
    if hand == HAND:
        page.mouse.down()
    page = tab.move(hand, [x, y, MOVES, turn], 20 * 0.326 if hand == CLICKS else MOVES / 60)
    page.mouse.up()
    noted = page.evaluate("() => { window.pan.isOn = false; return window.pan }")
    began, ended = (noted["wishes"][k]["at"] for k in (0, -1))
    count = sum(began < at <= ended for at in noted["frames"])
    return 1000 * count / (ended - began), noted


def drag(tab: Tab, turn: int) -> tuple[float, np.ndarray, np.ndarray]:
    """Pan to and fro; give the frames a second, and how late exact pictures and new ones were, in ms.

    A picture is exact for its own window, and for one that is moved from it by no more than it was
    drawn beyond.
    """
    rate, noted = measured(tab, HAND, turn)
    places = hands_at(noted)

    def is_exact(wish: int, picture: int) -> bool:
        there, asked = noted["wishes"][wish], places[picture]
        away = max(abs(there["x"] - asked[0]), abs(there["y"] - asked[1]))
        return bool(away <= noted["painted"][picture]["beyond"] + 0.5)

    return rate, exact_after(noted, is_exact), anew_after(noted)


def zoom(tab: Tab, turn: int) -> tuple[float, np.ndarray, np.ndarray]:
    """Zoom in and out; give the same.

    A picture is taken as exact as long as it fills the window, its lines are within half a px, for it
    tells how much larger they may be shown, and they are as wide as they should be, within a tenth.
    """
    rate, noted = measured(tab, ZOOM, turn)
    box: Any = tab.page.locator(".plane-surface").bounding_box() or {}
    last = noted["painted"][-1]["asked"]
    # How much each window shows of the last one.
    shown = np.exp(np.cumsum([0.0, *(np.log(WHEEL) * wish["turned"] for wish in noted["wishes"])]))
    spans = (shown / shown[-1])[1:]
    at = noted["wishes"][-1]
    reaches = [
        at["x"] - box["x"],
        last["width"] - at["x"] + box["x"],
        at["y"] - box["y"],
        last["height"] - at["y"] + box["y"],
    ]

    wished = [wish["at"] for wish in noted["wishes"]]

    def is_exact(wish: int, picture: int) -> bool:
        made = noted["painted"][picture]
        wider = spans[max(bisect_right(wished, made["of"]) - 1, 0)] / spans[wish]
        span = (made["asked"]["x"][1] - made["asked"]["x"][0]) / (last["x"][1] - last["x"][0])
        stretch = span / spans[wish]
        # How much is seen of what was painted on the way is another question: it fills the window.
        return (
            abs(np.log(wider)) <= np.log1p(WIDE)
            and stretch <= made["stretch"] * EXACT_PX / DRAWN_PX
            and all((far + made["beyond"]) * stretch >= far - 0.5 for far in reaches)
        )

    return rate, exact_after(noted, is_exact), anew_after(noted)


def click(tab: Tab, turn: int) -> np.ndarray:
    """Turn the wheel a click at a time; give how late the picture of the very window was, in ms."""
    _, noted = measured(tab, CLICKS, turn)
    wished = [wish["at"] for wish in noted["wishes"]]
    last_asked = {}
    for picture in noted["painted"]:
        last_asked[bisect_right(wished, picture["at"]) - 1] = picture["asked"]
    found = []
    for k, at in enumerate(wished):
        # The last picture before the next click is of the very window.
        right = last_asked.get(k)
        shown = [
            picture["at"]
            for picture in noted["painted"]
            if picture["sent"] >= at and right and picture["asked"]["x"] == right["x"]
        ]
        if shown:
            found.append(min(shown) - at)
    return np.array(found)


def anew_after(noted: dict[str, Any]) -> np.ndarray:
    """Return how long it took from each wish to a picture that was asked for then, or later, in ms."""
    anew = [picture for picture in noted["painted"] if picture["isNew"]]
    sent = [picture["sent"] for picture in anew]
    wished = [wish["at"] for wish in noted["wishes"]]
    return np.array([anew[bisect_left(sent, at)]["at"] - at for at in wished if at <= sent[-1]])


def hands_at(pan: dict[str, Any]) -> list[tuple[float, float]]:
    """Return where the pointer was when each picture was asked for, on the screen in px."""
    wishes, painted = pan["wishes"], pan["painted"]
    last = painted[-1]["asked"]
    unit = [
        (last[axis][1] - last[axis][0]) / last[px] for axis, px in (("x", "width"), ("y", "height"))
    ]

    def hand_at(asked: dict[str, Any]) -> tuple[float, float]:
        """Return where the pointer was at a question: the last one was asked when it had come to rest."""
        x = wishes[-1]["x"] - (asked["x"][0] - last["x"][0]) / unit[0]
        return x, wishes[-1]["y"] + (asked["y"][0] - last["y"][0]) / unit[1]

    return [hand_at(picture["asked"]) for picture in painted]


def exact_after(pan: dict[str, Any], is_right: Callable[[int, int], bool]) -> np.ndarray:
    """Return how long it took from each wish to a frame whose picture is right for where the pointer is, in ms."""
    wishes, painted = pan["wishes"], pan["painted"]
    wished_at = [wish["at"] for wish in wishes]
    painted_at = [picture["at"] for picture in painted]

    def is_exact(frame: float) -> bool:
        k, j = bisect_right(wished_at, frame) - 1, bisect_right(painted_at, frame) - 1
        return k >= 0 and j >= 0 and is_right(k, j)

    exact = [frame for frame in pan["frames"] if is_exact(frame)]
    return np.array([exact[bisect_right(exact, at)] - at for at in wished_at if at < exact[-1]])


def main() -> None:
    base = sys.argv[1] if len(sys.argv) > 1 else "http://127.0.0.1:8765"
    width, height = map(int, sys.argv[2:4]) if len(sys.argv) > 3 else (1280, 800)
    with sync_playwright() as playwright, alone(playwright) as browser:
        studies = {"an empty plane": (), "six curves": ("s = 1.5", *LINES)}
        tabs = {}
        for name, lines in studies.items():
            tabs[name] = browser.open(name, width, height, SOCKETS)
            open_study(tabs[name].page, base, lines)
            plane: Any = tabs[name].page.locator(".plane-surface").bounding_box() or {}
            print(f"{name}: a plane of {plane['width']:.0f} by {plane['height']:.0f} px")
        for word, hand in (("panning", drag), ("zooming", zoom)):
            found: Any = {name: [] for name in studies}
            # In turn, for a shared machine changes its pace within seconds.
            for turn in range(ROUNDS):
                for name, tab in tabs.items():
                    found[name].append(hand(tab, turn))
            rates = []
            for name, rounds in found.items():
                rate = float(np.median([rate for rate, _, _ in rounds]))
                rates.append(rate)
                exact, anew = (
                    f"median {np.median(after):.0f} ms, p95 {np.quantile(after, 0.95):.0f} ms"
                    for after in (np.concatenate([one[k] for one in rounds]) for k in (1, 2))
                )
                print(
                    f"{word}, {name}: {rate:.1f} frames a second, exact after {exact}, made anew after {anew}"
                )
            print(f"  of an empty plane's frames: {rates[1] / rates[0]:.2f} (wanted: 0.9)")
        for name, tab in tabs.items():
            after = np.concatenate([click(tab, turn) for turn in range(ROUNDS)])
            print(
                f"clicks of the wheel, {name}: exact after median {np.median(after):.0f} ms, "
                f"p95 {np.quantile(after, 0.95):.0f} ms (wanted: 80), {len(after)} clicks"
            )


if __name__ == "__main__":
    with telling_what_was_taken():
        main()
