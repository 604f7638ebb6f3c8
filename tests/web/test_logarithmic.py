"""Logarithmic axes through the front door: what is sent is as it stands on the axes."""

import io
import json
import math
from typing import Any

from tests.web.test_pictures import WINDOW, FrontDoorTest

DECADES = {"x": [-1, 2], "y": [-2, 2], "log_x": True, "log_y": True, "width": 300, "height": 200}


def size_of(window: dict[str, object]) -> dict[str, object]:
    """Return the window of a scene as a page sends it back."""
    return {name: window[name] for name in ("x", "y", "log_x", "log_y")}


class LogarithmicTest(FrontDoorTest):
    def make_logarithmic(
        self, *names: str, is_log: bool = True, window: dict[str, object] = WINDOW
    ) -> Any:
        axes = {name: {"log": is_log} for name in names}
        answer = self.ask("commands", commands=[{"do": "axes", "axes": axes}], window=window).json
        self.version = answer["version"]
        return answer["scene"]

    def test_the_window_follows_the_axes_and_comes_back(self) -> None:
        scene = self.make_logarithmic("x")
        window = scene["window"]
        self.assertEqual((True, False), (window["log_x"], window["log_y"]))
        # What was positive is still seen, and the rest of three decades.
        self.assertEqual([-2, 1], [round(bound, 9) for bound in window["x"]])
        self.assertEqual(WINDOW["y"], window["y"])
        self.assertTrue(scene["axes_spec"]["x"]["log"])
        self.assertLessEqual({"0.01", "0.1", "1"}, set(scene["axes"]["x"]["labels"]))
        back = self.make_logarithmic(
            "x", is_log=False, window=size_of(window) | {"width": 300, "height": 200}
        )
        self.assertEqual([0.01, 10], [round(bound, 9) for bound in back["window"]["x"]])
        self.assertFalse(back["window"]["log_x"])

    def test_home_frame_and_typed_bounds_know_them(self) -> None:
        self.make_logarithmic("x", "y")
        home = self.ask("window", how="home", window=DECADES).json["window"]
        self.assertEqual([-1, 3], home["x"])
        framed = self.ask("window", how="frame", id=1, window=DECADES).json["window"]
        self.assertTrue(framed["log_y"])
        # f(100) = 9997 is inside; x^2 - 3 is above 0 from its zero on only.
        self.assertGreater(framed["y"][1], math.log10(9997))
        bounds = {"x_low": "1/10", "x_high": "10^3", "y_low": "1", "y_high": "e^5"}
        typed = self.ask("window", how="bounds", bounds=bounds, window=DECADES).json["window"]
        self.assertEqual([-1, 3], typed["x"])
        self.assertAlmostEqual(5 / math.log(10), typed["y"][1])
        for wrong in ({"x_low": "0"}, {"x_low": "-5"}, {"x_low": "1000"}, {"x_high": "0.1001"}):
            answer = self.ask("window", how="bounds", bounds=bounds | wrong, window=DECADES)
            with self.subTest(wrong):
                self.assertEqual(400, answer.status_code)
                self.assertIn("x", answer.json["error"]["message"])

    def test_windows_that_cannot_be_are_refused(self) -> None:
        self.make_logarithmic("x")
        for x in ([0, 400], [-400, 0], [1, 1], [2, 1], [0, 1e-5]):
            with self.subTest(x=x):
                self.assertEqual(400, self.ask("scene", window=DECADES | {"x": x}).status_code)

    def test_readings_domains_and_marks_stand_on_the_axis(self) -> None:
        self.make_logarithmic("x")
        window = DECADES | {"y": [-7, 7], "log_y": False}
        scene = self.ask("scene", window=window, reading=10.04).json["scene"]
        # A tenth of a decade is 10 px here: a reading is rounded to what a pixel can tell.
        self.assertEqual("10", scene["reading"]["text"])
        self.assertAlmostEqual(2000, scene["reading"]["x"], delta=15)
        (mark,) = scene["rows"][0]["lane"]["marks"]
        self.assertAlmostEqual(3000 * (math.log10(math.sqrt(3)) + 1) / 3, mark["x"], delta=1)
        draft = {"do": "domain", "id": 1, "end": "low", "x": 0.2502}
        scene = self.ask("scene", window=window, drafts=[draft]).json["scene"]
        self.assertEqual("0.25", scene["rows"][0]["ends"]["low"])
        ends = scene["rows"][0]["lane"]
        self.assertAlmostEqual(3000 * (math.log10(0.25) + 1) / 3, ends["low"]["x"], delta=1)
        signs = [sign for *_, sign in ends["signs"]]
        self.assertEqual([-1, 1], signs)

    def test_files_carry_the_axes_and_the_window(self) -> None:
        self.make_logarithmic("x", "y")
        for form in ("svg", "png", "study"):
            made = self.ask("picture", format=form, scale=1, window=DECADES)
            opened = self.client.post("/studies/open", data={"file": (io.BytesIO(made.data), "a")})
            page = self.client.get(opened.location).get_data(as_text=True)
            state = json.loads(
                page.split('id="bench-state"')[1].split(">", 1)[1].split("</script>")[0]
            )
            with self.subTest(form):
                self.assertTrue(state["axes_spec"]["y"]["log"])
                wanted = {k: DECADES[k] for k in ("x", "y", "log_x", "log_y")}
                self.assertEqual({**wanted, "x_unit": "", "y_unit": ""}, state["view"]["window"])

    def test_negative_values_are_left_off_a_logarithmic_axis(self) -> None:
        self.make_logarithmic("x", "y")
        commands = [{"do": "axes", "axes": {"grid": "polar", "x": {"labels": "pi"}}}]
        scene = self.ask("commands", commands=commands, window=DECADES).json["scene"]
        self.assertIsNone(scene["axes"]["polar"])
        self.assertEqual("fine", scene["axes"]["grid"])
        self.assertIsNone(scene["axes"]["x_axis"])
        self.assertTrue(scene["axes"]["left_edge"] and scene["axes"]["lower_edge"])
        self.assertNotIn("π", "".join(scene["axes"]["x"]["labels"]))
