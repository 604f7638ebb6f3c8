"""What moves: sliders that play, runners, trails, families and sweeps, with a real page and worker."""

import json
import os
import re
import subprocess
import sys
import tempfile
import time
from itertools import pairwise
from typing import Any

from tests.browser.bench import BrowserTest


class MotionTest(BrowserTest):
    def value(self, name: str) -> float:
        return float(
            self.page.locator(f'[data-slider="{name}"] .slider-value')
            .input_value()
            .replace("−", "-")
        )

    def until(self, condition: str, *, argument: object = None) -> None:
        self.page.wait_for_function(condition, arg=argument)

    def set_range(self, slider: str, /, **fields: str) -> None:
        self.page.get_by_role(
            "button", name=f"Range, step and motion of {slider}", exact=True
        ).click()
        form = self.page.locator(".slider-range")
        for field, value in fields.items():
            target = form.locator(f"[name={field}]")
            if field in ("kind", "at_end"):
                target.select_option(value)
            elif field in ("in_step", "backward"):
                target.set_checked(value == "yes")
            else:
                target.fill(value)
        form.get_by_role("button", name="Keep").click()
        self.settle()

    def trail(self, line: int) -> list[Any]:
        """What the study keeps, read anew from the server."""
        page = self.page.request.get(self.page.url).text()
        found: list[Any] = self.page.evaluate(
            "([page, line]) => JSON.parse(new DOMParser().parseFromString(page, 'text/html')"
            ".getElementById('bench-state').textContent).trails[line] ?? []", [page, str(line)])  # fmt: skip
        return found

    def test_a_slider_plays_by_the_clock_and_is_stopped_by_one_key(self) -> None:
        self.open_new_study("f(x) = a x + b", "a = 0", "b = 0")
        for name in ("a", "b"):
            self.set_range(
                name, low="0", high="10", step="0.001", seconds="5", at_end="stop", in_step="yes"
            )
        self.page.evaluate(
            "() => { window.seen = []; const field = document.querySelector('.slider-value');"
            " setInterval(() => window.seen.push([performance.now(), Number(field.value)]), 20) }"
        )
        self.page.get_by_role("button", name="Play a", exact=True).click()
        self.until("() => window.seen.at(-1)[1] > 3")
        # Two a second by the page's own clock, whatever the machine can draw.
        moving = [pair for pair in self.page.evaluate("() => window.seen") if pair[1] > 0]
        (first, low), (last, high) = moving[0], moving[-1]
        self.assertAlmostEqual(2, 1000 * (high - low) / (last - first), delta=0.5)
        # In step: the other goes with it, and the picture is of both.
        both = self.page.evaluate(
            "() => [...document.querySelectorAll('.slider-value')].map((each) => Number(each.value))"
        )
        self.assertAlmostEqual(both[0], both[1], places=6)
        self.assertTrue(self.page.get_by_role("button", name="Stop all motion").is_visible())
        self.page.keyboard.press("Space")
        self.settle()
        rest = self.value("a")
        self.page.wait_for_timeout(300)
        self.assertEqual(rest, self.value("a"))
        self.page.reload()
        self.page.wait_for_selector(".tick-label")
        self.settle()
        self.assertEqual(rest, self.value("a"))
        # One undo for the whole motion; playing on, it stops by itself at the end.
        self.set_range("a", seconds="0.4", in_step="no")
        self.page.get_by_role("button", name="Play a", exact=True).click()
        self.until("() => document.querySelector('.slider-value').value === '10'")
        self.page.get_by_role("button", name="Play a", exact=True).wait_for()
        self.settle()
        self.assertEqual(10, self.value("a"))
        self.page.get_by_role("button", name="Undo").click()
        self.settle()
        self.assertEqual(rest, self.value("a"))

    def test_pointer_near_a_slider_prefetches_until_it_leaves(self) -> None:
        asked: list[float] = []
        # A page whose clock is ten times slower takes every answer for a quick one, however busy
        # the machine is: what takes long is not prefetched any more.
        self.page.add_init_script(
            "const now = performance.now.bind(performance); performance.now = () => now() / 10"
        )

        def note(question: str | bytes) -> None:
            given = json.loads(question)
            if given["part"] == "scene" and given["drafts"]:
                asked.extend(
                    draft[0]["value"] for draft in [given["drafts"], *given.get("prefetch", [])]
                )

        self.page.on("websocket", lambda socket: socket.on("framesent", note))
        self.open_new_study("f(x) = x^2 - a", "a = 2")
        self.set_range("a", low="0", high="4", step="1/50")
        track = self.page.get_by_role("slider", name="Slider a")
        box = self.box(track)
        middle = box["x"] + box["width"] / 2, box["y"] + box["height"] / 2
        self.page.mouse.move(middle[0], middle[1] + 300)
        self.page.wait_for_timeout(300)
        asked.clear()
        # Anywhere on the slider's row: it is on its way to the knob.
        self.page.mouse.move(middle[0], middle[1] - box["height"] - 4)
        # What stands and the nearest on both sides, then ever coarser to the ends, and then all else.
        steps: list[int] = []
        deadline = time.monotonic() + 20
        while not {0, 200} < set(steps) and time.monotonic() < deadline:
            self.page.wait_for_timeout(100)
            steps = list(dict.fromkeys(round(50 * value) for value in asked))
        self.assertEqual(list(range(94, 107)), sorted(steps[:13]))
        self.assertTrue({0, 200} < set(steps))
        # It comes to the track without asking for the same again.
        self.page.mouse.move(*middle)
        self.page.wait_for_timeout(300)
        # Nothing is stored or shown of what nobody wished; what is wished then is at hand.
        self.assertEqual(2, self.value("a"))
        self.page.mouse.move(middle[0], middle[1] + 200)
        self.page.wait_for_timeout(300)
        asked.clear()
        self.page.wait_for_timeout(400)
        self.assertEqual([], asked)
        track.focus()
        self.page.keyboard.press("ArrowRight")
        self.page.wait_for_timeout(40)
        self.settle()
        self.assertEqual(2.02, self.value("a"))
        self.assertNotIn(2.02, asked)

    def test_fast_drag_ends_at_its_target(self) -> None:
        self.open_new_study("f(x) = x^2 - a", "a = 1")
        self.set_range("a", low="0", high="4", step="1/50")
        track = self.page.get_by_role("slider", name="Slider a")
        box = self.box(track)
        height = box["y"] + box["height"] / 2
        self.page.mouse.move(box["x"] + box["width"] / 4, height)
        self.page.wait_for_timeout(1_200)
        # At each picture: what it is of, and the value that the pointer had come to.
        self.page.evaluate(
            """() => {
              const [track, field] = ['.track', '.slider-value'].map((name) => document.querySelector(name));
              const box = track.getBoundingClientRect();
              const told = { shown: [], hand: 1 };
              window.told = told;
              track.addEventListener('pointermove', ({ clientX }) => {
                told.hand = (4 * (clientX - box.left)) / box.width;
              }, true);
              new MutationObserver(() => told.shown.push([Number(track.ariaValueNow), told.hand]))
                .observe(track, { attributeFilter: ['aria-valuenow'] });
            }"""
        )
        self.page.mouse.down()
        end = round(0.83 * box["width"])
        self.page.mouse.move(box["x"] + end, height, steps=30)
        meant = round(50 * 4 * end / box["width"]) / 50
        self.until(
            f"() => Math.abs(document.querySelector('.slider-value').value - {meant}) < 1e-9"
        )
        shown = self.page.evaluate("() => window.told.shown")
        values = [value for value, _ in shown]
        self.assertGreater(len(values), 5)
        self.assertEqual(sorted(values), values)
        for value, hand in shown:
            self.assertLess(value, hand + 0.011)
        # Letting go at once keeps what the pointer means too, not what is shown on the way.
        start = round(0.3 * box["width"])
        self.page.mouse.move(box["x"] + start, height, steps=12)
        self.page.mouse.up()
        self.settle()
        meant = round(50 * 4 * start / box["width"]) / 50
        self.assertAlmostEqual(meant, self.value("a"), places=9)

    def test_returning_drag_uses_the_cache(self) -> None:
        asked: list[tuple[str, object]] = []

        def note(question: str | bytes) -> None:
            given = json.loads(question)
            if given["part"] == "scene" and given["drafts"]:
                asked.append((text, given["drafts"][0]["value"]))

        self.page.on("websocket", lambda socket: socket.on("framesent", note))
        text = "f(x) = x^2 - a"
        self.open_new_study(text, "a = 2")
        track = self.page.get_by_role("slider", name="Slider a")
        box = self.box(track)
        seen: dict[tuple[str, int], tuple[int, str]] = {}

        def sweep(*places: int) -> None:
            """Move along the track; the picture of a place is the same whenever it is seen."""
            for place in places:
                self.page.mouse.move(box["x"] + place, box["y"] + 8)
                self.settle()
                shown = self.ink(), self.page.locator(".slider-value").input_value()
                self.assertEqual(shown, seen.setdefault((text, place), shown))

        for _ in range(2):
            # Each pointer that lets go keeps a version of its own.
            self.page.mouse.move(box["x"] + 120, box["y"] + 8)
            self.page.mouse.down()
            sweep(120, 140, 160, 180, 160, 140, 160, 180)
            self.page.mouse.up()
            self.settle()
        self.assertEqual(len(asked), len(set(asked)), asked)
        # Another line: nothing of what is known is true any more.
        text = "f(x) = x^2 + a"
        self.row("f").locator(".row-formula").click()
        self.page.get_by_label("Text of f", exact=True).fill(text)
        self.page.keyboard.press("Enter")
        self.settle()
        self.page.mouse.move(box["x"] + 120, box["y"] + 8)
        self.page.mouse.down()
        sweep(120, 140, 160)
        self.page.mouse.up()
        self.settle()
        self.assertGreaterEqual(len({value for line, value in asked if line == text}), 2)
        self.assertNotEqual(*(seen[line, 160][0] for line in ("f(x) = x^2 - a", text)))

    def test_a_playing_slider_can_be_deleted(self) -> None:
        self.open_new_study("f(x) = a x", "a = 1", "P(t) = (cos t, sin t) for 0 <= t <= 2pi")
        self.page.get_by_role("button", name="Play a", exact=True).click()
        self.page.get_by_role("button", name="Pause a", exact=True).wait_for()
        self.page.get_by_role("button", name="Delete slider a").click()
        self.until("() => !document.querySelector('[data-slider=a]')")
        self.settle()
        undo = self.page.get_by_role("button", name="Undo", exact=True)
        self.assertIn("Delete a", undo.get_attribute("title") or "")
        self.assertEqual(0, self.page.locator(".banner:visible").count())
        undo.click()
        self.settle()
        self.assertEqual(1, self.page.locator("[data-slider=a]").count())

    def test_typed_slider_value_is_stored_as_typed(self) -> None:
        self.open_new_study("f(x) = sin(a x)", "a = 1")
        field = self.page.locator("[data-slider=a] input").first
        for text in ("1/3", "pi", "2^0.5"):
            field.fill(text)
            field.press("Enter")
            self.settle()
            self.assertEqual(text, field.input_value())
        self.page.reload()
        self.page.wait_for_selector(".tick-label")
        self.settle()
        self.assertEqual("2^0.5", field.input_value())
        self.drag(self.page.get_by_role("slider", name="Slider a"), 20)
        self.assertNotEqual("2^0.5", field.input_value())

    def test_reduced_motion_moves_in_steps(self) -> None:
        self.page = self.open_page(reduced_motion="reduce")
        self.open_new_study("f(x) = a x", "a = 0")
        self.set_range("a", low="0", high="10", step="0.001", seconds="8", at_end="restart")
        self.page.evaluate(
            "() => { window.seen = new Set(); const field = document.querySelector('.slider-value');"
            " setInterval(() => window.seen.add(field.value), 15) }"
        )
        self.page.get_by_role("button", name="Play a", exact=True).click()
        self.page.wait_for_timeout(2_600)
        seen = sorted(float(value) for value in self.page.evaluate("() => [...window.seen]"))
        self.assertLessEqual(len(seen), 5)
        for one, other in pairwise(seen):
            # Whole steps; a machine that is busy may leave one out.
            self.assertGreater(other - one, 0.9)
            self.assertAlmostEqual(round(other - one), other - one, places=6)
        self.page.keyboard.press("Space")
        self.settle()

    def test_a_trail_survives_panning_hiding_and_reloading(self) -> None:
        self.open_new_study("A = (a, a^2/4)", "a = -4")
        self.set_range("a", low="-4", high="4", step="0.5")
        self.choose_for("A", "Trail …")
        self.page.get_by_label("leave a trail").check()
        self.settle()
        self.page.get_by_role("button", name="Close", exact=True).click()
        before = self.ink()
        track = self.page.get_by_role("slider", name="Slider a")
        track.focus()
        for _ in range(12):
            self.page.keyboard.press("ArrowRight")
        self.settle()
        # It goes through every step, and the way between them is joined.
        expected = self.trail(1)
        self.assertLessEqual(
            {(a / 2, a * a / 16) for a in range(-8, 5)}, {tuple(place) for place in expected}
        )
        for x, y in expected:
            self.assertAlmostEqual(x * x / 4, y, 8)
        self.assertGreater(len(expected), 30)
        painted = self.ink()
        self.assertGreater(painted, before + 60)
        # It is drawn where it was left, wherever the picture goes.
        surface = self.page.locator(".plane-surface")
        self.drag(surface, 60, 30)
        self.assertAlmostEqual(painted, self.ink(), delta=0.25 * painted)
        self.page.get_by_role("button", name="Hide A").click()
        self.settle()
        self.assertEqual(before, self.ink())
        track.focus()
        self.page.keyboard.press("ArrowRight")
        self.settle()
        self.assertEqual(expected, self.trail(1))
        self.page.get_by_role("button", name="Hide A").click()
        # A page that is left before its last click is sent has not sent it.
        self.settle()
        self.page.reload()
        self.page.wait_for_selector(".tick-label")
        self.settle()
        self.assertAlmostEqual(painted, self.ink(), delta=0.25 * painted)

    def test_a_trail_is_read_off_thinned_and_cleared(self) -> None:
        self.open_new_study("P(t) = (t, 1) for 0 <= t <= 2", "A = (a, a^2/4)", "a = -4")
        self.set_range("a", low="-4", high="4", step="0.5")
        for name in "PA":
            self.choose_for(name, "Runner and trail …" if name == "P" else "Trail …")
            self.row(name).get_by_label("leave a trail").check()
            self.settle()
        self.page.get_by_role("slider", name="Slider a").focus()
        for _ in range(12):
            self.page.keyboard.press("ArrowRight")
        self.settle()
        self.page.get_by_role("tab", name="Values").click()
        box = self.page.locator(".trail-box")
        chosen = box.get_by_label("Which trail")
        # The first that has points, and the list says which it is.
        self.assertEqual("A", chosen.evaluate("(list) => list.selectedOptions[0].text"))
        count = int(re.search(r"(\d+) points", box.inner_text())[1])  # type: ignore[index]
        self.assertGreater(count, 30)
        chosen.select_option(label="P")
        self.assertNotIn(f"{count} points", box.inner_text())
        chosen.select_option(label="A")
        with self.page.expect_download() as waiting:
            box.get_by_role("button", name="CSV").click()
        rows = waiting.value.path().read_bytes().split(b"\r\n")
        self.assertEqual((b"x,y", b"-4.0,4.0", count + 2), (rows[0], rows[1], len(rows)))
        box.get_by_role("button", name="Thin").click()
        self.settle()
        self.assertIn(f"{(count + 1) // 2} points", box.inner_text())
        box.get_by_role("button", name="Clear").click()
        self.settle()
        self.assertEqual([], self.trail(2))

    def test_the_runner_of_a_path_is_dragged_and_played(self) -> None:
        self.open_new_study("P(t) = (3cos(t), 2sin(t)) for 0 <= t <= 2pi")
        runner = self.page.get_by_role("slider", name="Runner of P")
        self.assertEqual(0, self.page.locator(".runner-dot").count())
        lane = self.box(self.row("P").locator(".lane"))
        self.drag(runner, lane["width"] / 1.12 / 4)
        self.assertEqual(1, self.page.locator(".runner-dot").count())
        at = float(runner.get_attribute("aria-valuenow") or "0")
        self.assertAlmostEqual(1.5708, at, delta=0.03)
        dot, plane = (
            self.box(self.page.locator(".runner-dot")),
            self.box(self.page.locator(".plane-surface")),
        )
        self.assertAlmostEqual(
            plane["width"] / 2, dot["x"] + dot["width"] / 2 - plane["x"], delta=4
        )
        self.page.get_by_role("button", name="Play the runner of P").click()
        self.until(
            "(at) => Number(document.querySelector('.lane-runner').getAttribute('aria-valuenow')) > at + 0.3",
            argument=at,
        )
        self.page.get_by_role("button", name="Pause the runner of P").click()
        self.settle()
        self.page.keyboard.press("Control+z")
        self.settle()
        self.assertAlmostEqual(at, float(runner.get_attribute("aria-valuenow") or "0"), places=6)

    def test_a_family_is_drawn_with_its_values_and_can_be_too_large(self) -> None:
        self.open_new_study("f(x) = a x^2", "a = 1")
        alone = self.ink()
        self.choose_for("f", "Family of curves …")
        form = self.page.get_by_role("group", name="Family")
        form.locator("[name=count]").fill("99")
        form.get_by_role("button", name="Draw the family").click()
        self.page.get_by_text("A family has at most 24 curves; 99 are asked for.").wait_for()
        form.locator("[name=how]").select_option("values")
        form.locator("[name=values]").fill("1/4, 1/2, 2")
        form.get_by_role("button", name="Draw the family").click()
        self.settle()
        self.assertEqual(
            ["1/4", "1/2", "2"],
            sorted(self.page.locator(".value-flag").all_text_contents(), key=len, reverse=True),
        )
        self.assertGreater(self.ink(), 1.8 * alone)
        form.get_by_role("button", name="Remove family").click()
        self.settle()
        self.assertEqual(0, self.page.locator(".value-flag").count())
        self.assertAlmostEqual(alone, self.ink(), delta=20)

    def test_a_path_that_does_not_close_offers_to(self) -> None:
        self.open_new_study("r(theta) = 3cos(2theta/3)")
        self.page.get_by_role("button", name="closes at 6π").click()
        self.settle()
        self.assertFalse(self.page.get_by_role("button", name="closes at 6π").is_visible())
        self.assertIn("0≤θ≤6π", self.text(self.row("r")))

    def test_bounds_typed_with_a_slider_follow_it(self) -> None:
        self.open_new_study("f(x) = a x", "a = 2")
        right = self.page.get_by_label("right bound")
        right.fill("3a")
        right.press("Enter")
        self.settle()
        self.page.get_by_role("slider", name="Slider a").focus()
        with self.page.expect_response("**/commands") as waiting:
            self.page.keyboard.press("ArrowRight")
        self.settle()
        self.assertEqual("3a", right.input_value())
        self.assertAlmostEqual(6.3, waiting.value.json()["scene"]["window"]["x"][1], places=9)
        self.page.reload()
        self.page.wait_for_selector(".tick-label")
        self.settle()
        self.until("() => document.querySelector('[aria-label=\"right bound\"]').value === '3a'")
        self.drag(self.page.locator(".plane-surface"), 50, 20)
        self.until("() => document.querySelector('[aria-label=\"right bound\"]').value !== '3a'")

    def test_offline_slider_recovers_by_itself(self) -> None:
        self.open_new_study("f(x) = a x", "a = 0")
        track = self.page.get_by_role("slider", name="Slider a")
        box = self.box(track)
        knob = self.page.locator(".track-knob")
        self.page.mouse.move(box["x"] + box["width"] / 2, box["y"] + 8)
        self.page.mouse.down()
        self.settle()
        self.page.context.set_offline(True)
        for part in (0.55, 0.6, 0.7, 0.8):
            self.page.mouse.move(box["x"] + box["width"] * part, box["y"] + 8)
            self.page.wait_for_timeout(60)
        self.page.get_by_text("There is no connection to the server.").wait_for()
        self.page.mouse.move(box["x"] + box["width"] * 0.9, box["y"] + 8)
        self.page.wait_for_timeout(100)
        self.assertAlmostEqual(box["x"] + 0.9 * box["width"], self.centre_x(knob), delta=9)
        self.assertEqual(1, self.page.locator(".is-stale").count())
        self.page.mouse.up()
        self.page.context.set_offline(False)
        self.until("() => !document.querySelector('.is-stale')")
        self.settle()
        self.page.reload()
        self.page.wait_for_selector(".tick-label")
        self.settle()
        self.assertAlmostEqual(8, self.value("a"), delta=0.5)

    def test_sliders_are_put_in_order_copied_and_made_constants(self) -> None:
        self.open_new_study("f(x) = a x + b", "a = 1", "b = 2")
        names = self.page.locator(".slider-name")
        self.assertEqual(["a", "b"], names.all_inner_texts())
        self.page.get_by_role("button", name="Range, step and motion of b", exact=True).click()
        self.page.get_by_role("button", name="Move slider b up").click()
        self.settle()
        self.assertEqual(["b", "a"], names.all_inner_texts())
        self.page.get_by_role("button", name="Duplicate", exact=True).last.click()
        self.settle()
        self.assertEqual(["b", "b_1", "a"], names.all_inner_texts())
        self.page.get_by_role("button", name="Make constant").click()
        self.settle()
        self.assertEqual(["b_1", "a"], names.all_inner_texts())
        self.choose_for("b", "Make it a slider")
        self.assertEqual(["b", "b_1", "a"], names.all_inner_texts())
        field = self.page.locator('[data-slider="a"] .slider-value')
        field.fill("25")
        field.press("Enter")
        self.settle()
        self.page.get_by_role("button", name="Widen").click()
        self.settle()
        self.assertIn("25", self.page.locator('[data-slider="a"] .slider-ends').inner_text())

    def test_a_slider_gets_another_name_unit_and_note(self) -> None:
        self.open_new_study("f(x) = a x^2", "b = 2a", "a = 3")
        self.set_range("a", name="slack", unit="m", note="of the rope", high="9")
        slider = self.page.locator('[data-slider="slack"]')
        self.assertEqual(
            ("m", "of the rope"),
            tuple(slider.locator(f".slider-{part}").inner_text() for part in ("unit", "note")),
        )
        self.assertEqual("6", self.text(self.row("b").locator(".row-value")))
        self.assertIn("slack", self.text(self.row("f")))
        self.page.get_by_role("button", name="Range, step and motion of slack", exact=True).click()
        form = self.page.locator(".slider-range")
        for name, words in (
            ("sin", "belongs to the language"),
            ("f", "name of another line"),
            ("2", "cannot be a name"),
        ):
            form.locator("[name=name]").fill(name)
            form.get_by_role("button", name="Keep").click()
            form.get_by_text(words).wait_for()
        # A refused change changes nothing, and leaving the form forgets it.
        form.locator("[name=name]").press("Escape")
        self.settle()
        self.assertEqual(["slack"], self.page.locator(".slider-name").all_inner_texts())
        # Whoever deletes it is told who needed it, and Undo brings everything back.
        self.page.get_by_role("button", name="Delete slider slack").click()
        self.settle()
        self.assertIn("f, b needed it", self.page.locator(".notice-line").inner_text())
        self.page.get_by_role("button", name="Undo").click()
        self.settle()
        self.assertEqual("6", self.text(self.row("b").locator(".row-value")))

    def test_names_become_sliders_with_guessed_ranges(self) -> None:
        self.open_new_study("f(x) = a sin(x + c) + x^n")
        self.page.get_by_role("button", name="Add sliders for a, c, n").click()
        self.settle()
        ends = [text.split() for text in self.page.locator(".slider-ends").all_inner_texts()]
        self.assertEqual([["−10", "10"], ["0", "2π"], ["1", "10"]], ends)
        self.assertGreater(self.ink(), 200)
        self.page.get_by_role("button", name="Undo").click()
        self.settle()
        self.assertEqual(0, self.page.locator(".slider").count())

    def test_hidden_runners_stop(self) -> None:
        self.open_new_study("f(x) = a x", "a = 0")
        self.page.get_by_role("button", name="Play a", exact=True).click()
        self.until("() => Number(document.querySelector('.slider-value').value) > 0")
        self.page.get_by_role("button", name="Hide f").click()
        play = self.page.get_by_role("button", name="Play a", exact=True)
        play.wait_for()
        self.settle()
        rest = self.value("a")
        self.page.wait_for_timeout(250)
        self.assertEqual(rest, self.value("a"))
        self.assertTrue(play.is_disabled())
        self.assertIn("no visible curve uses it", self.page.locator(".slider-ends").inner_text())

    def test_findings_and_tables_catch_up_with_what_plays(self) -> None:
        self.open_new_study("f(x) = x - a", "a = 0")
        self.page.get_by_role("button", name="Locate", exact=True).click()
        self.settle()
        self.set_range("a", low="0", high="8", step="0.001", seconds="20")
        self.page.get_by_role("button", name="Play a", exact=True).click()
        # What is quick moves along; a table says that it is behind and catches up now and then.
        for _ in range(3):
            seen = self.page.locator(".finding-x").inner_text()
            self.until(f"() => document.querySelector('.finding-x').innerText !== {seen!r}")
        self.page.get_by_role("tab", name="Values").click()
        cell = self.page.locator("tr[data-value-row='0'] td")
        before = cell.inner_text()
        self.until(
            f"() => document.querySelector('tr[data-value-row] td').textContent !== {before!r}"
        )
        self.page.get_by_role("tab", name="Findings").click()
        self.page.keyboard.press("Space")
        self.settle()
        found = self.page.locator(".finding").inner_text()
        self.assertIn(f"{self.value('a'):g}", found)

    def test_the_wheel_moves_a_slider_that_has_the_focus(self) -> None:
        self.open_new_study("f(x) = a x", "a = 1")
        track = self.page.get_by_role("slider", name="Slider a")
        track.focus()
        track.hover()
        self.page.mouse.wheel(0, -100)
        self.page.mouse.wheel(0, -100)
        self.page.wait_for_timeout(500)
        self.settle()
        self.assertEqual(1.2, self.value("a"))
        self.page.keyboard.press("Alt+ArrowRight")
        self.settle()
        self.assertEqual(1.21, self.value("a"))

    def test_everything_that_moves_can_be_reached_by_all(self) -> None:
        self.open_demo("Wake")
        self.page.get_by_role("button", name="Range, step and motion of r", exact=True).click()
        self.check_access()
        self.page.keyboard.press("Escape")
        self.page.get_by_role("button", name="More for wave").click()
        self.check_access()
        self.page.get_by_role("menuitem", name="Runner and trail …").click()
        self.check_access()


class SweepTest(BrowserTest):
    @classmethod
    def setUpClass(cls) -> None:
        super().setUpClass()
        log = tempfile.TemporaryFile()
        cls.addClassCleanup(log.close)
        environment = {k: v for k, v in os.environ.items() if not k.startswith("AXIS_PATH_")}
        environment["AXIS_PATH_DATABASE_URL"] = cls.url
        worker = subprocess.Popen(
            [sys.executable, "-m", "axis_path.jobs.worker"], env=environment, stdout=log, stderr=log
        )

        def stop() -> None:
            worker.terminate()
            worker.wait(timeout=20)

        cls.addClassCleanup(stop)

    def test_a_finding_is_followed_over_a_slider(self) -> None:
        self.open_new_study("f(x) = x^2 - 2x + a", "a = 0")
        self.page.get_by_label("Search from").fill("-9")
        self.page.get_by_label("Search to").fill("9")
        self.page.get_by_label("Number of values").fill("21")
        self.page.get_by_role("button", name="Sweep", exact=True).click()
        result = self.page.locator(".sweep-result")
        result.wait_for(timeout=60_000)
        self.assertIn("Two zeros merge and vanish at a = 1, near 1.", result.inner_text())
        self.assertEqual(2, result.locator(".sweep-line").count())
        self.assertEqual("none", result.locator("tbody tr").last.locator("td").inner_text())
        with self.page.expect_download() as waiting:
            result.get_by_role("button", name="CSV").click()
        text = waiting.value.path().read_text()
        self.assertIn("a,x1,x2\n", text.replace("\r", ""))
        self.assertIn("\n0,0,2\n", text.replace("\r", ""))
        self.page.get_by_role("slider", name="Slider a").focus()
        self.page.keyboard.press("ArrowRight")
        self.settle()
        self.assertTrue(result.get_by_text("The study has changed.").is_visible())
        # A long one shows how far it is, and is given up.
        self.page.get_by_label("Number of values").fill("1001")
        self.page.get_by_role("button", name="Sweep", exact=True).click()
        self.page.get_by_role("button", name="Cancel", exact=True).click()
        self.page.get_by_text("The sweep was cancelled.").wait_for()
