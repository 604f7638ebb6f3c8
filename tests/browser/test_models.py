"""The pure parts of the scripts, run in the browser that will run them."""

from csv import reader as csv_reader
from typing import Any

from playwright.sync_api import Page

from tests.browser.bench import BrowserTest


class ModelTest(BrowserTest):
    def page_of(self, module: str) -> Page:
        """Return the page with a module as ``m``."""
        self.page.goto(f"{self.base}/studies")
        self.page.evaluate(
            "async (module) => { const root = document.querySelector('link[rel=stylesheet]').href;"
            " const load = (path) => import(new URL('../../js/' + path, root));"
            " window.m = await load(module);"
            # What the other modules of its folder are used with.
            " window.c = await load('bench/transport/cache.js') }",
            module,
        )
        return self.page

    def call(self, expression: str, module: str = "bench/affine.model.js") -> Any:
        """Return the value of an expression that uses the module as ``m``, and the cache as ``c``."""
        self.page_of(module)
        return self.page.evaluate(f"() => {{ const {{ m, c }} = window; return {expression}; }}")

    def test_a_picture_follows_the_hand_to_the_pixel(self) -> None:
        """Moving or zooming and mapping the old picture puts every place where it belongs."""
        found = self.call(
            """(() => {
              const made = { x: [-10, 10], y: [-7, 7], width: 660, height: 430 };
              const size = { width: 660, height: 430 };
              const wrong = [];
              const decades = { x: [-2, 2], y: [-7, 7], width: 660, height: 430, log_x: true };
              const seen = m.showing(decades, 1000);
              if (m.pxOf(seen, 660, 1000) !== 330 || m.showing(decades, 3) !== decades) wrong.push(seen);
              if (Math.abs(m.abscissa(decades, 660, m.pxOf(decades, 660, 7)) - 7) > 1e-12) wrong.push('decades');
              const windows = [m.moved(made, size, 33, -20), m.zoomed(made, size, { x: 100, y: 50 }, 0.5),
                               m.zoomed(m.moved(made, size, -5, 3), size, { x: 660, y: 0 }, 3)];
              for (const now of windows) {
                const shift = m.shiftBetween(made, now, size);
                for (const x of [-10, -1.5, 0, 4, 10]) {
                  const old = m.pxOf(made, 660, x);
                  const put = shift.ax * old + shift.bx;
                  if (Math.abs(put - m.pxOf(now, 660, x)) > 1e-6) wrong.push([x, put]);
                  if (Math.abs(m.abscissa(now, 660, put) - x) > 1e-9) wrong.push([x, 'back']);
                }
              }
              return wrong;
            })()"""
        )
        self.assertEqual([], found)

    def test_growing_window_is_requested_ahead(self) -> None:
        found = self.call(
            """(() => {
              const before = { x: [-3, 5], y: [2, 9] }, size = { width: 400, height: 300 };
              return [1.04, 1.5, 0.9].map((factor) => {
                const zoomed = (times) => m.zoomed(before, size, { x: 130, y: 70 }, factor ** times);
                const now = zoomed(1), then = m.later(before, now, 3), made = m.grown(now, then);
                const far = Math.max(...['x', 'y'].flatMap((axis) => [0, 1].map((k) => Math.abs(then[axis][k] - zoomed(4)[axis][k]))));
                const part = (axis, k) => Math.abs(made[axis][k] - now[axis][k]) / (now[axis][1] - now[axis][0]);
                const needed = (made.x[1] - made.x[0]) / Math.min(then.x[1] - then.x[0], now.x[1] - now.x[0]);
                return [Math.max(part('x', 0), part('x', 1), part('y', 0), part('y', 1)), far, m.stretchAhead(now, then, made), needed];
              });
            })()"""
        )
        (some, *_), (most, *_), (none, *_) = found
        self.assertTrue(0 < some < 1 / 3)
        self.assertAlmostEqual(1 / 2, most)
        self.assertEqual(0, none)
        # Lines are asked for that are true as large as they will be shown, and hardly more.
        for _, far, shown, needed in found:
            self.assertLess(far, 1e-9)
            self.assertTrue(min(needed, 2) <= shown < needed + 0.25, found)

    def test_the_point_under_the_pointer_stays_while_zooming(self) -> None:
        found = self.call(
            """(() => {
              const window = { x: [-3, 5], y: [2, 9] };
              const size = { width: 400, height: 300 };
              const next = m.zoomed(window, size, { x: 130, y: 70 }, 0.37);
              return [m.abscissa(window, 400, 130), m.abscissa(next, 400, 130)];
            })()"""
        )
        self.assertAlmostEqual(found[0], found[1], places=12)

    def test_windows_too_fine_or_too_far_are_not_drawn(self) -> None:
        table = (
            ("{x: [0, 1], y: [0, 1]}", True),
            ("{x: [1e15, 1e15 + 1], y: [0, 1]}", False),
            ("{x: [0, Infinity], y: [0, 1]}", False),
            ("{x: [1, 0], y: [0, 1]}", False),
            ("{x: [0, 1e120], y: [0, 1]}", False),
            ("{x: [-3, 3], y: [0, 1], log_x: true}", True),
            ("{x: [1, 1.01], y: [0, 1], log_x: true}", False),
            ("{x: [0, 1], y: [90, 120], log_y: true}", False),
        )
        for window, expected in table:
            with self.subTest(window):
                self.assertEqual(expected, self.call(f"m.isDrawable({window})"))

    def test_the_upper_end_of_a_slider_is_a_step_of_its_own(self) -> None:
        uneven = "{ low_value: 0, high_value: 2 * Math.PI, step_value: 1 / 8 }"
        fine = "{ low_value: 0, high_value: 3, step_value: 1 / 1000 }"
        table: Any = (
            (f"m.valueOfStep({uneven}, m.stepNear({uneven}, 6.28)) === 2 * Math.PI", True),
            (f"m.valueOfStep({uneven}, m.stepNear({uneven}, 6.2))", 6.25),
            ("m.lastStep({ low_value: 0, high_value: 0.3, step_value: 0.1 })", 3),
            (f"m.stepMeant({fine}, 2.9996, m.stepsInPixel({fine}, 200))", 3000),
            (f"m.stepMeant({fine}, 0.007, m.stepsInPixel({fine}, 200))", 0),
            (f"m.stepsAhead({fine}, 2940, 2970, 15)", [3000, 2985]),
            (f"m.stepsAhead({fine}, 30, 0, 15)", []),
            (f"m.stepsAround({fine}, 15, 15, 4)", [30, 0, 45, 60]),
            (f"m.stepsAround({fine}, 2993, 15, 3)", [3000, 2985, 2970]),
            (
                "m.stepsAround({ low_value: 0, high_value: 0.3, step_value: 0.1 }, 1, 1, 9)",
                [2, 0, 3],
            ),
            # A million steps are not looked through.
            (
                "m.stepsAround({ low_value: 0, high_value: 1, step_value: 1e-6 }, 5e5, 1, 2000).length",
                1000,
            ),
        )
        for expression, expected in table:
            with self.subTest(expression):
                self.assertEqual(expected, self.call(expression, "bench/steps.model.js"))

    def test_prefetch_order_is_near_then_coarse_then_rest(
        self,
    ) -> None:
        found = self.call(
            """(() => {
              const range = { low_value: 0, high_value: 3, step_value: 1 / 100 };
              const all = m.stepsAround(range, 20, 1, 999);
              const gaps = (steps) => steps.sort((a, b) => a - b).slice(1).map((k, n) => k - steps[n]);
              const widest = (steps) => Math.max(...gaps([...steps]));
              const coarse = all.slice(0, all.indexOf(31));
              return {
                isEach: [...all].sort((a, b) => a - b).every((k, n) => k === (n < 20 ? n : n + 1)),
                near: all.slice(0, 6), coarse: widest(coarse),
                atStart: widest(coarse.filter((k) => k > 20 && k < 30)),
                atEnd: widest(coarse.filter((k) => k > 290)),
                onward: m.stepsOnward(range, 20, 24, 25, 1).every((k) => k > 25 && (k < 57 || k > 263 || k % 3 === 0)),
                back: m.stepsOnward(range, 20, 26, 25, 1)[0],
              };
            })()""",
            "bench/steps.model.js",
        )
        expected = {
            "isEach": True, "near": [21, 19, 22, 18, 23, 17], "coarse": 3, "atStart": 1, "atEnd": 1,
            "onward": True, "back": 24,
        }  # fmt: skip
        self.assertEqual(expected, found)

    def test_fast_drag_shows_cached_steps_it_has_passed(self) -> None:
        """Shown is what it means, or has just passed; it waits only for what it passes at once."""
        for known, shown, before, now, expected in (
            # Nothing known: the very step.
            ([], 10, 10, 14, 14),
            # The last known one that was passed, in both directions; never one beyond the pointer.
            ([11, 13, 15], 10, 10, 14, 13),
            ([9, 7, 5], 10, 10, 6, 7),
            ([14], 10, 10, 14, 14),
            # Nothing passed, but the next frame passes one; far away ones are not waited for.
            ([18], 10, 10, 14, None),
            ([15], 10, 10, 14, None),
            ([19], 10, 10, 14, 14),
            # What is shown is behind the pointer already, where it waited.
            ([11], 11, 14, 18, 18),
        ):
            with self.subTest(known, shown=shown, before=before, now=now):
                call = (
                    "m.stepInPassing({ low_value: 0, high_value: 1, step_value: 1 / 100 }, "
                    f"{shown}, {before}, {now}, 1, (k) => {known}.includes(k))"
                )
                self.assertEqual(expected, self.call(call, "bench/steps.model.js"))

    def test_prefetch_stores_answers_but_no_refusal(self) -> None:
        asked = self.call(
            """(async () => {
              const asked = [];
              const send = async (body) => {
                asked.push(body);
                if (body === 'bad') throw new Error('refused');
                return body;
              };
              const answers = new m.Prefetch(new c.ResponseCache(send));
              await answers.get(1);
              answers.expect([2, 'bad', 3]);
              await new Promise((done) => setTimeout(done, 20));
              const wished = [await answers.get(2), await answers.get('bad').catch(() => 'again')];
              for (let k = 10; k < 20; k += 1) await answers.get(k);
              answers.expect([99]);
              await new Promise((done) => setTimeout(done, 20));
              return [asked, wished];
            })()""",
            "bench/transport/prefetch.js",
        )
        self.assertEqual([[1, 2, "bad", 3, "bad", *range(10, 20)], [2, "again"]], asked)

    def test_response_cache_drops_the_least_recently_used(self) -> None:
        found = self.call(
            """(async () => {
              const asked = [];
              const answers = new m.ResponseCache(async (body) => (asked.push(body.at), body), {
                room: 10, weigh: ({ weight }) => weight, keyOf: ({ at }) => String(at),
              });
              const ask = (at, weight) => answers.get({ at, weight });
              for (const at of [1, 2, 3]) await ask(at, 3);
              // 1 is the latest now, so that 2 has to go; what is larger than the room is not kept.
              await ask(1, 3);
              await ask(4, 4);
              for (const at of [1, 3, 4, 2]) await ask(at, 3);
              for (const weight of [11, Infinity, 11]) await ask(9, weight);
              for (const at of [3, 4, 2]) await ask(at, 3);
              return [asked, answers.weight];
            })()""",
            "bench/transport/cache.js",
        )
        self.assertEqual([[1, 2, 3, 4, 2, 9, 9, 9], 10], found)

    def test_version_aliases_differ_in_one_slider_only(self) -> None:
        set_7, set_8 = "{ do: 'set', id: 7, value: 1 }", "{ do: 'set', id: 8, value: 1 }"
        line = "{ do: 'edit', id: 7, text: 'f(x) = x' }"
        for kept, drafts, known in (
            ("", f"[{set_7}]", [3, 4]),
            (f"k.goOn(4, [{set_7}])", f"[{set_7}]", [3, 3]),
            (f"k.goOn(4, [{set_7}])", "[]", [3, 4]),
            (f"k.goOn(4, [{set_7}])", f"[{set_8}]", [3, 4]),
            (f"k.goOn(4, [{set_7}])", f"[{set_7}, {set_8}]", [3, 4]),
            # Something else was changed, or taken back: all that came before is another study.
            (f"k.goOn(4, [{line}])", f"[{set_7}]", [3, 4]),
            (f"k.goOn(9, [{set_7}]), k.goOn(4, [{set_8}])", f"[{set_7}]", [3, 4]),
            (f"k.goOn(9, [{set_7}]), k.goOn(4, [])", f"[{set_7}]", [3, 4]),
            (f"k.goOn(4, [{set_7}, {line}])", f"[{set_7}]", [3, 4]),
        ):
            with self.subTest(kept, drafts=drafts):
                code = f"(() => {{ const k = new m.VersionAliases(3); {kept}; return [3, 4].map((version) => k.versionOf({{ version, drafts: {drafts} }})); }})()"
                self.assertEqual(known, self.call(code, "bench/transport/aliases.model.js"))

    def test_request_waits_for_a_prefetch_under_way(self) -> None:
        found = self.call(
            """(async () => {
              let under = 0, most = 0;
              const asked = [];
              const send = async (body) => {
                asked.push(body);
                most = Math.max(most, ++under);
                await new Promise((done) => setTimeout(done, 30));
                under -= 1;
                return body;
              };
              const answers = new m.Prefetch(new c.ResponseCache(send));
              await answers.get(1);
              answers.expect([2, 3]);
              // Another request than was expected, and then one that is stored.
              const wished = [await answers.get(7), await answers.get(2)];
              answers.expect([8]);
              wished.push(await answers.get(8));
              return { asked, most, wished };
            })()""",
            "bench/transport/prefetch.js",
        )
        self.assertEqual({"asked": [1, 2, 7, 8], "most": 1, "wished": [7, 2, 8]}, found)

    def test_prefetch_sends_all_at_rest_and_stops_at_a_request(self) -> None:
        found = self.call(
            """(async () => {
              const asked = [];
              let tookMs = 1;
              const send = async (body) => {
                asked.push(body);
                await new Promise((done) => setTimeout(done, tookMs));
                return body;
              };
              const pause = (ms) => new Promise((done) => setTimeout(done, ms));
              const answers = new m.Prefetch(new c.ResponseCache(send));
              // A fast drag: nothing until it rests, and then all that is not stored.
              for (const k of [1, 2, 3, 4]) await answers.get(k);
              answers.expect([3, 11, 12, 13, 14, 15]);
              await pause(20);
              const hurried = asked.splice(0);
              await pause(150);
              const rested = asked.splice(0);
              // A request meanwhile ends it, and what takes long is sent seldom.
              answers.expect([21, 22, 23, 24, 25]);
              await answers.get(5);
              await pause(150);
              const ended = asked.splice(0);
              tookMs = 120;
              answers.expect([31, 32, 33, 34, 35]);
              await pause(700);
              return { hurried, rested, ended, long: asked };
            })()""",
            "bench/transport/prefetch.js",
        )
        expected = {"hurried": [1, 2, 3, 4], "rested": [11, 12, 13, 14, 15], "ended": [21, 5]}
        self.assertEqual(expected | {"long": [31, 32, 33]}, found)

    def test_prefetch_sends_together_and_what_is_missing_comes_first(self) -> None:
        found = self.call(
            """(async () => {
              const asked = [];
              const cache = new c.ResponseCache(async (body) => (asked.push([body]), body));
              const answers = new m.Prefetch(cache, {
                together: 4,
                sendAll: async (bodies) => { asked.push(bodies); return bodies.slice(0, 3); },
              });
              await answers.get(1);
              answers.expect([2, 1, 3, 4, 5, 6, 7, 8]);
              await new Promise((done) => setTimeout(done, 150));
              return [asked, [2, 8, 9].map((body) => answers.has(body)), await answers.get(7), asked.length];
            })()""",
            "bench/transport/prefetch.js",
        )
        # The first three are all that is sent while a request may come; then all the rest.
        together = [[1], [2, 3, 4], [5, 6, 7, 8], [8]]
        self.assertEqual([together, [True, True, False], 7, 4], found)

    def test_prefetch_is_off_where_the_server_or_the_settings_say_so(self) -> None:
        found = self.call(
            """(async () => {
              const asked = [];
              const cache = new c.ResponseCache(async (body) => (asked.push(body), body));
              const pause = () => new Promise((done) => setTimeout(done, 100));
              const busy = new m.Prefetch(cache);
              busy.allow(false);
              busy.expect([1, 2]);
              const off = new m.NoPrefetch(cache);
              off.allow(true);
              off.begin();
              off.expect([3, 4]);
              await pause();
              const answers = [await busy.get(5), await off.get(5), off.has(5), off.has(1)];
              busy.allow(true);
              busy.expect([6]);
              await pause();
              return [asked, answers];
            })()""",
            "bench/transport/prefetch.js",
        )
        self.assertEqual([[5, 6], [5, 5, True, False]], found)

    def test_completion_matches_prefix_spelling_and_meaning(self) -> None:
        names = """[
          { name: 'sin', meaning: 'the sine of an angle', insert: 'sin(' },
          { name: 'sinh', meaning: 'the hyperbolic sine', insert: 'sinh(' },
          { name: 'asin', meaning: 'the angle whose sine is x', insert: 'asin(', spellings: ['arcsin'] },
          { name: 'pi', meaning: 'half a turn', insert: 'pi' },
        ]"""
        table: Any = (
            ("si", ["sin", "sinh"]),
            ("sin", ["sinh"]),
            ("arc", ["asin"]),
            ("sine", ["sin", "sinh", "asin"]),
            ("turn", ["pi"]),
            ("tur", []),
            ("SI", ["sin", "sinh"]),
            ("q", []),
        )
        for word, expected in table:
            with self.subTest(word):
                found = f"m.matching('{word}', {names}).map((each) => each.name)"
                self.assertEqual(expected, self.call(found, "bench/names.model.js"))

    def test_a_name_is_put_in_for_the_word_before_the_caret(self) -> None:
        table = (
            ("m.wordBefore('2 si', 4)", "si"),
            ("m.wordBefore('f(x) = ', 7)", ""),
            ("m.wordBefore('2si + 1', 3)", "si"),
            ("m.completed('2 si', 4, 'sin(')", {"text": "2 sin(", "caret": 6}),
            ("m.completed('si(x)', 2, 'sin(')", {"text": "sin(x)", "caret": 3}),
            ("m.completed('2p x', 2, 'pi')", {"text": "2pi x", "caret": 3}),
            ("m.inserted('x + 1', 0, 5, '√(…)')", {"text": "√(x + 1)", "caret": 8}),
            ("m.inserted('', 0, 0, '|…|')", {"text": "||", "caret": 1}),
            ("m.inserted('2x', 1, 1, 'π')", {"text": "2πx", "caret": 2}),
        )
        for expression, expected in table:
            with self.subTest(expression):
                self.assertEqual(expected, self.call(expression, "bench/names.model.js"))

    def test_what_nobody_needs_any_more_is_given_up_without_a_word(self) -> None:
        found = self.call(
            """(async () => {
              const told = [];
              const follower = new m.Follower(
                (body, dropped) => new Promise((give, refuse) => {
                  dropped.addEventListener('abort', () => refuse(new Error('dropped')));
                  setTimeout(() => give(`answer ${body}`), 30);
                }),
                (answer) => told.push(answer),
                (error) => told.push(error.message),
              );
              follower.ask(() => 1);
              follower.drop();
              follower.ask(() => 2);
              await new Promise((done) => setTimeout(done, 100));
              return [told, follower.isBehind];
            })()""",
            "shared/follower.js",
        )
        self.assertEqual([["answer 2"], False], found)

    def test_axis_drag_keeps_the_point_under_the_pointer(self) -> None:
        found = self.call(
            """(() => {
              const wrong = [];
              for (const [low, high, fixed, from, to] of [[-10, 10, 330, 500, 600], [0, 4, 100, 400, 150], [-3, -1, 330, 100, 20]]) {
                const now = m.stretched([low, high], 660, fixed, from, to);
                const at = ([a, b], px) => a + (px / 660) * (b - a);
                if (Math.abs(at(now, fixed) - at([low, high], fixed)) > 1e-9) wrong.push(['fixed', now]);
                if (Math.abs(at(now, to) - at([low, high], from)) > 1e-9) wrong.push(['held', now]);
              }
              return wrong;
            })()"""
        )
        self.assertEqual([], found)

    def test_a_box_becomes_the_window_whichever_way_it_is_drawn(self) -> None:
        size = "{ width: 200, height: 100 }"
        window = "{ x: [0, 20], y: [0, 10] }"
        for a, b in (((50, 20), (100, 60)), ((100, 60), (50, 20)), ((50, 60), (100, 20))):
            places = f"{{ x: {a[0]}, y: {a[1]} }}, {{ x: {b[0]}, y: {b[1]} }}"
            found = self.call(f"m.boxed({window}, {size}, {places})")
            with self.subTest(a=a):
                self.assertEqual({"x": [5, 10], "y": [4, 8]}, found)
        equal = self.call("m.equalised({ x: [0, 20], y: [-1, 3] }, { width: 200, height: 100 })")
        self.assertEqual({"x": [0, 20], "y": [-4, 6]}, equal)

    def test_steps_through_windows_take_a_movement_as_one(self) -> None:
        found = self.call(
            """(() => {
              let now = 0;
              const trail = new m.Trail(() => now);
              const told = [];
              trail.leave('a');
              for (const each of ['a1', 'a2', 'a3']) { now += 100; trail.leave(each); }
              now += 5000;
              trail.leave('b');
              told.push(trail.step(-1, 'c'), trail.step(-1, 'b'), trail.step(-1, 'a'), trail.state);
              told.push(trail.step(1, 'a'), trail.step(1, 'b'), trail.step(1, 'c'), trail.state);
              trail.step(-1, 'c');
              trail.leave('b');
              told.push(trail.state);
              return told;
            })()""",
            "bench/trail.model.js",
        )
        expected = ["b", "a", None, {"back": False, "forward": True},
                    "b", "c", None, {"back": True, "forward": False}, {"back": True, "forward": False}]  # fmt: skip
        self.assertEqual(expected, found)

    def test_a_picture_slides_until_it_is_stretched_or_runs_out(self) -> None:
        found = self.call(
            """(() => {
              const slide = new m.Slide();
              const size = { width: 660, height: 430 };
              const at = (bx, by = 0, ax = 1) => ({ ax, bx, ay: 1, by });
              const scene = {};
              return [
                slide.to(scene, at(0), size),             // painted
                slide.to(scene, at(12.4, -3.6), size),    // slides, in whole px
                slide.to(scene, at(12.4, 0, 1.01), size), // stretched: painted
                slide.to(scene, at(13, 0, 1.01), size),   // slides from there
                slide.to({}, at(13, 0, 1.01), size),      // another scene
                slide.to(scene, at(0), { ...size, width: 600 }),
                slide.to(scene, at(m.BEYOND_PX + 1), { ...size, width: 600 }),
                (slide.forget(), slide.to(scene, at(m.BEYOND_PX + 1), { ...size, width: 600 })),
              ];
            })()""",
            "bench/slide.model.js",
        )
        slid, on = ({"ax": 1, "ay": 1, "dx": dx, "dy": dy} for dx, dy in ((12, -4), (1, 0)))
        self.assertEqual([None, slid, None, on, None, None, None, None], found)

    def test_canvas_stretches_within_what_is_drawn(self) -> None:
        found = self.call(
            """(() => {
              const slide = new m.Slide(true);
              const size = { width: 660, height: 430 };
              const scene = {};
              slide.to(scene, { ax: 1, bx: 10, ay: 1, by: 0 }, size);
              const made = { ...size, x: [0, 6.6], y: [0, 4.3], beyond: 100 };
              const moved = (px, more = {}) => m.isCovered({ ...made, ...more }, { x: [px / 100, 6.6 + px / 100], y: [0, 4.3] }, size);
              return [
                slide.to(scene, { ax: 1.2, bx: 10, ay: 1.2, by: 5 }, size),
                slide.to(scene, { ax: 1.6, bx: 10, ay: 1.6, by: 5 }, size),
                [moved(0), moved(60), moved(-60), moved(70), moved(10, { beyond: 0 }), moved(10, { width: 600 })],
                m.isCovered(made, { x: [0, 6.7], y: [0, 4.3] }, size),
              ];
            })()""",
            "bench/slide.model.js",
        )
        stretched = {"ax": 1.2, "ay": 1.2, "dx": -2, "dy": 5}
        covered = [True, True, True, False, False, False]
        self.assertEqual([stretched, None, covered, False], found)

    def test_line_tolerance_fits_every_window(self) -> None:
        found = self.call(
            """(() => {
              const size = { width: 660, height: 430 };
              const made = { ...size, x: [0, 6.6], y: [0, 4.3], beyond: 100, stretch: 1.5, log_x: false, log_y: false };
              const seen = (x, y, more = {}) => m.isTrueIn(made, { x, y, ...more }, size);
              return [
                [seen([0, 6.6], [0, 4.3]), seen([-1, 7.6], [-1, 5.3]), seen([1, 5.4], [1, 3.867])],
                [seen([-1.02, 6.6], [0, 4.3]), seen([0, 6.6], [0, 5.32]), seen([1, 4.9], [1, 3.54]), seen([0, 6.6], [0, 4.3], { log_y: true })],
              ];
            })()""",
            "bench/slide.model.js",
        )
        self.assertEqual([[True] * 3, [False] * 4], found)

    def test_elements_of_a_picture_are_kept_and_changed(self) -> None:
        found = self.call(
            """(() => {
              const target = document.createElementNS('http://www.w3.org/2000/svg', 'svg');
              const shown = () => target.innerHTML.replaceAll(' xmlns="http://www.w3.org/2000/svg"', '');
              m.put(target, [m.svg('line', { x1: 1, class: 'a' }), m.label('one', 2, 3, {})]);
              const [line, text] = target.children;
              const first = shown();
              m.put(target, [m.svg('line', { x1: 4 }), m.label('<b>', 2, 5, {}), m.svg('g', {}, [m.svg('rect', { x: 1 })])]);
              const second = shown();
              const areKept = target.children[0] === line && target.children[1] === text;
              m.put(target, [m.svg('path', { d: 'M0 0' }), m.svg('g', {}, [])]);
              const third = shown();
              m.put(target, []);
              return [first, second, areKept, third, shown()];
            })()""",
            "bench/svg.js",
        )
        self.assertEqual(
            [
                '<line x1="1" class="a"></line><text transform="translate(2 3)">one</text>',
                '<line x1="4"></line><text transform="translate(2 5)">&lt;b&gt;</text><g><rect x="1"></rect></g>',
                True,
                '<path d="M0 0"></path><g></g>',
                "",
            ],
            found,
        )

    def test_wishes_with_time_are_sent_no_faster_than_their_pace(self) -> None:
        found = self.page_of("shared/follower.js").evaluate(
            """async () => {
              const sent = [];
              const follower = new window.m.Follower(async (body) => { sent.push([body, performance.now()]); }, () => {}, () => {});
              follower.ask(() => 1, 120);
              await new Promise((resolve) => setTimeout(resolve, 5));
              follower.ask(() => 2, 120);
              follower.ask(() => 3, 120);
              await new Promise((resolve) => setTimeout(resolve, 300));
              follower.ask(() => 4);
              follower.ask(() => 5);
              await new Promise((resolve) => setTimeout(resolve, 50));
              follower.ask(() => 6, 200);
              follower.drop();
              await new Promise((resolve) => setTimeout(resolve, 250));
              return sent;
            }"""
        )
        self.assertEqual([1, 3, 4, 5], [body for body, _ in found])
        # The latest wish is the one that is sent, when its time has come; one without a pace at once.
        self.assertGreater(found[1][1] - found[0][1], 115)
        self.assertLess(found[3][1] - found[2][1], 60)

    def test_what_plays_is_where_the_time_says(self) -> None:
        """Whoever looks seldom, or after an hour in the background, sees the same places."""
        module = "bench/motion.model.js"
        play = "{ seconds: 4, forward: %s, at_end: '%s', in_step: false }"
        for forward, at_end, begin, elapsed, part, is_over in (
            ("true", "stop", 0.5, 1, 0.75, False), ("true", "stop", 0.5, 3_600, 1, True),
            ("false", "stop", 0.5, 1, 0.25, False), ("false", "stop", 0.5, 9, 0, True),
            ("true", "restart", 0.5, 3, 0.25, False), ("false", "restart", 0.25, 2, 0.75, False),
            ("true", "restart", 0.5, 3_603, 0.25, False),
            ("true", "reverse", 0.5, 1, 0.75, False), ("true", "reverse", 0.5, 3, 0.75, False),
            ("true", "reverse", 0.5, 5, 0.25, False), ("true", "reverse", 0, 3_600 * 8 + 1, 0.25, False),
            ("false", "reverse", 0.5, 1, 0.25, False), ("false", "reverse", 0.5, 3, 0.25, False),
        ):  # fmt: skip
            found = self.call(f"m.placeAt({play % (forward, at_end)}, {begin}, {elapsed})", module)
            with self.subTest(f"{at_end} {forward} {elapsed}"):
                self.assertAlmostEqual(part, found["part"], places=9)
                self.assertEqual(is_over, found["isOver"])
        for expression, expected in (
            (f"m.beginning({play % ('true', 'stop')}, 1)", 0),
            (f"m.beginning({play % ('false', 'stop')}, 0)", 1),
            (f"m.beginning({play % ('true', 'restart')}, 7)", 1),
            ("m.inSteps(2.39, 0.8)", 1.6),
        ):
            self.assertAlmostEqual(expected, self.call(expression, module), places=9)

    def test_trails_keep_what_is_new_until_the_study_does(self) -> None:
        found = self.call(
            """(() => {
              const trails = new m.Trails({ 1: [[0, 0], [1, 1]] });
              trails.visit({ 1: [[2, 4]], 2: [[5, 5]] });
              const { commands, sent } = trails.commands();
              trails.visit({ 1: [[3, 9]] });
              const seen = [trails.last(1, 99), trails.last(1, 2), trails.last(7, 9)];
              trails.keep({ 1: [[0, 0], [1, 1], [2, 4]], 2: [[5, 5]] }, sent);
              const after = [trails.last(1, 99), trails.last(2, 99)];
              trails.visit({ 2: Array.from({ length: 5000 }, (_, k) => [k, k]) });
              const most = trails.last(2, Infinity).length;
              trails.drop();
              return { commands, seen, after, most, rest: trails.last(1, 99) };
            })()""",
            "bench/trails.model.js",
        )
        self.assertEqual([[[0, 0], [1, 1], [2, 4], [3, 9]], [[2, 4], [3, 9]], []], found["seen"])
        self.assertEqual([[2, 4]], found["commands"][0]["points"])
        self.assertEqual([[[0, 0], [1, 1], [2, 4], [3, 9]], [[5, 5]]], found["after"])
        self.assertEqual((2_001, [[0, 0], [1, 1], [2, 4]]), (found["most"], found["rest"]))

    def test_the_curve_of_a_sweep_stands_on_its_scales(self) -> None:
        found = self.call(
            """(() => {
              const points = [[0, -2, 4], [1, -1, 1], [2, 0, NaN]];
              const result = { low_value: 0, high_value: 4, rows: [1, 2, 3], branches: [{ points }], events: [{ value: 2 }] };
              return [m.plotOf(result, 'x', { width: 300, height: 190 }), m.plotOf(result, 'y', { width: 300, height: 190 }),
                      m.plotOf({ ...result, branches: [], events: [] }, 'x', { width: 300, height: 190 })];
            })()""",
            "bench/sweep.model.js",
        )
        by_x, by_y, empty = found
        (left, low), (_, _), (right, high) = by_x["dots"]
        # A half of the scale to the right, and upwards on the screen.
        self.assertAlmostEqual(44 + (290 - 44) / 2, right, places=6)
        self.assertLess(left, right)
        self.assertGreater(low, high)
        self.assertAlmostEqual(high, by_x["events"][0]["y"], places=6)
        self.assertEqual(
            ["0", "1", "2", "3", "4"], [t["text"] for t in by_x["ticks"] if t["anchor"] == "middle"]
        )
        self.assertEqual(2, len(by_y["dots"]))
        self.assertEqual([], empty["lines"])

    def test_an_answer_that_breaks_off_is_none(self) -> None:
        """A guess that is given up while it arrives must not stand for an answer."""
        found = self.page_of("shared/api.js").evaluate(
            """async () => {
              const real = window.fetch;
              const parted = (signal) => new Response(new ReadableStream({ start(c) {
                c.enqueue(new TextEncoder().encode('{"version": 1, '));
                if (signal) signal.addEventListener('abort', () => c.error(new DOMException('', 'AbortError')));
                else c.error(new Error('cut'));
              } }), { status: 200 });
              const told = [];
              window.fetch = async (path, options) => parted(null);
              await window.m.post('/x', {}).then(() => told.push('answer'), (error) => told.push([error.status, error.code]));
              const drop = new AbortController();
              window.fetch = async (path, options) => parted(drop.signal);
              const asked = window.m.post('/x', {}, { signal: drop.signal }).then(() => told.push('answer'), (error) => told.push([error.status, error.code]));
              setTimeout(() => drop.abort(), 20);
              await asked;
              window.fetch = async () => new Response('no JSON', { status: 500 });
              await window.m.post('/x', {}).catch((error) => told.push([error.status, error.code]));
              window.fetch = real;
              return told;
            }"""
        )
        self.assertEqual([[0, "network"], [0, "stopped"], [500, "web.500"]], found)

    def test_pauses_grow_until_something_goes_well(self) -> None:
        found = self.page_of("shared/backoff.js").evaluate(
            """() => {
              const backoff = new window.m.Backoff(700, 3000);
              const pauses = [0, 0, 2000, 0, 0].map((least) => backoff.pause(least));
              backoff.reset();
              return [...pauses, backoff.pause(), backoff.pause(9000)];
            }"""
        )
        self.assertEqual([700, 1400, 2800, 3000, 3000, 700, 9000], found)

    def test_a_bracket_is_rounded_to_what_a_pixel_can_tell(self) -> None:
        found = self.call(
            """[m.shortest(1.23456789, 0.0303), m.shortest(-0.000123456, 1e-6), m.shortest(7, 2),
                m.shortest(1234567.8, 1000), m.shortest(0.1 + 0.2, 1e-9)]""",
            "bench/findings.model.js",
        )
        self.assertEqual(["1.23", "-0.000123", "7", "1235000", "0.3"], found)

    def test_what_became_of_answers_is_said_in_words(self) -> None:
        found = self.call(
            """(() => {
              const row = (...flags) => ({ flags });
              const entry = (...rows) => ({ total: rows.length, rows, problem: "" });
              const before = (total, doubles = 0) => ({ total, doubles, change: "as before" });
              return [
                m.changeOf(undefined, entry(row())), m.changeOf(before(1), entry(row())),
                m.changeOf(before(1), entry(row(), row())), m.changeOf(before(5), entry(row(), row())),
                m.changeOf(before(2), entry(row("double"))), m.changeOf(before(1, 1), entry(row(), row())),
                m.changeOf(before(2), { ...entry(row()), problem: "gone" }),
              ];
            })()""",
            "bench/findings.model.js",
        )
        self.assertEqual(
            ["", "as before", "One has appeared.", "3 are gone.", "Two have merged into one.",
             "One has parted into two.", ""],
            found,
        )  # fmt: skip

    def test_an_entry_is_copied_as_text_latex_and_csv(self) -> None:
        text, latex, csv = self.call(
            """(() => {
              const row = { label: "minimum", text: "−√2", decimal: "−1.414213562", decimalText: "≈ −1.414213562",
                            valueText: "value −2", value: "−2", flagText: "global", doubt: "", note: 'a "sure", one',
                            proved: true, isPlace: true, latex: "-\\\\sqrt{2}" };
              const entry = { title: "Extrema of f", where: "−3 ≤ x ≤ 3", variable: "x", what: "extrema",
                              rows: [row, { ...row, label: "", proved: null, note: "" }], verdict: "Proved", note: "", remark: "mine" };
              return [m.asText(entry), m.asLatex(entry), m.asCsv(entry)];
            })()""",
            "bench/findings.model.js",
        )
        lines = text.splitlines()
        self.assertEqual("Extrema of f, −3 ≤ x ≤ 3", lines[0])
        self.assertEqual("minimum x = −√2; ≈ −1.414213562; value −2; global", lines[1])
        self.assertEqual(["Proved", "mine"], lines[-2:])
        self.assertIn("& x = -\\sqrt{2} \\approx -1.414213562", latex)
        rows = list(csv_reader(csv.splitlines()))
        self.assertEqual(["what", "x", "decimal", "value", "proved", "note"], rows[0])
        first = ["minimum", "-√2", "-1.414213562", "-2", "yes", 'a "sure", one']
        self.assertEqual([first, ["extrema", "-√2", "-1.414213562", "-2", "", ""]], rows[1:])

    def test_what_was_located_is_shown_for_its_own_state_only(self) -> None:
        found = self.call(
            """(() => {
              const found = new m.Found();
              const size = { width: 600, height: 400 };
              const window = { x: [-10, 10], y: [-5, 5], ...size };
              const none = found.at(1, [], window, size);
              found.take({ marks: [1], spans: [], window, drafts: [{ do: "set" }] }, 7);
              const right = found.at(7, [{ do: "set" }], { x: [-5, 5], y: [-5, 5] }, size);
              return [none, right.marks, right.shift.ax, found.at(8, [{ do: "set" }], window, size),
                      found.at(7, [], window, size), found.at(7, [{ do: "set" }], window, { ...size, width: 500 })];
            })()""",
            "bench/found.model.js",
        )
        self.assertEqual([None, [1], 2, None, None, None], found)

    def test_long_table_scrolls_to_any_row(self) -> None:
        """Wherever the frame stands, the rows in sight are known, asked for, and stay in sight."""
        wrong = self.call(
            """(() => {
              const wrong = [];
              const view = 350;
              for (const count of [3, 201, 5_000, 400_000, 1_000_000]) {
                for (const height of [22, 25.5]) {
                  const whole = Math.min(count * height, 12_000_000);
                  for (const part of [0, 0.001, 0.25, 0.5, 0.9, 1]) {
                    let rows = new m.Rows({ count, from: 0, loaded: Math.min(count, 200), height });
                    const told = [count, height, part];
                    const top = part * Math.max(whole - view, 0);
                    const row = rows.rowAt(top, view);
                    if (row < 0 || row > count - 1) wrong.push(['row', ...told, row]);
                    if (count * height > view && Math.abs(row / count - part) > 0.02 + view / whole) wrong.push(['far', ...told, row]);
                    const from = rows.wanted(row, view);
                    if (from !== null) {
                      if (from > row) wrong.push(['below', ...told, from]);
                      rows = new m.Rows({ count, from, loaded: Math.min(count - from, m.PART), height });
                      // The row that was at the top is there again, and now enough is loaded.
                      const again = rows.rowAt(rows.topOf(row), view);
                      if (Math.abs(again - row) > 1e-6 && rows.loaded * height > view) wrong.push(['moved', ...told, row, again]);
                      if (rows.wanted(row, view) !== null && from > 0) wrong.push(['again', ...told, from, rows.wanted(row, view)]);
                    } else if (row + view / height > rows.from + rows.loaded + 1 && rows.loaded < count) wrong.push(['missing', ...told]);
                    const high = rows.above + rows.loaded * height + rows.below;
                    if (Math.abs(high - whole) > rows.loaded * height) wrong.push(['height', ...told, high, whole]);
                  }
                }
              }
              const lines = [5, 3, 3.5, 0, -2].map((value, row) => ({ value, row }));
              const around = (x) => m.rowsAround(lines, x).map((line) => line.row).join();
              const found = [3, 4, -1, 9, null, 3.2].map(around);
              if (JSON.stringify(found) !== '["1","0,1","3,4","","","0,1"]') wrong.push(found);
              const shown = ['1.5', '−20', '3·10^7', ''].map((text) => m.aligned(text, 2));
              if (m.plainNumber(shown[0]) !== '1.5' || m.plainNumber(shown[1]) !== '-20' || shown[3] !== '—') wrong.push(shown);
              return wrong;
            })()""",
            "bench/values.model.js",
        )
        self.assertEqual([], wrong)
