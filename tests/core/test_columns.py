"""What is decided column by column, against what it means, point by point."""

import math
import unittest
from dataclasses import fields
from unittest import mock

import numpy as np

from axis_path.core import Study, Window
from axis_path.core.draw import Curve, sample_curve, sample_path
from axis_path.core.draw.curves import compiled, path, path_table, sample, table
from axis_path.core.draw.curves.sample import both_forms
from tests.core import test_paths, test_sampling
from tests.core.functions import make_function

DRAW = np.random.default_rng(20_261_126)
TOLERANCE = 0.45


def random_columns(count: int) -> tuple[np.ndarray, np.ndarray]:
    """Columns in order, some of which join and some of which do not."""
    edges = np.sort(DRAW.uniform(-9, 9, 2 * count))
    left, right = edges[::2].copy(), edges[1::2].copy()
    for k in np.flatnonzero(DRAW.random(count - 1) < 0.6):
        right[k] = left[k + 1]
    return left, right


def table_of(text: str, edges: np.ndarray) -> np.ndarray:
    function = make_function(text)
    count = len(edges) - 1
    columns = np.stack([edges[:-1], edges[1:], np.arange(count), np.ones(count)])
    lows, highs, ends = compiled.with_ends(columns[0], columns[1])
    found = function.enclose(lows, highs)
    return table.make_table(  # type: ignore[no-any-return]
        columns, ends, found.low, found.high, found.partial, found.nowhere, found.broken
    )


def farthest_px(text: str, columns: np.ndarray, k: int, window: Window) -> float:
    """How far the curve is from the straight line of a column at the most, in px on the axes."""
    left, right = columns[table.LEFT, k], columns[table.RIGHT, k]
    xs = window.between(left, right, 200)
    ys = make_function(text).sample(xs)
    points = np.column_stack([window.across(xs), window.down(ys)])
    start, stop = points[0], points[-1]
    along = stop - start
    t = np.clip((points - start) @ along / max(along @ along, 1e-12), 0, 1)
    return float(np.hypot(*(points - start - t[:, None] * along).T).max())


class RunsTest(unittest.TestCase):
    def test_ends_are_shared_where_columns_join(self) -> None:
        for count in (1, 2, 7, 300):
            left, right = random_columns(count)
            lows, highs, ends = compiled.with_ends(left, right)
            joins = int((left[1:] == right[:-1]).sum())
            self.assertEqual(3 * count - joins, len(lows))
            np.testing.assert_array_equal(left, lows[:count])
            np.testing.assert_array_equal(right, highs[:count])
            np.testing.assert_array_equal(lows[count:], highs[count:])
            np.testing.assert_array_equal(left, lows[ends])
            np.testing.assert_array_equal(right, lows[ends + 1])

    def test_tables_are_merged_in_order(self) -> None:
        for one, other in ((0, 5), (5, 0), (1, 1), (40, 60)):
            parts = [np.sort(DRAW.random((3, size)), axis=1) for size in (one, other)]
            merged = compiled.merged(parts[0], parts[1], 1)
            whole = np.concatenate(parts, axis=1)
            np.testing.assert_array_equal(whole[:, np.argsort(whole[1])], merged)

    def test_runs_equal_those_of_a_plain_loop(self) -> None:
        for _ in range(30):
            left, right = random_columns(40)
            drawn = DRAW.random(40) < 0.7
            parted = DRAW.choice(left, 3)
            runs = [
                k for k in range(40)
                if drawn[k]
                and not (k and drawn[k - 1] and left[k] == right[k - 1] and left[k] not in parted)
            ]  # fmt: skip
            found = compiled.joined_runs(left, right, drawn, parted)
            self.assertEqual(runs, found[:, 0].tolist())
            covered = np.concatenate([np.arange(a, b) for a, b in found])
            np.testing.assert_array_equal(np.flatnonzero(drawn), covered)
            intervals = compiled.intervals(left, right, drawn)
            starts = [k for k in range(40) if drawn[k] and not (k and drawn[k - 1])]
            stops = [k for k in range(40) if drawn[k] and not (k < 39 and drawn[k + 1])]
            np.testing.assert_array_equal(left[starts], intervals[:, 0])
            np.testing.assert_array_equal(right[stops], intervals[:, 1])


class CutTest(unittest.TestCase):
    def test_parts_are_the_whole(self) -> None:
        """Cut columns and those that stay tile what was there, to the last bit."""
        edges = np.linspace(-3, 3, 61)
        columns = table_of("1/x + sin(40x)", edges)
        for share in (0.05, 0.5, 1.0):
            rough = DRAW.random(60) < share
            new, staying = table.cut_columns(columns, rough, edges, 60_000)
            lefts = np.sort(np.concatenate([new[0], staying[table.LEFT]]))
            rights = np.sort(np.concatenate([new[1], staying[table.RIGHT]]))
            np.testing.assert_array_equal(lefts[1:], rights[:-1])
            self.assertEqual((-3, 3), (lefts[0], rights[-1]))
            self.assertEqual(60 - int(rough.sum()), staying.shape[1])
            widths = (new[1] - new[0]) * new[3]
            np.testing.assert_allclose(widths, 0.1, rtol=1e-9)

    def test_nothing_is_cut_beyond_the_room_or_the_finest(self) -> None:
        edges = np.linspace(-3, 3, 61)
        columns = table_of("sin(40x)", edges)
        rough = np.ones(60, dtype=np.bool_)
        self.assertEqual(0, table.cut_columns(columns, rough, edges, 479)[0].shape[1])
        self.assertEqual(480, table.cut_columns(columns, rough, edges, 480)[0].shape[1])
        columns[table.FINENESS] = 512
        self.assertEqual(0, table.cut_columns(columns, rough, edges, 60_000)[0].shape[1])

    def test_first_columns_are_cut_at_the_edges_of_their_pixels(self) -> None:
        edges = np.linspace(-3, 3, 62)
        for low, high, cuts in ((-3, 3, []), (-2.99, 2.5, [0.01, 0.3, 0.31]), (0.1, 0.11, [0.5]),
                                (-1, 2, [-9, 2, 1.9, edges[40], *edges[20:22]])):  # fmt: skip
            first = table.first_columns(edges, float(low), float(high), np.array(cuts, float))
            self.assertEqual((low, high), (first[0, 0], first[1, -1]))
            np.testing.assert_array_equal(first[0, 1:], first[1, :-1])
            inner = [cut for cut in cuts if low < cut < high]
            self.assertTrue(set(inner) <= set(first[0]))
            self.assertLessEqual(first.shape[1], 62 // table.COARSE + len(inner) + 2)
            ends = np.zeros(first.shape[1])
            whole = np.vstack([first[:2], *[ends] * 7, first[2:]])
            rough = np.ones(first.shape[1], dtype=np.bool_)
            new, staying = table.cut_columns(whole, rough & (first[3] < 1), edges, 60_000)
            lefts = np.sort(np.concatenate([new[0], staying[table.LEFT]]))
            between = edges[(edges > low) & (edges < high)]
            np.testing.assert_array_equal(lefts, np.unique([low, *inner, *between]))
            for left, pixel in zip(new[0], new[2].astype(int), strict=True):
                self.assertTrue(edges[pixel] <= left < edges[pixel + 1])

    def test_a_path_is_cut_likewise(self) -> None:
        left, right = np.linspace(0, 1, 11)[:-1].copy(), np.linspace(0, 1, 11)[1:].copy()
        columns = np.zeros((9, 10))
        columns[0], columns[1] = left, right
        columns[path_table.SETTLED, 3:] = 1
        rough = path_table.unsettled(columns)
        self.assertEqual([0, 1, 2], rough.tolist())
        new_left, new_right, staying = path_table.cut_columns(columns, rough, 4)
        self.assertEqual((12, 7), (len(new_left), staying.shape[1]))
        np.testing.assert_array_equal(new_left[1:], new_right[:-1])
        self.assertEqual((left[0], right[2]), (new_left[0], new_right[-1]))


class TruthTest(unittest.TestCase):
    """What is called near enough is near enough, on every kind of axes."""

    windows = (
        Window((-10, 10), (-7, 7)),
        Window((0.02, 50), (-7, 7), log_x=True),
        Window((-10, 10), (0.05, 60), log_y=True),
        Window((0.02, 50), (0.05, 60), log_x=True, log_y=True),
    )
    texts = ("x^3 - 4x", "3 + 2 sin(4x)", "e^(x/2)", "1/(x^2 + 0.05)", "2 + x^5/300", "(x - 1)^2")

    def test_columns_that_are_not_cut_hold_no_far_point(self) -> None:
        looked_at = 0
        for window in self.windows:
            low, high = window.flat_y
            for text in self.texts:
                columns = table_of(text, window.columns()[::7].copy())
                rough = table.rough_columns(
                    columns, low - 99, high + 99, window.x_px, window.y_px, window.log_x,
                    window.log_y, TOLERANCE,
                )  # fmt: skip
                for k in np.flatnonzero(~rough)[::2]:
                    # So far outside the window nothing is looked at.
                    bottom, top = window.flat_ys(columns[[table.LOW, table.HIGH], k])
                    if bottom < low - 99 or top > high + 99:
                        continue
                    looked_at += 1
                    self.assertLess(farthest_px(text, columns, k, window), TOLERANCE, (text, k))
        self.assertGreater(looked_at, 100)

    def test_columns_that_are_called_straight_are(self) -> None:
        looked_at = 0
        for window in self.windows:
            for text in self.texts:
                function = make_function(text)
                columns = table_of(text, window.columns()[::4].copy())
                at = np.arange(columns.shape[1])
                left, right = columns[table.LEFT], columns[table.RIGHT]
                slope = function.expression.derivative()
                first = function.enclose(left, right, slope)
                found = function.enclose(left, right, slope.derivative())
                bounds = found.low, found.high
                if window.is_log:
                    bounds = compiled.bends_on_axes(
                        left.copy(), right.copy(), columns[table.LOW].copy(),
                        columns[table.HIGH].copy(), first.low, first.high, *bounds,
                        window.log_x, window.log_y,
                    )  # fmt: skip
                table.mark_straight(
                    columns, at, *bounds, found.partial, found.broken, window.x_px, window.y_px,
                    window.log_x, window.log_y, TOLERANCE,
                )  # fmt: skip
                for k in np.flatnonzero(columns[table.STRAIGHT])[::3]:
                    looked_at += 1
                    self.assertLess(
                        farthest_px(text, columns, k, window), TOLERANCE * 1.01, (text, k)
                    )
        self.assertGreater(looked_at, 500)

    def test_bends_on_axes_hold_what_differences_show(self) -> None:
        """Second differences of log f(10^t), and of its halves, lie within the bounds."""
        step = 1e-3
        for log_x, log_y in ((True, False), (False, True), (True, True)):
            for text in ("x^3 + 1", "e^(x/2)", "3 + 2sin(x)", "1/(x + 1)"):
                function = make_function(text)
                abscissae = DRAW.uniform(-1, 1, 200)
                flat = np.stack([abscissae - step, abscissae, abscissae + step])
                xs = 10.0**flat if log_x else 3 + flat
                ys = function.sample(xs.ravel()).reshape(3, -1)
                ys = np.log10(ys) if log_y else ys
                bend = (ys[0] - 2 * ys[1] + ys[2]) / step**2
                left, right = xs[0].copy(), xs[2].copy()
                slope = function.expression.derivative()
                parts = [
                    function.enclose(left, right, derivative)
                    for derivative in (None, slope, slope.derivative())
                ]
                bounds = [bound for part in parts for bound in (part.low, part.high)]
                low, high = compiled.bends_on_axes(left, right, *bounds, log_x, log_y)
                with self.subTest(text, log_x=log_x, log_y=log_y):
                    slack = 1e-5 * (1 + np.abs(bend))
                    self.assertTrue((low - slack <= bend).all() and (bend <= high + slack).all())
        low, _ = compiled.bends_on_axes(
            *(np.array([number]) for number in (1.0, 2.0, -1.0, 1.0, 0.0, 1.0, 0.0, 1.0)),
            False,
            True,
        )
        self.assertEqual(-math.inf, low[0])


class RoundsTest(unittest.TestCase):
    """All rounds of cutting in one call are those that are made one by one."""

    WINDOWS = (
        Window((-10, 10), (-6, 7), 331, 215),
        Window((-3, 9), (-2, 3), 200, 100).widened(64),
        Window((0.1, 100), (0.1, 50), 200, 200, log_x=True, log_y=True),
    )

    def assert_same(self, one: Curve, other: Curve) -> None:
        for field in fields(Curve):
            np.testing.assert_equal(
                getattr(one, field.name), getattr(other, field.name), field.name
            )

    def test_compiled_curves_of_functions_equal_plain_ones(self) -> None:
        for text, _ in test_sampling.ZOO:
            function = make_function(text)
            for window in self.WINDOWS:
                at_once = sample_curve(function, window)
                with mock.patch.object(sample, "_forms", return_value=None):
                    self.assert_same(sample_curve(function, window), at_once)

    def test_compiled_curves_of_paths_equal_plain_ones(self) -> None:
        for line, _ in test_paths.ZOO:
            study = Study()
            study.define(line)
            drawn = study.path(study.definitions()[0].name or "")
            for window in self.WINDOWS:
                at_once = sample_path(drawn, window)
                with mock.patch.object(path, "_forms", return_value=None):
                    self.assert_same(sample_path(drawn, window), at_once)

    def test_long_cells_are_cut_in_rounds(self) -> None:
        """Whoever waits can stop it between two rounds."""
        short, long = (
            make_function(" + ".join(f"x^{k}" for k in range(most))).compiled() for most in (5, 120)
        )
        self.assertIsNotNone(both_forms(short, short))
        self.assertIsNone(both_forms(long, long))
        self.assertIsNone(both_forms(short, make_function("gamma(x)").compiled()))
