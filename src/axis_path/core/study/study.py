"""The facade: a study with its lines, sliders and what is asked of it."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import replace
from fractions import Fraction
from typing import Any

import numpy as np
from numpy.typing import NDArray

from axis_path.core.deadline import calculation
from axis_path.core.draw import (
    Curve,
    Extent,
    Window,
    check_sampling,
    draw_relation,
    extent_of,
    sample_curve,
    sample_path,
)
from axis_path.core.draw.pixels import dot_tenths
from axis_path.core.errors import DomainError, LimitError, MathError, StoppedError
from axis_path.core.evaluate import (
    RealFunction,
    RealSurface,
    ResultKind,
)
from axis_path.core.limits import CHECK_POINTS
from axis_path.core.study.analysis import SECOND_OF_PLANE
from axis_path.core.study.axes import Steps, title_lines
from axis_path.core.study.compiled import CompiledValue
from axis_path.core.study.definition import Definition
from axis_path.core.study.document import Check
from axis_path.core.study.fit_ledger import Plot
from axis_path.core.study.following import Following
from axis_path.core.study.meaning import VALUED, Kind
from axis_path.core.study.read_off import READING_DIGITS
from axis_path.core.study.runner_row import Visit, positions, trail_tenths
from axis_path.core.study.scene import Scene, State, make_readings, make_scene
from axis_path.core.study.sliders import exact_number
from axis_path.core.study.sliding import GivenNumber
from axis_path.core.study.valuing import real_points
from axis_path.core.tabulate import (
    ValueTable,
    make_table,
)
from axis_path.core.threads import kept_property

#: A part of the plane: from where to where across, and upward.
Box = tuple[tuple[float, float], tuple[float, float]]
_UNDECIDED = "it could not be decided"


def in_box(points: NDArray[np.float64], box: Box) -> NDArray[np.bool_]:
    """Return which of points, (n, 2), lie within a part of the plane, (n,)."""
    inside = [(points[:, k] >= low) & (points[:, k] <= high) for k, (low, high) in enumerate(box)]
    return inside[0] & inside[1]


def _pairs(flat: list[int]) -> list[list[int]]:
    return [flat[k : k + 2] for k in range(0, len(flat), 2)]


class Study(Following):
    """A study: lines, each a definition or a note, and what is asked of them."""

    def check_points(self, check: Check, domain: tuple[float, float]) -> NDArray[np.float64]:
        """Return the abscissae of a sampling check over a stretch of x, (n,) floats.

        Raises:
            MathError: the count or the step cannot be.
        """
        low, high = domain
        if check.step:
            step = self.positive(check.step)
            if (high - low) / step > CHECK_POINTS.value:
                raise LimitError(f"A sampling check has {CHECK_POINTS.value:,} points at most.")
            steps = np.arange(int((high - low) / step + 1e-9) + 1)
            return np.asarray(low + step * steps, dtype=np.float64)
        count = self.number(check.count)
        if (
            count.exact is None
            or count.exact.q != 1
            or not 2 <= int(count.exact.p) <= (CHECK_POINTS.value)
        ):
            words = f"A sampling check has a whole number of points, 2 to {CHECK_POINTS.value:,}."
            raise DomainError(words, position=(0, len(check.count)))
        return np.linspace(low, high, int(count.exact.p))

    def _check(self, state: State, window: Window) -> dict[str, Any] | None:
        """Return the sampling check that is kept with the study, as plain data."""
        check = self.check
        function = None if check is None else state.functions.get(check.line)
        if check is None or function is None:
            return None
        shown = {"line": check.line, "count": check.count, "step": check.step}
        try:
            with calculation():
                curve = sample_curve(function, window)
                if curve.domain is None:
                    sentence = f"The domain of {function.name} lies outside the window."
                    return shown | {"points": [], "sentence": sentence}
                xs = self.check_points(check, curve.domain)
                found = check_sampling(function, curve, window, xs)
        except MathError as err:
            return shown | {"points": [], "sentence": err.message}
        known = found.points[np.isfinite(found.points).all(axis=1)]
        return shown | {"points": dot_tenths(known, window), "sentence": found.sentence}

    def _steps(self) -> Steps:
        """Return the steps of the axes; one that has lost its value is automatic."""
        return Steps(*(self._step(axis.step) for axis in (self.axes.x, self.axes.y)))

    def _step(self, text: str) -> float | None:
        try:
            return self.positive(text) if text else None
        except MathError:
            return None

    def functions(self) -> list[tuple[Definition, RealFunction]]:
        """Return the functions that work and are not hidden, with their lines."""
        state = self._state
        return [
            (definition, state.functions[definition.id])
            for definition in state.definitions
            if definition.id in state.functions and not definition.hidden
        ]

    def on_axes(self, window: Window) -> Window:
        """Return a window on this study's axes that shows the same, as far as it can."""
        return window.on_axes(log_x=self.axes.x.log, log_y=self.axes.y.log)

    def extents(self, window: Window, only: int | None = None) -> list[Extent]:
        """Return how far the shown lines reach that have a size of their own.

        Args:
            window: where equations and inequalities are looked for.
            only: the id of a line, for that one alone.
        """
        state = self._state
        shown = {d.id for d in state.definitions if not d.hidden and only in (None, d.id)}
        clouds = [points for id_, points in state.points.items() if id_ in shown]
        clouds += self._data_clouds() if only is None else []
        for id_, path in state.paths.items():
            if id_ in shown:
                clouds.append(path.points(np.linspace(path.low.near, path.high.near, 1_001)))
        for id_, relation in state.relations.items():
            if id_ in shown and relation.is_equation:
                clouds += draw_relation(relation, window).solid
        return [found for found in map(extent_of, clouds) if found is not None]

    def _data_clouds(self) -> list[NDArray[np.float64]]:
        """Return the points of data that are drawn, (n, 2) for each pair of columns."""
        clouds = []
        for plot in self.plots:
            try:
                clouds.append(self.plotted(plot)[0])
            except MathError:
                continue
        return [each for each in clouds if len(each)]

    # Questions

    def curve(self, name: str, window: Window) -> Curve:
        """Draw a function, a path or a curve by an angle in a window.

        Raises:
            MathError: the name is none of these, or does not work.
        """
        if self.definition(self._line_of(name).id).kind in (Kind.PATH, Kind.POLAR):
            return sample_path(self.path(name), window)
        return sample_curve(self.function(name), window)

    def values(
        self,
        names: Sequence[str],
        start: GivenNumber | None = None,
        stop: GivenNumber | None = None,
        step: GivenNumber | None = None,
        *,
        count: int | None = None,
        x: Sequence[GivenNumber] | None = None,
    ) -> ValueTable:
        """Make a table of values: by start, stop and step, or count, or at places of one's own.

        Raises:
            MathError: a name is not a function that works, or the table cannot be made.
        """
        functions = {name: self.function(name) for name in names}
        return make_table(functions, self.places(start, stop, step, count=count, x=x))

    def scene(
        self,
        window: Window,
        *,
        reading_x: float | Fraction | None = None,
        pointer_y: float | None = None,
        with_trails: bool = False,
        box: Box | None = None,
    ) -> Scene:
        """Put together everything the bench draws in a window, as plain data.

        Args:
            window: what part of the plane is seen.
            reading_x: where the reading line stands, in axis units; None for none. A float is
                rounded to what a pixel can tell, a fraction is taken as it is.
            pointer_y: how high the pointer is; paths are read at their point nearest to it.
            with_trails: whether the places of trails are given too, in tenths of a pixel; the page
                has them already, a picture has not.
            box: a part of the plane; points of data within it are told as chosen.
        """
        state = self._state
        made = make_scene(state, window, reading_x=reading_x, pointer_y=pointer_y)
        if with_trails:
            for row in made.rows:
                kept = self.line(row["id"]).trail
                if kept is not None:
                    row["trail"] = {"most": kept.most, "dots": trail_tenths(kept, window)}
        if self.plots:
            made = replace(made, data=self._drawn_data(window, box))
        return made if self.check is None else replace(made, check=self._check(state, window))

    def _drawn_data(self, window: Window, box: Box | None) -> list[dict[str, Any]]:
        """Return the columns that are drawn as points, in tenths of a pixel."""
        found = []
        for k, plot in enumerate(self.plots):
            try:
                points, rows = self.plotted(plot)
            except MathError:
                # The Data panel says why; points of another state do not stay.
                continue
            chosen = [] if box is None else np.flatnonzero(in_box(points, box)).tolist()
            drawn = {"x": plot.x, "y": plot.y, "tone": k, "points": dot_tenths(points, window)}
            for name, column, axis in (
                ("x_bars", plot.x_error, 0), ("y_bars", plot.y_error, 1)
            ):  # fmt: skip
                if column:
                    drawn[name] = self._bars(points, rows, column, axis, window)
            found.append(drawn | ({"chosen": chosen} if chosen else {}))
        return found

    def _bars(
        self, points: NDArray[np.float64], rows: NDArray[np.int64], column: str, axis: int,
        window: Window,
    ) -> list[list[int]]:  # fmt: skip
        """Return both ends of the error bars along an axis; none where there is no number."""
        try:
            cells = self.column_of(column).floats()
        except MathError:
            return []
        sizes = np.append(cells, np.nan)[np.minimum(rows, len(cells))]
        reach = np.zeros_like(points)
        reach[:, axis] = np.abs(sizes)
        known = np.isfinite(reach).all(axis=1)
        low, high = (points - reach)[known], (points + reach)[known]
        ends = [dot_tenths(each, window) for each in (low, high)]
        return [[*a, *b] for a, b in zip(*(_pairs(each) for each in ends), strict=True)]

    def plotted(self, plot: Plot) -> tuple[NDArray[np.float64], NDArray[np.int64]]:
        """Return the points of two columns, (n, 2), and the rows they stand in, (n,).

        Raises:
            MathError: a column or the filter cannot be used.
        """
        columns = [self.column_of(name).floats() for name in (plot.x, plot.y)]
        count = min(map(len, columns))
        points = np.column_stack([each[:count] for each in columns])
        known = np.isfinite(points).all(axis=1)
        kept = self.rows_kept()
        if kept is not None:
            known &= np.append(kept, np.zeros(count, dtype=np.bool_))[:count]
        rows = np.flatnonzero(known)
        return points[rows], rows

    def readings(
        self, window: Window, reading_x: float | Fraction, pointer_y: float | None = None
    ) -> dict[str, Any]:
        """Return the reading line alone, with every function's value there, as plain data.

        Args:
            window: what part of the plane is seen.
            reading_x: where the line stands.
            pointer_y: how high the pointer is; paths are read at their point nearest to it.
        """
        return make_readings(self._state, window, reading_x, pointer_y)

    @property
    def _state(self) -> State:
        kept = self._kept_state
        if not kept:
            state, is_whole = self._evaluated()
            if not is_whole:
                # What was stopped is tried anew the next time.
                return state
            kept.append(state)
        return kept[0]

    @kept_property
    def _kept_state(self) -> list[State]:
        return []

    def _evaluated(self) -> tuple[State, bool]:
        """Return the state, and whether nothing of it took too long."""
        is_whole = True
        definitions = self.definitions()
        state = State(
            definitions, {}, {}, {}, {}, {}, {}, {}, self.unit, self.axes, self._steps(),
            title_lines(self.axes.title, self.typeset), self._ranges(), self.end_uses(),
        )  # fmt: skip
        for definition in definitions:
            if definition.aside or definition.problem is not None:
                continue
            try:
                if definition.kind is Kind.FUNCTION:
                    state.functions[definition.id] = self._real_function(definition)
                elif definition.kind in (Kind.PATH, Kind.POLAR):
                    state.paths[definition.id] = self._real_path(definition)
                    if definition.runner is not None and definition.runner.at:
                        state.runners[definition.id] = self._runner_at(definition.runner)
                elif definition.kind in (Kind.RELATION, Kind.REGION):
                    state.relations[definition.id] = self._real_relation(definition)
                elif definition.kind is Kind.SEVERAL and definition.variables == ("x", "y"):
                    compiled = self._compiled_function(definition)
                    surface = RealSurface(compiled.expression, SECOND_OF_PLANE, self._values)
                    state.surfaces[definition.id] = surface
            except (DomainError, StoppedError) as err:
                state.problems[definition.id] = err
                is_whole &= not isinstance(err, StoppedError)
            if definition.family is not None and definition.id not in state.problems:
                state.families[definition.id] = self._family(definition, definition.family)
            if definition.kind in VALUED and definition.value is None:
                is_whole &= self._compute(definition, state)
        return state, is_whole

    def trails(self) -> dict[int, tuple[tuple[float, float], ...]]:
        """Return where points have been that leave a trail, by the ids of their lines."""
        return {line.id: line.trail.points for line in self.lines if line.trail is not None}

    def visited(
        self, visits: Sequence[Mapping[int, GivenNumber]]
    ) -> dict[int, list[tuple[float, float]]]:
        """Return where points with a trail are in some states, by the ids of their lines.

        Hidden points, and those whose line does not work, leave none.

        Args:
            visits: the values of sliders and of the parameters of runners, by the ids of their
                lines; a number that a slider cannot take is brought to its nearest step.

        Raises:
            MathError: a line is no slider and has no runner.
        """
        state = self._state
        trailing = [d for d in state.definitions if d.trail is not None and not d.hidden]
        points = {
            d.id: compiled
            for d in trailing
            if d.id in state.points and len(state.points[d.id]) == 1 and d.name is not None
            for compiled in (self._analysis.compiled(d.name),)
            if isinstance(compiled, CompiledValue)
        }
        paths = {d.id: state.paths[d.id] for d in trailing if d.id in state.paths}
        return positions(points, paths, [self._visit(each) for each in visits])

    def go_on(self, visits: Sequence[Mapping[int, GivenNumber]]) -> None:
        """Let trails go on through some states; see ``visited``."""
        for line_id, places in self.visited(visits).items() if visits else ():
            trail = self.line(line_id).trail
            if trail is not None:
                self.put_trail(line_id, trail.with_more(places))

    def _visit(self, given: Mapping[int, GivenNumber]) -> Visit:
        values, runners = dict(self._values), {}
        for line_id, value in given.items():
            exact = self.rational(value)
            if self.line(line_id).moving is None:
                runners[line_id] = exact
            else:
                name, _, _ = self.slider_of(line_id)
                snapped = isinstance(value, str)
                values[name] = exact if snapped else self.slider_range(line_id).snap(exact)
        return Visit(values, runners)

    def _compute(self, definition: Definition, state: State) -> bool:
        """Put the value of a parameter, a point or a list into the state; False if stopped."""
        is_whole = True
        try:
            with calculation():
                result = self.value(definition.name or "")
                text = result.decimal(READING_DIGITS) or f"no value: {result.reason or _UNDECIDED}"
        except MathError as err:
            text = f"no value: {err.message}"
            is_whole = not isinstance(err, StoppedError)
        else:
            if definition.typed and result.kind is ResultKind.NUMBER and not result.reason:
                state.typed[definition.id] = result.rational or exact_number(float(result.value))
            points = np.atleast_1d(np.asarray(result.value, dtype=np.complex128))
            if points.ndim > 1 or result.kind is ResultKind.POINT:
                state.points[definition.id] = real_points(points.reshape(-1, 2))
        state.computed[definition.id] = text
        return is_whole
