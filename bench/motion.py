"""From a slider's drag to the painted picture, with six curves, marks and a table; and twenty at once.

Run against a started Axis Path: PYTHONPATH=src .venv/bin/python -m bench.motion [address [six]]

With ``six`` only the six curves are dragged, to compare two versions in turn.

The yardstick is the same drag over states that the page knows already, without the server. A
picture counts as painted when the frame that shows it has been handed over: at the first urgent
task after the animation frame that follows the drawing.
"""

from __future__ import annotations

import http.client
import json
import re
import sys
import threading
import time
import zlib
from typing import Any

import numpy as np
from playwright.sync_api import Browser, Page, sync_playwright

from bench.alone import Tab, alone
from bench.machine import telling_what_was_taken
from bench.scene_socket import socket_of

STEPS = 150
ROUNDS = 5
#: A pointer that starts, hurries, slows down and stops, and moves each frame: least jerk (Flash and
#: Hogan, J. Neurosci. 5, 1985). It comes from the middle of the plane, in the time that it takes to
#: point with a mouse (MacKenzie, Sellen and Buxton, Proc. CHI 1991: -107 ms + 223 ms for each bit),
#: and is still for 0.1 s before and after it takes hold. It moves in the page, for the driver would
#: take a core for itself.
HAND = """async ([left, width, y, steps, pauseMs, comes]) => {
  const track = document.querySelector('.track');
  const row = track.closest('.slider');
  const pause = (ms) => new Promise((done) => setTimeout(done, ms));
  const say = (at, name, clientX) => at.dispatchEvent(new PointerEvent(name, { bubbles: name !== 'pointerenter', pointerId: 1, clientX, clientY: y }));
  const move = (from, by, frames, pauseMs, tell) => new Promise((done) => {
    let k = 0;
    const step = () => {
      k += 1;
      const t = k / frames;
      tell(from + by * t ** 3 * (10 - 15 * t + 6 * t * t));
      if (k === frames) done();
      else if (pauseMs) setTimeout(step, pauseMs);
      else requestAnimationFrame(step);
    };
    requestAnimationFrame(step);
  });
  if (comes) {
    const { left: plane, width: wide } = document.querySelector('.plane-surface').getBoundingClientRect();
    const { right } = row.getBoundingClientRect();
    const from = plane + wide / 2;
    const comesMs = -107 + 223 * Math.log2((from - left) / 10 + 1);
    let isThere = false;
    await move(from, left - from, Math.round(comesMs / (1000 / 60)), 0, (x) => {
      if (x < right && !isThere) say(row, 'pointerenter', x);
      isThere = x < right;
      if (isThere) say(track, 'pointermove', x);
    });
    await pause(100);
  }
  say(track, 'pointerdown', left);
  if (comes) await pause(100);
  Object.assign(window.motion, { moves: [], paints: [], asked: 0, requests: 0 });
  window.sockets.most = 0;
  await move(left, width, steps, pauseMs, (x) => say(track, 'pointermove', x));
  say(row, 'pointerleave', left + width);
}"""
LINES = (
    "f(x) = x^3/20 - x + s/3", "g(x) = (x^2 + 1)/((x - 3)(x + 4)) + s/4", "h(x) = 3exp(-x/5) sin(3x + s)",
    "q(x) = x^2/4 for x < 0; 2 - x for 0 <= x < 3; s otherwise",
    "P(t) = (5cos(3t), 4sin(2t + s)) for 0 <= t <= 2pi", "r(theta) = 2 + s sin(4theta) for 0 <= theta <= 2pi",
)  # fmt: skip
BROWSERS, DRAGS = 20, 40
HOOKS = """async ([delay]) => {
  const { _x_dataStack: scopes } = document.querySelector('.track').closest('.slider');
  const slider = () => scopes.find((scope) => 'slider' in scope).slider;
  const m = window.motion ??= { texts: [] };
  Object.assign(m, { moves: [], paints: [], asked: 0, requests: 0, delay });
  if (m.isHooked) return;
  m.isHooked = true;
  const clear = CanvasRenderingContext2D.prototype.clearRect;
  const none = Symbol('nothing painted');
  let painted = none;
  CanvasRenderingContext2D.prototype.clearRect = function (...box) {
    painted = slider().value;
    return clear.apply(this, box);
  };
  // What was painted before an animation frame is in it. It is handed over when the frame's own task
  // ends, and what is most urgent is done first after that: a message can wait for other tasks.
  const frame = () => {
    if (painted !== none) {
      const value = painted;
      painted = none;
      scheduler.postTask(() => m.paints.push([performance.now(), value]), { priority: 'user-blocking' });
    }
    requestAnimationFrame(frame);
  };
  requestAnimationFrame(frame);
  const track = document.querySelector('.track');
  // Not with every move: that would lay out the page.
  const box = track.getBoundingClientRect();
  track.addEventListener('pointermove', (event) => {
    const { low_value: low, high_value: high, step_value: step } = slider();
    const grain = Math.max(1, Math.floor((high - low) / step / box.width)) * step;
    const steps = Math.round(((event.clientX - box.left) / box.width) * (high - low) / grain);
    m.moves.push([performance.now(), low + steps * grain]);
  }, true);
  // Scenes travel on the socket; on the way they can be delayed.
  const put = WebSocket.prototype.send;
  WebSocket.prototype.send = function (question) {
    m.asked += 1;
    this.addEventListener('message', ({ data }) => { m.texts = [data, ...m.texts.slice(0, 149)]; }, { once: true, capture: true });
    if (m.delay) setTimeout(() => put.call(this, question), m.delay);
    else put.call(this, question);
  };
  const real = window.fetch;
  window.fetch = (path, options) => {
    if (String(path).endsWith('/scene')) m.requests += 1;
    return real(path, options);
  };
}"""

#: A place on the plane beside the axes and the reading line, which a pointer could take hold of.
NEXT_TO_HANDLE = """() => {
  const { left, top, width, height } = document.querySelector('.plane-surface').getBoundingClientRect();
  const lines = [...document.querySelectorAll('.axis-line, .reading-line')].map((line) => line.getBoundingClientRect().left);
  const away = (x) => Math.min(...lines.map((line) => Math.abs(line - x)));
  const places = [0.2, 0.3, 0.4, 0.5, 0.6].map((part) => left + part * width);
  return [places.sort((a, b) => away(b) - away(a))[0], top + 0.2 * height];
}"""

#: Notes the first frame in which the plane has its picture.
SHOWN = """const look = () => {
  if (document.querySelector('.tick-label')) window.shownAt = performance.now();
  else requestAnimationFrame(look);
};
requestAnimationFrame(look);"""

#: Counts the questions on sockets that are not answered yet: before the page itself hears of an answer.
SOCKETS = """window.sockets = { under: 0, most: 0 };
window.WebSocket = class extends WebSocket {
  constructor(...address) {
    super(...address);
    this.addEventListener('message', ({ isTrusted }) => { if (isTrusted) window.sockets.under -= 1; });
  }
  send(question) {
    window.sockets.most = Math.max(window.sockets.most, ++window.sockets.under);
    super.send(question);
  }
};"""


#: Opens each tab once, then again: the times in ms until a frame shows its content, which is of the
#: present state.
TABS = """async () => {
  const tabs = [...document.querySelectorAll('.panel-tab')];
  const frame = () => new Promise((done) => requestAnimationFrame(() => scheduler.postTask(done, { priority: 'user-blocking' })));
  const open = async (tab) => {
    const began = performance.now();
    tab.click();
    const panel = document.getElementById(tab.getAttribute('aria-controls'));
    const isThere = () => panel.offsetHeight > 0 && panel.innerText.length > 60 && !panel.querySelector('[aria-busy="true"]');
    do await frame(); while (!isThere() && performance.now() - began < 3000);
    return performance.now() - began;
  };
  const pause = () => new Promise((done) => setTimeout(done, 700));
  const times = {};
  for (const round of [0, 1, 2, 3]) {
    for (const tab of tabs) {
      const ms = await open(tab);
      await pause();
      if (round) times[tab.textContent] = Math.max(times[tab.textContent] ?? 0, ms);
    }
  }
  return times;
}"""


def drag(tab: Tab, *, delay: int = 0, pause_ms: int = 0, comes: bool = True) -> dict[str, float]:
    """Drag the first slider from end to end; give times in ms, frames a second and counts.

    Args:
        tab: the page.
        delay: so much later each question is sent, in ms.
        pause_ms: how long the pointer waits after each move; 0 for the next frame.
        comes: whether the pointer comes from the plane, as hands do, or takes hold from nowhere.
    """
    page = tab.page
    page.evaluate(HOOKS, [delay])
    box = page.locator(".track").first.bounding_box()
    if box is None:
        raise SystemExit("the study has no slider")
    left, width, y = box["x"] + 10, box["width"] - 20, box["y"] + 10
    page.mouse.move(left + width, y + 300)
    given = [left, width, y, STEPS, pause_ms, comes]
    page = tab.move(HAND, given, 2 + STEPS * max(1 / 60, pause_ms / 1000))
    trace = page.evaluate("() => ({ ...window.motion, most: window.sockets.most })")
    page.keyboard.press("Escape")
    page.wait_for_timeout(400)
    times, last = [], -np.inf
    for asked, wanted in trace["moves"]:
        if wanted > last + 1e-9:
            last = wanted
            shown = [at for at, value in trace["paints"] if at >= asked and value >= wanted - 1e-9]
            times.append(min(shown, default=np.inf) - asked)
    # While the pointer really moves, and pictures that differ.
    moving = [at for at, _ in trace["moves"]]
    values: Any = {}
    for at, value in trace["paints"]:
        if moving[0] <= at <= moving[-1]:
            values.setdefault(value, at)
    return {
        "moves": len(times), "p50": float(np.median(times)), "p95": float(np.quantile(times, 0.95)),
        "frames": 1000 * len(values) / (moving[-1] - moving[0]),
        "most": trace["most"], "asked": trace["asked"], "requests": trace["requests"],
    }  # fmt: skip


def compare(tab: Tab, what: str, *, comes: bool = True) -> None:
    """Drag with the server and replay the same in turn, and print the medians of the rounds.

    In turn, for a shared machine changes its pace within seconds. Each round begins with a window of
    its own, in which no state is known: first over them all, then slowly until all are known, and
    over them again, which needs no server.

    Args:
        tab: the page.
        what: what is dragged.
        comes: whether the pointer comes to the slider as hands do, or is on it at once.
    """
    put(tab.page)
    drag(tab, comes=comes)
    rounds: dict[str, list[dict[str, float]]] = {"first over": [], "again over": []}
    for _ in range(ROUNDS):
        nudge(tab.page)
        rounds["first over"].append(drag(tab, comes=comes))
        drag(tab, pause_ms=50)
        rounds["again over"].append(drag(tab, comes=comes))
    first, again = (
        {name: float(np.median([one[name] for one in trace])) for name in trace[0]}
        for trace in rounds.values()
    )
    ratios = [a["frames"] / b["frames"] for a, b in zip(*rounds.values(), strict=True)]
    print(what)
    for name, trace in zip(rounds, (first, again), strict=True):
        print(f"  {name:10} {trace['moves']:.0f} moves, p50 {trace['p50']:.1f} ms, p95 {trace['p95']:.1f} ms, "
              f"{trace['frames']:.1f} frames a second, {trace['asked']:.0f} states asked for, {trace['most']:.0f} under way at most, "
              f"{trace['requests']:.0f} not on the socket")  # fmt: skip
    print(f"  ratios: p50 {first['p50'] / again['p50']:.2f}, p95 {first['p95'] / again['p95']:.2f} "
          f"(wanted: 2), frames {first['frames'] / again['frames']:.2f} (wanted: 0.9), "
          f"round for round {', '.join(f'{ratio:.2f}' for ratio in ratios)}, median {np.median(ratios):.2f}")  # fmt: skip


def put(page: Page) -> None:
    """Put the knob where the pointer will take hold of it."""
    box = page.locator(".track").first.bounding_box()
    if box is None:
        raise SystemExit("the study has no slider")
    page.mouse.click(box["x"] + 10, box["y"] + 10)
    page.wait_for_timeout(1_000)


def nudge(page: Page) -> None:
    """Move the window by some px: nothing of what the page knows is of this window."""
    x, y = page.evaluate(NEXT_TO_HANDLE)
    page.mouse.move(x, y)
    page.mouse.down()
    page.mouse.move(x + 12, y, steps=4)
    page.mouse.up()
    page.wait_for_timeout(1_000)


def make_six_curves(page: Page, base: str) -> None:
    """Make a study with six curves, four lanes with marks and a table."""
    page.goto(f"{base}/studies")
    page.get_by_role("button", name="New study").click()
    page.wait_for_selector(".tick-label")
    page.wait_for_timeout(400)
    for line in ("s = 0.5", *LINES):
        page.locator("#new-line").fill(line)
        page.locator("#new-line").press("Enter")
        page.wait_for_timeout(300)
    page.locator(".slider-head [aria-expanded]").first.click()
    for name, value in (("low", "0"), ("high", "3"), ("step", "0.01")):
        page.locator(f".slider-range [name={name}]").fill(value)
    page.get_by_role("button", name="Keep", exact=True).click()
    page.get_by_role("tab", name="Values").click()
    page.locator(".table-form input").first.fill("-5")
    page.locator(".table-form input").nth(2).fill("0.2")
    page.keyboard.press("Enter")
    page.wait_for_timeout(1_500)


def ask_findings(page: Page) -> None:
    """Put three questions into the ledger, and show it."""
    page.get_by_role("tab", name="Findings").click()
    for what, lines in (("zeros", "h"), ("extrema", "f"), ("intersections", "fg")):
        page.get_by_label("What to locate").select_option(what)
        for label, line in zip(("Of which line", "Of which second line"), lines, strict=False):
            page.wait_for_timeout(200)
            page.get_by_label(label).select_option(label=line)
        page.get_by_role("button", name="Locate", exact=True).click()
        page.wait_for_timeout(1_000)


def twenty(base: str, address: str) -> None:
    """Twenty at once: each drags a study of its own, and sees its own values only."""
    times: list[float] = []
    faults: list[str] = []
    lock = threading.Lock()
    together = threading.Barrier(BROWSERS)

    def one(number: int) -> None:
        client = http.client.HTTPConnection(base.removeprefix("http://"))
        client.request("GET", address)
        page = client.getresponse().read().decode()
        state = json.loads(re.search(r'id="bench-state">(.*?)</script>', page, re.S)[1])  # type: ignore[index]
        slider = 1
        # In a window of its own: what was drawn for another is known.
        low, high = state["view"]["window"]["x"]
        window = {
            **state["view"]["window"],
            "x": [low - number / 1_000, high],
            "width": 660,
            "height": 430,
        }
        socket = socket_of(base, f"{address}/socket")
        together.wait(timeout=60)
        for k in range(DRAGS):
            value = round(0.1 * number + 0.01 * k, 2)
            began = time.perf_counter()
            data = socket.ask(json.dumps({
                "part": "scene", "version": state["version"], "drafts": [{"do": "set", "id": slider, "value": value}],
                "window": window, "reading": None,
            }))  # fmt: skip
            spent = 1000 * (time.perf_counter() - began)
            # Read with little effort: the twenty share the machine with the server.
            match = re.search(r'"short":"[^"]*","value":([-0-9.e]+)', data)
            shown = float(match[1]) if match else None
            with lock:
                times.append(spent)
                if shown is None or abs(shown - value) > 1e-9:
                    faults.append(f"{shown} for {value}: {data[:80]}")
            time.sleep(max(0.016 - spent / 1000, 0))
        socket.close()

    threads = [threading.Thread(target=one, args=(number,)) for number in range(BROWSERS)]
    for thread in threads:
        thread.start()
    for thread in threads:
        thread.join()
    print(f"{BROWSERS} at once, {DRAGS} values each: p50 {np.median(times):.0f} ms, "
          f"p95 {np.quantile(times, 0.95):.0f} ms (wanted: 250), {len(faults)} faults {faults[:3]}")  # fmt: skip


def weigh(browser: Browser, address: str) -> None:
    """Load the Bench anew, with an empty cache: how soon it is shown, and how much is sent."""
    page = browser.new_context(viewport={"width": 1280, "height": 800}).new_page()
    page.add_init_script(SHOWN)
    # The browser makes a page of its own for each new window.
    page.wait_for_timeout(2_500)
    page.goto(address)
    page.wait_for_function("() => window.shownAt")
    shown = page.evaluate("() => window.shownAt")
    sizes = page.evaluate(
        "() => performance.getEntries().filter((e) => e.transferSize !== undefined).map((e) => [e.name, e.transferSize])"
    )
    total = sum(size for name, size in sizes if "/fonts/" not in name)
    print(
        f"Bench shown after {shown:.0f} ms (wanted: 1000), {total / 1000:.0f} kB without fonts (wanted: 500)"
    )
    page.wait_for_timeout(1_500)
    times = page.evaluate(TABS)
    shown_in = ", ".join(f"{name} {ms:.0f}" for name, ms in times.items())
    print(f"from a tab to its content, after the first time, at most: {shown_in} ms (wanted: 100)")
    page.context.close()


def set_step(page: Page, step: str) -> None:
    page.locator(".slider-head [aria-expanded]").first.click()
    page.locator(".slider-range [name=step]").fill(step)
    page.get_by_role("button", name="Keep", exact=True).click()
    page.wait_for_timeout(500)


def main() -> None:
    base = sys.argv[1] if len(sys.argv) > 1 else "http://127.0.0.1:8765"
    if sys.argv[2:] == ["six"]:
        with sync_playwright() as playwright, alone(playwright) as browser:
            tab = browser.open("six", 1280, 900, SOCKETS)
            make_six_curves(tab.page, base)
            compare(tab, "six curves, four lanes with marks, a table of 50 rows")
        return
    with sync_playwright() as playwright, alone(playwright) as browser:
        tab = browser.open("tide", 1280, 800, SOCKETS)
        page = tab.page
        page.goto(f"{base}/studies?q=Morning+tide")
        # A copy: what the pointer keeps is no part of the demo.
        page.get_by_role("button", name="Duplicate Morning tide", exact=True).first.click()
        page.locator(".study-title", has_text="Morning tide (copy)").first.click()
        page.wait_for_selector(".tick-label")
        page.wait_for_timeout(1_000)
        weigh(browser.browser, page.url)
        compare(tab, "three curves (Morning tide)")
        set_step(tab.page, "1/1000")
        compare(tab, "the same, with steps finer than a pixel")
        tab.page.close()
        tab = browser.open("six", 1280, 900, SOCKETS)
        make_six_curves(tab.page, base)
        compare(tab, "six curves, four lanes with marks, a table of 50 rows")
        compare(tab, "the same, by a pointer from nowhere that moves at once", comes=False)
        nudge(tab.page)
        slow = drag(tab, delay=40)
        print(f"  40 ms added to every request: {slow['frames']:.1f} frames a second (wanted: 20), "
              f"p95 {slow['p95']:.0f} ms, {slow['most']} under way at most")  # fmt: skip
        page = tab.page
        # Some answers are of several states.
        texts = [
            text for text in page.evaluate("() => window.motion.texts") if '"prefetch"' not in text
        ]
        for how, sizes in (
            ("deflated", [len(zlib.compress(text.encode())) for text in texts]),
            (
                "as they are, between programs of one machine",
                [len(text.encode()) for text in texts],
            ),
        ):
            print(
                f"  bytes of a frame, {how}: median {np.median(sizes):,.0f}, most {max(sizes):,.0f} (wanted: 25,000)"
            )
        ask_findings(page)
        address = page.url.removeprefix(base)
        page.close()
        tab = browser.open("findings", 1280, 900, SOCKETS)
        tab.page.goto(f"{base}{address}")
        tab.page.wait_for_selector(".tick-label")
        tab.page.wait_for_timeout(2_500)
        compare(tab, "the same, with three findings shown in place of the table")
    twenty(base, address)


if __name__ == "__main__":
    with telling_what_was_taken():
        main()
