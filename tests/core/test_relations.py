"""Equations and inequalities in x and y: no part is missed, none is drawn where there is none."""

import unittest
from typing import Any

import numpy as np
from scipy.spatial import cKDTree

from axis_path.core import Study, Window
from axis_path.core.draw import RealRelation, RelationPicture, draw_levels, draw_relation
from axis_path.core.draw.relations.tiling import Grid, calm_cells, tile
from axis_path.core.evaluate import Boxes
from axis_path.core.kinds.states import States

WINDOW = Window((-10, 10), (-6.5, 6.5), 660, 430)


def relation(line: str) -> RealRelation:
    study = Study()
    study.define(line)
    return next(iter(study.snapshot.query(States).state.relations.values()))


def picture(line: str, window: Window = WINDOW) -> RelationPicture:
    return draw_relation(relation(line), window)


def distances(points: np.ndarray, lines: list[np.ndarray]) -> np.ndarray:
    """Return the distance of each point from the nearest vertex of the lines, in px."""
    every = np.concatenate(lines)
    px, own = (
        np.column_stack([WINDOW.across(points_of_one[:, 0]), WINDOW.down(points_of_one[:, 1])])
        for points_of_one in (points, every)
    )
    return np.array([np.hypot(*(own - point).T).min() for point in px])


T = np.linspace(0, 2 * np.pi, 700)
X = np.linspace(-10, 10, 900)
#: An equation, and points that lie on it.
LINES: tuple[tuple[str, np.ndarray], ...] = (
    ("x^2 + y^2 = 36", np.column_stack([6 * np.cos(T), 6 * np.sin(T)])),
    ("x^2/81 + y^2/0.01 = 1", np.column_stack([9 * np.cos(T), 0.1 * np.sin(T)])),
    ("|x| + |y| = 3", np.column_stack([X, 3 - np.abs(X)])[np.abs(X) <= 3]),
    ("(x - y)^2 = 0", np.column_stack([X, X])),
    ("(x - y)^2 (x + y) = 0", np.concatenate([np.column_stack([X, X]), np.column_stack([X, -X])])),
    ("x y = 1", np.column_stack([X, 1 / X])),
    ("1/x = y", np.column_stack([X, 1 / X])),
    ("y - tan(x) = 0", np.column_stack([X, np.tan(X)])),
    ("x sin y = 1", np.column_stack([1 / np.sin(X / 2), X / 2])),
    (
        "y^2 = x^3 - 3x + 1",
        np.column_stack([X, np.sqrt(np.where(X**3 > 3 * X - 1, X**3 - 3 * X + 1, np.nan))]),
    ),
)


def _in_px(points: np.ndarray, window: Window) -> np.ndarray:
    (left, right), (low, high) = window.x, window.y
    across = (points[:, 0] - left) / (right - left) * window.width
    return np.column_stack([across, (points[:, 1] - low) / (high - low) * window.height])


def _filled(line: np.ndarray) -> np.ndarray:
    """Return points along a line that are at most a twentieth of a pixel apart."""
    steps = np.hypot(*np.diff(line, axis=0).T)
    at = np.concatenate([[0.0], np.cumsum(steps)])
    wanted = np.linspace(0, at[-1], int(at[-1] * 20) + 2)
    return np.column_stack([np.interp(wanted, at, line[:, k]) for k in (0, 1)])


class EquationTest(unittest.TestCase):
    def test_every_point_of_an_equation_is_near_a_drawn_line(self) -> None:
        for line, points in LINES:
            with self.subTest(line):
                known = points[np.isfinite(points).all(axis=1)]
                visible = known[(np.abs(known[:, 0]) < 10) & (np.abs(known[:, 1]) < 6.5)]
                # Lines have vertices on the sides of cells of two pixels.
                self.assertLess(float(distances(visible, picture(line).solid).max()), 2.0)

    def test_drawn_points_are_within_a_fifth_of_a_pixel(self) -> None:
        """The sign changes, or the value vanishes, so near to every drawn point."""
        reach = 0.2 * 20 / 660
        angles = np.linspace(0, 2 * np.pi, 24, endpoint=False)
        for line, _ in LINES:
            given = relation(line)
            condition = given.conditions[0]
            for part in draw_relation(given, WINDOW).solid:
                around = part[:, None] + reach * np.column_stack([np.cos(angles), np.sin(angles)])
                values = condition.sample(around[..., 0].ravel(), around[..., 1].ravel())
                values = values.reshape(len(part), -1)
                own = np.abs(condition.sample(*part.T))
                changes = (np.nanmin(values, axis=1) <= 0) & (np.nanmax(values, axis=1) >= 0)
                with self.subTest(line):
                    self.assertTrue((changes | (own < 1e-3)).all())

    def test_polylines_stay_true_at_double_size(self) -> None:
        """The sign changes, or the value vanishes, within a quarter of a pixel; corners are cut within a cell."""
        reach = 0.25 * 20 / 660
        angles = np.linspace(0, 2 * np.pi, 48, endpoint=False)
        circle = reach * np.column_stack([np.cos(angles), np.sin(angles)])
        bent = (
            "sin(x y) = 0.3",
            "x^3 + y^3 = 3x y",
            "(x^2 + y^2)^2 = 40(x^2 - y^2)",
            "x^2 + y^2 = 0.04",
            "y^2 = x^3",
        )
        for line in (*(line for line, _ in LINES), *bent):
            given = relation(line)
            condition = given.conditions[0]
            far = []
            for part in draw_relation(given, WINDOW).solid:
                middles = (part[1:] + part[:-1]) / 2
                values = condition.sample(*(middles[:, None] + circle).reshape(-1, 2).T)
                values = values.reshape(len(middles), -1)
                changes = (np.nanmin(values, axis=1) <= 0) & (np.nanmax(values, axis=1) >= 0)
                far += middles[~(changes | (np.abs(condition.sample(*middles.T)) < 1e-3))].tolist()
            with self.subTest(line):
                # The corners of |x| + |y| = 3, and where a line meets itself.
                self.assertLessEqual(len(far), 2)

    def test_curve_details_are_within_half_a_pixel(self) -> None:
        turn = np.linspace(0, 2 * np.pi, 40_001)
        sine, cosine = np.sin(turn), np.cos(turn)
        straight = np.linspace(-1.4, 1.4, 20_001)
        along = np.linspace(-1.6, 1.6, 20_001)
        truths = {
            "sqrt(x) + sqrt(y) = 1": (cosine**4, sine**4),
            "y^2 = x^2(x + 1)": (along**2 - 1, along * (along**2 - 1)),
            "(x^2 + y^2)^2 = 2(x^2 - y^2)": (
                np.sqrt(2) * cosine / (1 + sine**2), np.sqrt(2) * sine * cosine / (1 + sine**2)
            ),
            "|x| + |y| = 1": (np.sign(cosine) * cosine**2, np.sign(sine) * sine**2),
            "x^2 = y^2": (np.tile(straight, 2), np.concatenate([straight, -straight])),
            "(x^2 + y^2 - x)^2 = x^2 + y^2": ((1 + cosine) * cosine, (1 + cosine) * sine),
        }  # fmt: skip
        for text, truth in truths.items():
            for move in (0.0, 0.004, 0.0113):
                window = Window((-1.5 - move, 2.5 - move), (-1.4 - 2 * move, 1.4), 400, 280)
                with self.subTest(text, move=move):
                    picture = draw_relation(relation(text), window)
                    true = _in_px(np.column_stack(truth), window)
                    true = true[((true > 1) & (true < (399, 279))).all(axis=1)]
                    drawn = np.concatenate(
                        [_filled(_in_px(line, window)) for line in picture.solid]
                    )
                    drawn = np.concatenate([drawn, _in_px(picture.dots, window)])
                    missed = cKDTree(drawn).query(true)[0].max()
                    inside = ((drawn > 2) & (drawn < (398, 278))).all(axis=1)
                    stray = cKDTree(true).query(drawn[inside])[0].max()
                    self.assertLess(max(missed, stray), 0.5)

    def test_logarithmic_axes_show_the_same_equations(self) -> None:
        window = Window((0.05, 50), (0.05, 50), 660, 430, log_x=True, log_y=True)
        xs = np.geomspace(0.06, 45, 300)
        circle = np.column_stack([6 * np.cos(T), 6 * np.sin(T)])
        angles = np.linspace(0, 2 * np.pi, 24, endpoint=False)
        ring = 0.5 * np.column_stack([np.cos(angles), np.sin(angles)])
        for line, points in (
            ("x^2 + y^2 = 36", circle),
            ("x y = 1", np.column_stack([xs, 1 / xs])),
            ("y^2 = x^3", np.column_stack([xs, xs**1.5])),
            ("y - sqrt(x) - 1/x = 0", np.column_stack([xs, np.sqrt(xs) + 1 / xs])),
            ("y - sin(x) = 0", np.column_stack([xs, np.sin(xs)])),
            ("ln(x) + ln(y) = 1", np.column_stack([xs, np.e / xs])),
        ):
            given = relation(line)
            condition = given.conditions[0]
            solid = draw_relation(given, window).solid
            px = [np.column_stack([window.across(p[:, 0]), window.down(p[:, 1])]) for p in solid]
            for part in px:
                around = (part[:, None] + ring).reshape(-1, 2)
                values = condition.sample(*window.points_at(*around.T).T).reshape(len(part), -1)
                changes = (np.nanmin(values, axis=1) <= 0) & (np.nanmax(values, axis=1) >= 0)
                with self.subTest(line):
                    self.assertTrue(changes.all())
            inner = (points > 0.06).all(axis=1) & (points < 45).all(axis=1)
            visible = points[inner]
            own = np.concatenate(px)
            abscissae = np.column_stack([window.across(visible[:, 0]), window.down(visible[:, 1])])
            away = [np.hypot(*(own - abscissa).T).min() for abscissa in abscissae]
            with self.subTest(line):
                self.assertGreater(len(away), 40)
                self.assertLess(max(away), 2.0)

    def test_no_line_crosses_a_pole_or_a_jump(self) -> None:
        for line, abscissae in (("y - tan(x) = 0", (np.pi / 2, -np.pi / 2)), ("y - floor(x) = 0", (1.0, 2.0)),
                             ("e^(1/x) = y", (0.0,))):  # fmt: skip
            for part in picture(line).solid:
                for abscissa in abscissae:
                    with self.subTest(line, abscissa=abscissa):
                        near = np.abs(part[:, 0] - abscissa) < 0.03
                        self.assertLess(np.ptp(part[near, 1]) if near.any() else 0, 4.0)

    def test_single_points_and_tiny_parts_are_dots(self) -> None:
        for line, abscissa in (
            ("(x + 6)^2 + (y + 4)^2 = 0", (-6, -4)),
            ("x^2 + y^2 = 0.0004", (0, 0)),
        ):
            with self.subTest(line):
                found = picture(line)
                parts = [*found.solid, found.dots]
                away = np.abs(np.concatenate(parts) - abscissa).max()
                self.assertLess(away, 0.06)

    def test_a_double_line_that_does_not_factor_is_dotted_not_missed(self) -> None:
        found = picture("x^2 - 2x y + y^2 = 0")
        self.assertGreater(len(found.dots), 300)
        self.assertLess(np.abs(found.dots[:, 0] - found.dots[:, 1]).max(), 0.05)

    def test_relations_that_hold_nowhere_or_everywhere(self) -> None:
        self.assertTrue(picture("x^2 + y^2 = -1").is_nowhere)
        self.assertTrue(picture("x^2 + y^2 < -1").is_nowhere)
        everywhere = picture("x = x")
        area = ((everywhere.dense[:, 1] - everywhere.dense[:, 0])
                * (everywhere.dense[:, 3] - everywhere.dense[:, 2])).sum()  # fmt: skip
        self.assertAlmostEqual(20 * 13, area)

    def test_more_lines_than_pixels_are_shaded(self) -> None:
        found = picture("sin(40x) = cos(40y)")
        self.assertGreater(len(found.dense), 100)

    def test_a_lane_shows_where_there_is_some_of_it(self) -> None:
        found = picture("x^2/25 + y^2/9 = 1")
        self.assertEqual(1, len(found.across))
        self.assertTrue(np.allclose([-5, 5], found.across[0], atol=0.03))


class MissedTest(unittest.TestCase):
    """Nothing that a dense look can see is missed, on equations that nobody chose."""

    def equations(self) -> list[str]:
        rng = np.random.default_rng(12)
        found = []
        for _ in range(12):
            terms = [
                f"({rng.uniform(-1, 1):.2f}) x^{a} y^{b}"
                if a and b
                else f"({rng.uniform(-2, 2):.2f}) {'x' if a else 'y'}^{a or b}"
                for a, b in ((4, 0), (2, 1), (0, 3), (1, 1), (1, 0), (0, 2))
            ]
            found.append(f"{' + '.join(terms)} = {rng.uniform(-3, 3):.2f}")
        for _ in range(8):
            a, b, c = rng.uniform(0.3, 2.5, 3)
            found.append(f"sin({a:.2f}x) + cos({b:.2f}y) = {c - 1:.2f} sin(x y/9)")
        return found

    def test_every_sign_change_is_near_a_drawn_line(self) -> None:
        window = Window((-3, 3), (-2, 2), 300, 200)
        xs, ys = np.linspace(-3, 3, 601), np.linspace(-2, 2, 401)
        grid_x, grid_y = np.meshgrid(xs, ys)
        for line in self.equations():
            given = relation(line)
            values = given.conditions[0].sample(grid_x.ravel(), grid_y.ravel()).reshape(401, 601)
            signs = np.sign(values)
            changes = (signs[:-1, :-1] != signs[1:, 1:]) | (signs[1:, :-1] != signs[:-1, 1:])
            row, column = np.nonzero(changes)
            drawn = np.zeros((201, 301), dtype=bool)
            found = draw_relation(given, window)
            for part in [*found.solid, found.dots]:
                for a in np.linspace(0, 1, 9):
                    between = part[:-1] + (part[1:] - part[:-1]) * a if len(part) > 1 else part
                    x, y = (
                        ((between[:, 0] + 3) * 50).astype(int),
                        ((between[:, 1] + 2) * 50).astype(int),
                    )
                    drawn[y.clip(0, 200), x.clip(0, 300)] = True
            for x_low, x_high, y_low, y_high in found.dense:
                drawn[int((y_low + 2) * 50) : int((y_high + 2) * 50) + 1,
                      int((x_low + 3) * 50) : int((x_high + 3) * 50) + 1] = True  # fmt: skip
            near = np.zeros_like(drawn)
            for down in range(-2, 3):
                for across in range(-2, 3):
                    near |= np.roll(np.roll(drawn, down, axis=0), across, axis=1)
            with self.subTest(line):
                self.assertTrue(near[row // 2, column // 2].all())

    def test_enclosures_over_boxes_hold_the_values(self) -> None:
        rng = np.random.default_rng(7)
        for line in self.equations():
            surface = relation(line).conditions[0]
            low = rng.uniform((-3, -2), (2, 1), (200, 2))
            high = low + rng.uniform(0, 1, (200, 2))
            boxes = Boxes(low[:, 0], high[:, 0], low[:, 1], high[:, 1])
            for function in (surface, *(surface.slopes() or ())):
                found = function.enclose(boxes)
                for _ in range(8):
                    at = low + (high - low) * rng.uniform(0, 1, (200, 2))
                    values = function.sample(at[:, 0], at[:, 1])
                    self.assertTrue((values >= found.low).all() and (values <= found.high).all())

    def test_slopes_are_those_of_differences(self) -> None:
        rng = np.random.default_rng(2)
        for line in self.equations():
            surface = relation(line).conditions[0]
            x, y = rng.uniform((-3, -2), (3, 2), (50, 2)).T
            step = 1e-6
            across, up = surface.slopes()  # type: ignore[misc]
            for slope, (dx, dy) in ((across, (step, 0)), (up, (0, step))):
                near = (surface.sample(x + dx, y + dy) - surface.sample(x - dx, y - dy)) / (
                    2 * step
                )
                self.assertTrue(np.allclose(near, slope.sample(x, y), rtol=1e-4, atol=1e-5))


class TilingTest(unittest.TestCase):
    """What enclosures say of a cell is true of every point in it."""

    TEXTS = ("x^2 + y^2 = 9", "y - tan(x) = 0", "1/(x y) = 1", "sqrt(x) - y = 0", "y - floor(x) = 0",
             "ln(x + y) = 0", "sin(x y) + x = 0", "|x| - |y| = 1")  # fmt: skip

    def test_signs_and_calm_cells_are_true(self) -> None:
        rng = np.random.default_rng(9)
        grid = Grid.of(WINDOW)
        rows, columns = grid.shape
        for text in self.TEXTS:
            surface = relation(text).conditions[0]
            tiling, calm = tile(surface, grid), calm_cells(surface, grid)
            row, column = rng.integers(0, rows, 3_000), rng.integers(0, columns, 3_000)
            part = rng.uniform(0, 1, (2, 3_000))
            xs = grid.xs[column] + part[0] * (grid.xs[column + 1] - grid.xs[column])
            ys = grid.ys[row] + part[1] * (grid.ys[row + 1] - grid.ys[row])
            values, sign = surface.sample(xs, ys), tiling.sign[row, column]
            with self.subTest(text):
                known = np.abs(sign) == 1
                self.assertTrue((np.sign(values[known]) == sign[known]).all())
                self.assertTrue(np.isnan(values[np.isnan(sign)]).all())
                self.assertTrue(np.isfinite(values[calm[row, column]]).all())
                # Cells that are left open are few: a line is no wider than it must be.
                self.assertLess(tiling.maybe.mean(), 0.12)

    def test_boxes_are_cut_without_gaps(self) -> None:
        boxes = Boxes(
            np.array([0.0, 0.1]), np.array([0.3, 0.7]), np.array([-1.0, 2.0]), np.array([1.0, 2.1])
        )
        cut = boxes.cut(3)
        self.assertEqual(18, len(cut))
        for k in range(2):
            part = cut.take(np.arange(9 * k, 9 * k + 9))
            area = ((part.x_high - part.x_low) * (part.y_high - part.y_low)).sum()
            whole = (boxes.x_high[k] - boxes.x_low[k]) * (boxes.y_high[k] - boxes.y_low[k])
            self.assertAlmostEqual(whole, area)
            self.assertEqual(
                (boxes.x_low[k], boxes.x_high[k]), (part.x_low.min(), part.x_high.max())
            )
            self.assertEqual(
                (boxes.y_low[k], boxes.y_high[k]), (part.y_low.min(), part.y_high.max())
            )


class RegionTest(unittest.TestCase):
    def test_filled_rings_match_the_inequality(self) -> None:
        rng = np.random.default_rng(5)
        points = rng.uniform((-10, -6.5), (10, 6.5), (1_500, 2))
        x, y = points.T
        for line, holds in (
            ("3x + y > 1", 3 * x + y > 1),
            ("1 < x^2 + y^2 <= 9", (x**2 + y**2 > 1) & (x**2 + y**2 <= 9)),
            ("y < sin(3x)", y < np.sin(3 * x)),
            ("1/x < y", 1 / x < y),
            ("sqrt(x) > y", np.where(x >= 0, np.sqrt(np.maximum(x, 0)), -np.inf) > y),
        ):
            with self.subTest(line):
                found = picture(line)
                inside = np.zeros(len(points), dtype=int)
                for ring in found.fills:
                    a, b = ring, np.roll(ring, -1, axis=0)
                    up = (a[:, 1] > y[:, None]) != (b[:, 1] > y[:, None])
                    with np.errstate(all="ignore"):
                        at = (b[:, 0] - a[:, 0]) * (y[:, None] - a[:, 1]) / (b[:, 1] - a[:, 1]) + a[
                            :, 0
                        ]
                    inside += (up & (x[:, None] < at)).sum(axis=1)
                wrong = points[(inside % 2 == 1) != holds]
                borders = [*found.solid, *found.dashed]
                # Only within a cell of the border, or of the end of where there are values.
                wrong = wrong[np.abs(wrong[:, 0]) > 0.07]
                if len(wrong):
                    self.assertLess(float(distances(wrong, borders).max()), 3.0)

    def test_a_strict_side_is_dashed_and_the_other_is_not(self) -> None:
        found = picture("1 < x^2 + y^2 <= 9")
        self.assertTrue(np.allclose(1, np.hypot(*np.concatenate(found.dashed).T), atol=0.01))
        self.assertTrue(np.allclose(3, np.hypot(*np.concatenate(found.solid).T), atol=0.01))

    def test_a_border_ends_where_the_other_condition_does(self) -> None:
        found = picture("0 < x < y")
        self.assertGreaterEqual(float(np.concatenate(found.dashed)[:, 1].min()), -0.05)


class LevelTest(unittest.TestCase):
    def levels(self, line: str) -> Any:
        study = Study()
        study.define(line)
        return draw_levels(
            next(iter(study.snapshot.query(States).state.surfaces.values())), WINDOW
        ).levels

    def test_each_line_keeps_its_level_and_labels_stand_on_it(self) -> None:
        levels = self.levels("d(x, y) = x^2/8 - y^2/5 + x y/10")
        self.assertGreater(len(levels), 6)
        for level in levels[1:]:
            value = float(level.text.replace("−", "-"))
            abscissae = [
                *np.concatenate(level.lines), *((mark.x, mark.y) for mark in level.labels),
            ]  # fmt: skip
            self.assertGreater(len(abscissae), 10)
            for x, y in abscissae:
                self.assertAlmostEqual(value, x**2 / 8 - y**2 / 5 + x * y / 10, delta=0.01)

    def test_no_level_runs_along_a_break(self) -> None:
        lines = [line for level in self.levels("d(x, y) = y + 5floor(x)") for line in level.lines]
        self.assertGreater(len(lines), 20)
        for line in lines:
            self.assertLess(np.ptp(line[:, 1]), 0.1)

    def test_a_flat_function_has_none(self) -> None:
        self.assertEqual([], self.levels("d(x, y) = 3"))

    def test_labels_keep_apart_and_inside(self) -> None:
        for line in (
            "d(x, y) = x y",
            "d(x, y) = sin(x) + sin(y)",
            "d(x, y) = x/y",
            "d(x, y) = x^2 + 4y^2",
        ):
            marks = [mark for level in self.levels(line) for mark in level.labels]
            self.assertTrue(marks)
            px = np.array(
                [[WINDOW.across(np.array(m.x)), WINDOW.down(np.array(m.y))] for m in marks]
            )
            with self.subTest(line):
                self.assertTrue((px > 20).all() and (px < (640, 410)).all())
                apart = np.hypot(*(px[:, None] - px[None]).transpose(2, 0, 1)) + 1e9 * np.eye(
                    len(px)
                )
                self.assertGreater(float(apart.min()), 40)
                self.assertTrue(all(abs(mark.angle) <= 50 for mark in marks))

    def test_a_map_shades_every_point_exactly_once(self) -> None:
        """Between two levels lies just what has values between them."""
        rng = np.random.default_rng(1)
        points = rng.uniform((-9.5, -6), (9.5, 6), (400, 2))
        levels = self.levels("d(x, y) = x^2/8 - y^2/5")
        values = points[:, 0] ** 2 / 8 - points[:, 1] ** 2 / 5
        edges = [-np.inf, *(float(level.text.replace("−", "-")) for level in levels[1:]), np.inf]
        for level, low, high in zip(levels, edges[:-1], edges[1:], strict=True):
            inside = np.zeros(len(points), dtype=int)
            for ring in level.rings:
                a, b = ring, np.roll(ring, -1, axis=0)
                y = points[:, 1][:, None]
                up = (a[:, 1] > y) != (b[:, 1] > y)
                with np.errstate(all="ignore"):
                    at = (b[:, 0] - a[:, 0]) * (y - a[:, 1]) / (b[:, 1] - a[:, 1]) + a[:, 0]
                inside += (up & (points[:, 0][:, None] < at)).sum(axis=1)
            sure = (np.abs(values - low) > 0.02) & (np.abs(values - high) > 0.02)
            expected = (values > low) & (values < high)
            self.assertTrue(((inside % 2 == 1) == expected)[sure].all())
