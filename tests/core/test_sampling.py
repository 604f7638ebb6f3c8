"""The drawn line is true: a zoo of functions, each against a dense truth."""

import math
import unittest
from dataclasses import replace
from fractions import Fraction

import numpy as np
from flint import arb

from axis_path.core import Window
from axis_path.core.arithmetic import Ball, ball
from axis_path.core.draw import (
    Curve,
    frame,
    home,
    make_log_ticks,
    make_ticks,
    plain,
    sample_curve,
)
from axis_path.core.draw.pixels import last_visible_point, line_tenths, place_flags, visible_lines
from axis_path.core.errors import WindowError
from axis_path.core.evaluate import End, RealFunction
from axis_path.core.limits import CURVE_POINTS
from tests.core.functions import make_function

WINDOW = Window((-10, 10), (-7, 7), 660, 430)
PI = math.pi
#: Functions with all places in the window that no line may cross.
ZOO: tuple[tuple[str, tuple[float, ...]], ...] = (
    ("x^2 - 3", ()),
    ("x^3 - 4x", ()),
    ("(x - 1)^5/100", ()),
    ("(x-1)(x-2)(x-3)(x-4)(x-5)", ()),
    ("sin x", ()),
    ("5 sin(3x) cos(x)", ()),
    ("x sin(5x)", ()),
    ("2 sin(11x)", ()),
    ("sin(15x)", ()),
    ("x^(1/5)", ()),
    ("3 sin(20x)", ()),
    ("exp(-x^2)", ()),
    ("e^(x/3) - e^(-x/2)", ()),
    ("4 exp(-(10x)^2)", ()),
    ("5/(1 + (20x)^2)", ()),
    ("|x| - |x - 3|", ()),
    ("||x| - 2|", ()),
    ("min(x, 3 sin x)", ()),
    ("max(x^2 - 5, -x)", ()),
    ("x^(1/3)", ()),
    ("x^(2/3)", ()),
    ("sqrt(x)", ()),
    ("sqrt(9 - x^2)", ()),
    ("asin(x/3)", ()),
    ("acos(x)", ()),
    ("3atan(5x)", ()),
    ("ln x", ()),
    ("log(x^2)", (0.0,)),
    ("x ln x", ()),
    ("cosh(x/3)", ()),
    ("tanh(8x)", ()),
    ("sqrt(x^2 - 4)", (-1.0, 0.0, 1.0)),
    ("1/x", (0.0,)),
    ("1/x^2", (0.0,)),
    ("1/(x^2 - 4)", (-2.0, 2.0)),
    ("(x^2 + 1)/(x - 1)", (1.0,)),
    ("x/((x + 3)(x - 0.013))", (-3.0, 0.013)),
    ("0.001/(x - 1.2345)", (1.2345,)),
    ("tan x", tuple(k * PI / 2 for k in range(-5, 6, 2))),
    ("1/sin(2x)", tuple(k * PI / 2 for k in range(-6, 7))),
    ("floor x", tuple(float(k) for k in range(-6, 7))),
    ("ceil(x/2)", tuple(float(k) for k in range(-10, 11, 2))),
    ("x - floor x", tuple(float(k) for k in range(-10, 11))),
    ("sign(x) + sign(x - 2)", (0.0, 2.0)),
    ("|x|/x", (0.0,)),
    ("atan(1/x)", (0.0,)),
    ("e^(1/x)", (0.0,)),
    ("sin(x)/x", (0.0,)),
    ("(x^2 - 1)/(x - 1)", (1.0,)),
    ("ln(x^2 - 1)", (0.0,)),
    ("1/ln x", (1.0,)),
    ("sqrt(sin x)", (-1.0, 4.0)),
    ("ln(cos x)", tuple(k * PI / 2 for k in range(-5, 6, 2))),
    ("cot x", tuple(k * PI for k in range(-3, 4))),
    ("sec(x)", tuple(k * PI / 2 for k in range(-5, 6, 2))),
    ("csc(2x)", tuple(k * PI / 2 for k in range(-6, 7))),
    ("acot(x)", ()),
    ("asec(x)", (0.0,)),
    ("coth(x)", (0.0,)),
    ("sech(3x)", ()),
    ("csch(x)", (0.0,)),
    ("asinh(4x)", ()),
    ("acosh(x)", ()),
    ("atanh(x/4)", ()),
    ("acoth(x)", (0.0,)),
    ("cbrt(x - 1)", ()),
    ("log(x + 2, 3)", ()),
    ("round(x)", tuple(k + 0.5 for k in range(-10, 10))),
    ("mod(x, 2)", tuple(float(2 * k) for k in range(-5, 6))),
    ("gamma(x)", tuple(float(-k) for k in range(0, 10))),
    ("1/gamma(x)", ()),
    ("digamma(x)", tuple(float(-k) for k in range(0, 10))),
    ("5erf(x)", ()),
    ("atan2(x, x - 1)", ()),
    ("radius(x, 2) - 4", ()),
    ("integral(sin(t), t, 0, x)", ()),
    ("integral(|t - 1|, t, 0, x)/4", ()),
    ("sum(sin((2k - 1) x)/(2k - 1), k, 1, 6)", ()),
    ("product(x - k, k, 1, 4)/9", ()),
)


def distances_px(points: np.ndarray, curve: Curve, window: Window) -> np.ndarray:
    """The distance of each point, (n, 2) in px, to the nearest drawn line or band."""
    # Columns by themselves: sums over an axis of two cost more than all the rest.
    x, y = np.ascontiguousarray(points.T)
    best = np.full(len(points), np.inf)
    for piece in curve.pieces:
        xs, ys = window.across(piece[:, 0]), np.clip(window.down(piece[:, 1]), -1e4, 1e4)
        dx, dy = np.diff(xs), np.diff(ys)
        length = np.maximum(dx**2 + dy**2, 1e-18)
        index = np.searchsorted(xs, x)
        for offset in range(-3, 3):
            k = np.clip(index + offset, 0, len(xs) - 2)
            right, below = x - xs[k], y - ys[k]
            t = np.clip((right * dx[k] + below * dy[k]) / length[k], 0, 1)
            best = np.minimum(best, np.hypot(right - t * dx[k], below - t * dy[k]))
    for band in curve.bands:
        xs = window.across(band[:, 0])
        inside = (points[:, 0] >= xs[0] - 1) & (points[:, 0] <= xs[-1] + 1)
        k = np.clip(np.searchsorted(xs, points[:, 0]) - 1, 0, len(xs) - 1)
        top, bottom = window.down(band[k, 2]), window.down(band[k, 1])
        gap = np.maximum(np.maximum(top - points[:, 1], points[:, 1] - bottom), 0)
        best = np.where(inside, np.minimum(best, gap), best)
    return best


def crosses(curve: Curve, x: float) -> bool:
    drawn = [*curve.pieces, *curve.bands]
    return any(part[0, 0] < x < part[-1, 0] for part in drawn)


#: Each with what is seen of the zoo there; a break at the very edge would not be inside.
LOGARITHMIC = (
    Window((0.01, 101), (0.1, 10), 660, 430, log_x=True),
    Window((0.01, 9.9), (0.001, 1000), 660, 430, log_x=True, log_y=True),
    Window((-10, 10), (0.1, 7.5), 660, 430, log_y=True),
)


class ZooTest(unittest.TestCase):
    def compare(self, text: str, breaks: tuple[float, ...], window: Window) -> int:
        """Forty points to each pixel, but for those in the pixel of a break, which stays open."""
        xs = window.between(*window.x, 40 * window.width)
        function = make_function(text)
        curve = sample_curve(function, window)
        ys = function.sample(xs)
        visible = (ys > window.y[0]) & (ys < window.y[1])
        for abscissa in breaks:
            visible &= np.abs(xs - abscissa) > window.pixel_at(abscissa) / 40
        points = np.column_stack([window.across(xs[visible]), window.down(ys[visible])])
        far = distances_px(points, curve, window)
        if len(points):
            self.assertLess(far.max(), 0.5 / window.stretch, xs[visible][far.argmax()])
        return len(points)

    def test_the_line_is_within_half_a_pixel_of_a_dense_truth(self) -> None:
        for text, breaks in ZOO:
            with self.subTest(text):
                self.assertTrue(self.compare(text, breaks, WINDOW))

    def test_so_it_is_when_the_picture_is_shown_larger(self) -> None:
        large = replace(WINDOW, stretch=2.0)
        for text, breaks in ZOO:
            with self.subTest(text):
                self.assertTrue(self.compare(text, breaks, large))

    def test_so_it_is_on_logarithmic_axes(self) -> None:
        compared = 0
        for text, breaks in ZOO:
            for window in LOGARITHMIC:
                with self.subTest(text, x=window.x, y=window.y):
                    compared += self.compare(text, breaks, window)
        # Half of the curves or more are seen.
        self.assertGreater(compared, len(ZOO) * len(LOGARITHMIC) * 40 * WINDOW.width // 2)

    def test_no_piece_crosses_a_break(self) -> None:
        for text, breaks in ZOO:
            curve = sample_curve(make_function(text), WINDOW)
            for abscissa in breaks:
                with self.subTest(text, x=abscissa):
                    self.assertFalse(crosses(curve, abscissa))

    def test_unbroken_functions_are_one_piece(self) -> None:
        for text in ("x^2", "sin x", "x^(1/3)", "|x|", "sqrt(x)", "exp(-x^2)", "tanh(8x)"):
            with self.subTest(text):
                self.assertEqual(1, len(sample_curve(make_function(text), WINDOW).pieces))

    def test_dense_wave_is_a_band_of_true_height(self) -> None:
        for text, low, high in (
            ("3 sin(1000x)", -3, 3),
            ("2 + sin(10^6 x)", 1, 3),
            ("cos(12345x)", -1, 1),
        ):
            with self.subTest(text):
                curve = sample_curve(make_function(text), WINDOW)
                band = np.concatenate(curve.bands)
                self.assertGreater(band[-1, 0] - band[0, 0], 19)
                self.assertLessEqual(abs(band[:, 1].min() - low) * WINDOW.y_px, 1)
                self.assertLessEqual(abs(band[:, 2].max() - high) * WINDOW.y_px, 1)

    def test_an_unlucky_wave_is_no_constant(self) -> None:
        """sin at whole multiples of its period at each column edge would look like a line."""
        text = "sin(66 pi x)"
        curve = sample_curve(make_function(text), WINDOW)
        heights = [part[:, 1].max() for part in curve.pieces]
        heights += [band[:, 2].max() for band in curve.bands]
        self.assertGreater(max(heights), 0.99)

    def test_a_spike_between_two_columns_is_not_missed(self) -> None:
        curve = sample_curve(make_function("5 exp(-(3000(x - 0.7071))^2)"), WINDOW)
        self.assertGreater(max(piece[:, 1].max() for piece in curve.pieces), 4.5)

    def test_the_work_is_bounded(self) -> None:
        for text in ("sin(1/x)", "tan(1000x)", "floor(1000x)", "1/sin(300x)", "sin(x^9)"):
            with self.subTest(text):
                curve = sample_curve(make_function(text), WINDOW)
                count = sum(len(part) for part in (*curve.pieces, *curve.bands))
                self.assertLessEqual(count, 2 * CURVE_POINTS.value)

    def test_curves_are_true_in_windows_of_every_size(self) -> None:
        table = (
            ("x^2", Window((1e6, 1e6 + 1), (1e12, 1.000002e12))),
            ("sin x", Window((1e-9, 3e-9), (0, 4e-9))),
            ("1/x", Window((-1e-6, 1e-6), (-1e7, 1e7))),
            ("x^3", Window((-1e50, 1e50), (-1e150, 1e150))),
        )
        for text, window in table:
            with self.subTest(text):
                curve = sample_curve(make_function(text), window)
                self.assertFalse(curve.is_empty)
                self.assertFalse(text == "1/x" and crosses(curve, 0.0))


def restricted(text: str, low: str | None, high: str | None, *, closed: bool) -> RealFunction:
    ends = [
        None if end is None else End(ball.from_fraction(Fraction(end)), closed)
        for end in (low, high)
    ]
    return replace(make_function(text), low=ends[0], high=ends[1])


class DomainTest(unittest.TestCase):
    def test_a_restricted_curve_ends_where_its_domain_does(self) -> None:
        for closed in (True, False):
            curve = sample_curve(restricted("x^2", "-1.25", "2", closed=closed), WINDOW)
            with self.subTest(closed=closed):
                self.assertEqual((-1.25, 1.5625), tuple(curve.pieces[0][0]))
                self.assertEqual((2.0, 4.0), tuple(curve.pieces[-1][-1]))

    def test_an_end_is_sampled_only_if_it_is_closed(self) -> None:
        xs = np.array([-1.0, 0.0, 2.0, 2.5])
        for closed, expected in (
            (True, [1, 0, 4, math.nan]),
            (False, [math.nan, 0, math.nan, math.nan]),
        ):
            with self.subTest(closed=closed):
                values = restricted("x^2", "-1", "2", closed=closed).sample(xs)
                np.testing.assert_array_equal(expected, values)

    def test_nothing_is_drawn_outside_the_domain(self) -> None:
        self.assertTrue(sample_curve(restricted("x", "20", "30", closed=True), WINDOW).is_empty)
        self.assertTrue(sample_curve(restricted("x", "3", "1", closed=True), WINDOW).is_empty)

    def test_a_left_out_value_parts_the_curve(self) -> None:
        function = replace(make_function("x^2"), without=(Ball(arb(1)),))
        self.assertFalse(crosses(sample_curve(function, WINDOW), 1.0))

    def test_intervals_without_a_value_are_listed(self) -> None:
        curve = sample_curve(make_function("ln(x^2 - 1)"), WINDOW)
        ((low, high),) = curve.undefined
        self.assertTrue(abs(low + 1) < 0.04 and abs(high - 1) < 0.04)


class WindowTest(unittest.TestCase):
    def test_windows_in_which_nothing_can_be_drawn_are_refused(self) -> None:
        for x, y in (
            ((1, 1), (0, 1)),
            ((2, 1), (0, 1)),
            ((math.nan, 1), (0, 1)),
            ((0, math.inf), (0, 1)),
            ((1e16, 1e16 + 2), (0, 1)),
            ((0, 1), (5, 4)),
            ((0, 1e200), (0, 1)),
        ):
            with self.subTest(x=x, y=y), self.assertRaises(WindowError):
                Window(x, y)

    def test_a_logarithmic_axis_shows_what_is_positive(self) -> None:
        for x, expected in (
            ((2, 30), (2, 30)),
            ((-10, 10), (0.01, 10)),
            ((-10, -1), (0.1, 1000)),
        ):
            window = Window(x, (-1, 1)).on_axes(log_x=True, log_y=False)
            with self.subTest(x=x):
                self.assertEqual((expected, (-1, 1)), (window.x, window.y))
                given = window.to_dict()
                axes = {name: given[name] for name in ("log_x", "log_y")}
                again = Window.from_flat(given["x"], given["y"], 660, 430, axes)
                np.testing.assert_allclose(again.x, window.x, rtol=1e-14)
                px = window.across(window.columns())
                np.testing.assert_allclose(px, np.arange(661), atol=1e-9)
                np.testing.assert_allclose(
                    window.points_at(px, px * 0)[:, 0], window.columns(), rtol=1e-12
                )
        for x in ((0, 1), (-1, 1), (1, 1.001)):  # type: ignore[assignment]
            with self.subTest(x=x), self.assertRaises(WindowError):
                Window(x, (0, 1), log_x=True)
        for flat in ((-400.0, 1.0), (0.0, 200.0)):
            with self.subTest(flat=flat), self.assertRaises(WindowError):
                Window.from_flat(flat, (0, 1), 660, 430, {"log_x": True, "log_y": False})

    def test_ticks_of_a_logarithmic_axis_are_powers_of_ten(self) -> None:
        table = (
            ((0.01, 100, 660), ("0.01", "0.02", "0.05", "0.1", "10", "50", "100")),
            ((1e-20, 1e20, 660), ("10^−18", "1", "10^12")),
            ((2, 30, 660), ("2", "5", "10", "20")),
            ((30, 33, 660), ("30", "30.5", "33")),
        )
        for (low, high, px), expected in table:
            with self.subTest(low=low, high=high):
                ticks = make_log_ticks(low, high, px)
                self.assertLessEqual(set(expected), set(ticks.labels))
                abscissae = px * np.log(np.array(ticks.positions) / low) / math.log(high / low)
                self.assertGreater(np.diff(abscissae).min(), 30)
                self.assertTrue(
                    all(low <= abscissa <= high for abscissa in ticks.positions + ticks.finer)
                )

    def test_frame_fits_on_logarithmic_axes(self) -> None:
        on_both = home(660, 430, log_x=True, log_y=True)
        window = frame([restricted("x^3", "1", "1000", closed=True)], on_both)
        self.assertTrue(0.1 < window.x[0] < 1 and 1000 < window.x[1] < 10_000, window.x)
        self.assertTrue(0.01 < window.y[0] < 1 and 1e9 < window.y[1] < 1e11, window.y)
        for text in ("-x", "x^300", "0x", "1/(x - 3)"):
            with self.subTest(text):
                self.assertTrue(frame([make_function(text)], on_both).log_y)

    def test_ticks_stand_at_plain_numbers(self) -> None:
        table = (
            ((-10, 10, 660), ("−10", "−8", "0", "10")),
            ((0.001, 0.0013, 400), ("0.0011", "0.0012")),
            ((0, 3e9, 400), ("0", "1·10^9")),
            ((-1e-8, 1e-8, 300), ("0", "5·10^−9")),
        )
        for (low, high, px), expected in table:
            with self.subTest(low=low, high=high):
                ticks = make_ticks(low, high, px)
                self.assertLessEqual(set(expected), set(ticks.labels))
                self.assertTrue(
                    all(low <= abscissa <= high for abscissa in ticks.positions + ticks.finer)
                )
                self.assertTrue(2 <= len(ticks.positions) <= px / 40)

    def test_numbers_are_written_plainly(self) -> None:
        for value, text in (("0", "0"), ("-1/8", "−0.125"), ("1000", "1000"), ("1/1000", "0.001")):
            with self.subTest(text):
                self.assertEqual(text, plain(Fraction(value)))

    def test_frame_shows_the_domains_and_the_values(self) -> None:
        window = frame([restricted("x^2", "-2", "3", closed=True)], home(660, 430))
        self.assertTrue(window.x[0] < -2 < 3 < window.x[1] < 4)
        self.assertTrue(window.y[0] <= 0 and 9 < window.y[1] < 12)

    def test_frame_keeps_a_pole_from_flattening_the_rest(self) -> None:
        window = frame([make_function("1/x + sin(x)")], home(660, 430))
        self.assertLess(window.y[1] - window.y[0], 30)

    def test_frame_finds_a_window_for_anything(self) -> None:
        for text in ("5", "0x", "1/0 + x", "x^300", "exp(x^2)", "10^-200 x"):
            with self.subTest(text):
                frame([make_function(text)], home(660, 430))
        self.assertEqual(home(660, 430), frame([], home(660, 430)))


def _away(line: np.ndarray, point: np.ndarray) -> float:
    """Return how far a point is from a broken line."""
    start, step = line[:-1], np.diff(line, axis=0)
    along = ((point - start) * step).sum(axis=1) / np.maximum((step**2).sum(axis=1), 1e-30)
    nearest = start + np.clip(along, 0, 1)[:, None] * step
    return float(np.hypot(*(nearest - point).T).min())


class PixelTest(unittest.TestCase):
    def test_visible_pieces_are_rounded_to_tenths(self) -> None:
        pieces = [np.array([[-10, 6.5], [0, 0.0], [1e-9, -1e300], [2, -1e300], [2, 0]])]
        # A curve is drawn 20 px beyond the window, so that its stroke leaves it.
        self.assertEqual(
            [[0, 154, 3300, 2150, 3300, 4500], [3960, 4500, 3960, 2150]],
            visible_lines(pieces, WINDOW),
        )
        self.assertEqual([], visible_lines([np.array([[-10, 9.0], [10, 9.0]])], WINDOW))

    def test_a_line_that_is_sent_passes_all_its_points(self) -> None:
        # In px: left out is what lies within 0.05, and rounding to tenths moves by 0.071 at most.
        t = np.linspace(0, 1, 661)
        random = np.random.default_rng(7)
        walk = np.cumsum(random.normal(0, 1, (400, 2)), axis=0) + np.array([330, 215])
        lines = {
            "a wave": np.column_stack([660 * t, 215 + 90 * np.sin(40 * t)]),
            "a turn and back": np.column_stack([300 + 200 * np.sin(7 * t), 215 + 0.02 * t]),
            "many turns": np.column_stack([330 + 200 * t * np.cos(90 * t), 215 + 200 * t * np.sin(90 * t)]),
            "a walk": walk,
            "small steps": (walk - (330, 215)) / 40 + (330, 215),
            "steps of different lengths": np.cumsum(random.pareto(1, (300, 2)) * [1, 0.2], axis=0) % (660, 430),
            "one place": np.full((5, 2), 33.33),
        }  # fmt: skip
        for name, px in lines.items():
            with self.subTest(name):
                points = np.column_stack([-10 + px[:, 0] / 33, (215 - px[:, 1]) / 33])
                window = Window((-10, 10), (-215 / 33, 215 / 33), 660, 430)
                sent = np.reshape(line_tenths(points, window), (-1, 2)) / 10
                away = [_away(sent, point) for point in px]
                self.assertLess(max(away), 0.05 + 0.071)
                middles = (sent[1:] + sent[:-1]) / 2
                self.assertLess(max(_away(px, point) for point in middles), 0.05 + 0.071)
        sent = line_tenths(np.column_stack([20 * t - 10, (20 * t - 10) ** 3 / 200]), WINDOW)  # type: ignore[assignment]
        self.assertLess(len(sent) / 2, 100)

    def test_flags_do_not_cover_one_another(self) -> None:
        ends = [("f", (650.0, 100.0)), ("rope", (655.0, 104.0)), ("g", (650.0, 99.0)), ("h", None)]
        flags = place_flags(ends, WINDOW)
        self.assertIsNone(flags[3])
        placed = [flag for flag in flags if flag is not None]
        for k, one in enumerate(placed):
            for other in placed[:k]:
                apart = (
                    abs(one.y - other.y) >= 18
                    or one.x >= other.x + other.width
                    or other.x >= one.x + one.width
                )
                self.assertTrue(apart, (one, other))

    def test_the_end_of_a_curve_is_its_last_point_in_sight(self) -> None:
        x, y = last_visible_point(sample_curve(make_function("x^2"), WINDOW), WINDOW) or (0, 0)
        self.assertAlmostEqual(float(WINDOW.across(np.array(math.sqrt(7)))), x, delta=1)
        self.assertLess(y, 20)
        self.assertIsNone(
            last_visible_point(sample_curve(make_function("x^2 + 99"), WINDOW), WINDOW)
        )
