"""The facade: a study with its lines, sliders and what is asked of it."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import replace
from fractions import Fraction
from functools import cached_property
from typing import Any

import numpy as np
from numpy.typing import NDArray

from axis_path.core.arithmetic import Ball, Defined, ball, precision
from axis_path.core.draw import (
    HOME_X,
    Curve,
    Extent,
    RealRelation,
    Window,
    check_sampling,
    draw_relation,
    extent_of,
    sample_curve,
    sample_path,
)
from axis_path.core.draw.pixels import dot_tenths
from axis_path.core.errors import DomainError, LimitError, MathError, StoppedError, UnknownNameError
from axis_path.core.evaluate import (
    VALUE_BITS,
    End,
    Expression,
    RealFunction,
    RealPath,
    RealSurface,
    Result,
    ResultKind,
    evaluate_constant,
)
from axis_path.core.language import RelationLine, read_expression, typeset
from axis_path.core.limits import CHECK_POINTS
from axis_path.core.locate import Findings, Interval, find_zeros
from axis_path.core.patience import calculation
from axis_path.core.study.analysis import SECOND_OF_PLANE
from axis_path.core.study.axes import Steps, title_lines
from axis_path.core.study.compiled import CompiledFunction, CompiledValue
from axis_path.core.study.definition import Definition
from axis_path.core.study.document import Check
from axis_path.core.study.domains import with_ends
from axis_path.core.study.evaluator import Evaluator
from axis_path.core.study.meaning import VALUED, Kind
from axis_path.core.study.notebook import GivenNumber, Notebook
from axis_path.core.study.scene import READING_DIGITS, Scene, State, make_readings, make_scene
from axis_path.core.study.sliders import (
    exact_number,
)
from axis_path.core.tabulate import Places, ValueTable, counted, listed, make_table, spaced


class Study(Notebook):
    """A study: lines, each a definition or a note, and what is asked of them."""

    def evaluate(self, text: str) -> Result:
        """Compute an expression: a number, a point, a list, or a number with i.

        Raises:
            MathError: it does not read, or needs a value that is missing.
        """
        node = read_expression(text, self._analysis.names())
        return self._evaluator().value(self._analysis.compile_value(node), node)

    def typeset(self, text: str) -> str:
        """Typeset an expression as MathML, as it is read among the names of the study.

        Raises:
            MathError: it does not read.
        """
        return typeset(read_expression(text, self._analysis.names()))

    def value(self, name: str) -> Result:
        """Give the value of a parameter, a point or a list.

        Raises:
            MathError: the name is not defined, is a function, or has a problem.
        """
        definition = self.definition(self._line_of(name).id)
        if definition.problem is not None:
            raise definition.problem
        if definition.kind not in VALUED or definition.name is None:
            raise UnknownNameError(f"`{definition.name}` has no single value.")
        compiled = self._analysis.compiled(definition.name)
        if not isinstance(compiled, CompiledValue):
            raise TypeError(f"{name} is no value")
        return self._evaluator().value(compiled)

    def _evaluator(self) -> Evaluator:
        return Evaluator(self._analysis.lists, dict(self._values), self._analysis)

    def _constant(self, text: str) -> Expression:
        node = read_expression(text, self._analysis.names())
        return self._analysis.compile_constant(node)

    def number(self, given: GivenNumber | Ball) -> Ball:
        """Give a number, or a text such as ``2pi``, as a ball that keeps its exact form.

        Raises:
            MathError: the text has no value.
        """
        if isinstance(given, Ball):
            return given
        if isinstance(given, str):
            expression = self._constant(given)
            found = evaluate_constant(expression, self._values, bits=VALUE_BITS)
            if found.defined is not Defined.YES:
                reason = found.reason or "it could not be decided"
                raise DomainError(f"`{given}` has no value: {reason}.", position=(0, len(given)))
            return found
        with precision(VALUE_BITS):
            return ball.from_fraction(exact_number(given))

    def positive(self, text: str) -> float:
        """Give a typed number that is above zero, such as a step.

        Raises:
            MathError: it has no value, or is not above zero.
        """
        found = self.number(text)
        if found.sign() != 1:
            raise DomainError(f"`{text}` is not above zero.", position=(0, len(text)))
        return float(found.value.mid())

    def check_points(self, check: Check, domain: tuple[float, float]) -> NDArray[np.float64]:
        """Give the abscissae of a sampling check over a stretch of x, (n,) floats.

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
        """Give the sampling check that is kept with the study, as plain data."""
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
        """Give the steps of the axes; one that has lost its value is automatic."""
        return Steps(*(self._step(axis.step) for axis in (self.axes.x, self.axes.y)))

    def _step(self, text: str) -> float | None:
        try:
            return self.positive(text) if text else None
        except MathError:
            return None

    def function(self, name: str) -> RealFunction:
        """Give a function with the present values of the sliders.

        Raises:
            MathError: the name is not defined, is no function, or has a problem.
        """
        line = self._line_of(name)
        definition = self.definition(line.id)
        return self._real_function(definition)

    def _real_function(self, definition: Definition) -> RealFunction:
        if definition.problem is not None:
            raise definition.problem
        if definition.kind not in (Kind.FUNCTION, Kind.ANGLE) or definition.name is None:
            raise UnknownNameError(f"`{definition.name}` is no function of one variable.")
        return self._with_domain(definition, self._compiled_function(definition))

    def _compiled_function(self, definition: Definition) -> CompiledFunction:
        compiled = self._analysis.compiled(definition.name or "")
        if not isinstance(compiled, CompiledFunction):
            raise TypeError(f"{definition.name} is no function")
        return compiled

    def _with_domain(self, definition: Definition, compiled: CompiledFunction) -> RealFunction:
        domain = self.function_line(definition.id).domain
        low, high = (
            None
            if expression is None or bound is None
            else End(self._bound(expression, definition), bound.closed)
            for expression, bound in ((compiled.low, domain.low), (compiled.high, domain.high))
        )
        return RealFunction(
            definition.name or "", definition.variable or "x", compiled.expression, self._values,
            low, high, tuple(self._bound(each, definition) for each in compiled.without),
        )  # fmt: skip

    def path(self, name: str) -> RealPath:
        """Give a path, or a curve by an angle, with the present values of the sliders.

        Raises:
            MathError: the name is not defined, is no path, or has a problem.
        """
        return self._real_path(self.definition(self._line_of(name).id))

    def _real_path(self, definition: Definition) -> RealPath:
        if definition.problem is not None:
            raise definition.problem
        if definition.kind not in (Kind.PATH, Kind.ANGLE):
            raise UnknownNameError(f"`{definition.name}` is no path and no curve by an angle.")
        compiled = self._compiled_function(definition)
        if compiled.plane is None:
            raise TypeError(f"{definition.name} is no path")
        given = self._with_domain(definition, compiled)
        low, high = with_ends(given.low, given.high, definition.kind, self.unit)
        x, y = (replace(given, expression=each, low=low, high=high) for each in compiled.plane)
        assumed = {side for side in ("low", "high") if getattr(given, side) is None}
        return RealPath(x, y, frozenset(assumed))

    def _real_relation(self, definition: Definition) -> RealRelation:
        if not isinstance(definition.line, RelationLine):
            raise TypeError(f"{definition.text} is no relation")
        compiled = self._analysis.relation(definition.line)
        surfaces = (
            RealSurface(each, SECOND_OF_PLANE, self._values) for each in compiled.conditions
        )
        return RealRelation(tuple(surfaces), compiled.signs)

    def _bound(self, expression: Expression, definition: Definition) -> Ball:
        found = evaluate_constant(expression, self._values, bits=VALUE_BITS)
        if found.defined is not Defined.YES:
            reason = found.reason or "not decided"
            raise DomainError(
                f"An end of the domain of `{definition.name}` has no value: {reason}.",
                position=(0, len(definition.text)),
            )
        return found

    def functions(self) -> list[tuple[Definition, RealFunction]]:
        """Give the functions that work and are not hidden, with their lines."""
        state = self._state
        return [
            (definition, state.functions[definition.id])
            for definition in state.definitions
            if definition.id in state.functions and not definition.hidden
        ]

    def on_axes(self, window: Window) -> Window:
        """Give a window on this study's axes that shows the same, as far as it can."""
        return window.on_axes(log_x=self.axes.x.log, log_y=self.axes.y.log)

    def extents(self, window: Window, only: int | None = None) -> list[Extent]:
        """Give how far the shown lines reach that have a size of their own.

        Args:
            window: where equations and inequalities are looked for.
            only: the id of a line, for that one alone.
        """
        state = self._state
        shown = {d.id for d in state.definitions if not d.hidden and only in (None, d.id)}
        clouds = [points for id_, points in state.points.items() if id_ in shown]
        for id_, path in state.paths.items():
            if id_ in shown:
                clouds.append(path.points(np.linspace(path.low.near, path.high.near, 1_001)))
        for id_, relation in state.relations.items():
            if id_ in shown and relation.is_equation:
                clouds += draw_relation(relation, window).solid
        return [found for found in map(extent_of, clouds) if found is not None]

    # Questions

    def curve(self, name: str, window: Window) -> Curve:
        """Draw a function, a path or a curve by an angle in a window.

        Raises:
            MathError: the name is none of these, or does not work.
        """
        if self.definition(self._line_of(name).id).kind in (Kind.PATH, Kind.ANGLE):
            return sample_path(self.path(name), window)
        return sample_curve(self.function(name), window)

    def zeros(
        self, name: str, low: GivenNumber | None = None, high: GivenNumber | None = None
    ) -> Findings:
        """Locate all zeros of a function.

        Args:
            name: the function.
            low: where to begin; by default the lower end of its domain, or that of the window a
                study begins with.
            high: the same for the upper end.

        Raises:
            MathError: the name is not a function that works, or the ends have no value.
        """
        function = self.function(name)
        return find_zeros(function, self.interval(function, low, high))

    def interval(
        self,
        function: RealFunction,
        low: GivenNumber | Ball | None,
        high: GivenNumber | Ball | None,
    ) -> Interval:
        """Give where to search: what is given, else the domain, else the first window.

        Raises:
            DomainError: there is nothing between the ends.
        """
        ends = []
        for given, own, home in ((low, function.low, HOME_X[0]), (high, function.high, HOME_X[1])):
            if given is not None:
                ends.append(self.number(given))
            else:
                ends.append(own.value if own is not None else self.number(home))
        with precision(VALUE_BITS):
            if ball.subtract(ends[1], ends[0]).sign() != 1:
                raise DomainError("The search needs a lower end that is less than its upper end.")
        return Interval(ends[0], ends[1])

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

    def scene(self, window: Window, *, reading_x: float | Fraction | None = None) -> Scene:
        """Put together everything the bench draws in a window, as plain data.

        Args:
            window: what part of the plane is seen.
            reading_x: where the reading line stands, in axis units; None for none. A float is
                rounded to what a pixel can tell, a fraction is taken as it is.
        """
        state = self._state
        made = make_scene(state, window, reading_x=reading_x)
        return made if self.check is None else replace(made, check=self._check(state, window))

    def readings(
        self, window: Window, reading_x: float | Fraction, pointer_y: float | None = None
    ) -> dict[str, Any]:
        """Give the reading line alone, with every function's value there, as plain data.

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

    @cached_property
    def _kept_state(self) -> list[State]:
        return []

    def _evaluated(self) -> tuple[State, bool]:
        """Give the state, and whether nothing of it took too long."""
        is_whole = True
        definitions = self.definitions()
        state = State(
            definitions, {}, {}, {}, {}, {}, {}, {}, self.unit, self.axes, self._steps(),
            title_lines(self.axes.title, self.typeset),
        )  # fmt: skip
        for definition in definitions:
            if definition.aside or definition.problem is not None:
                continue
            try:
                if definition.kind is Kind.FUNCTION:
                    state.functions[definition.id] = self._real_function(definition)
                elif definition.kind in (Kind.PATH, Kind.ANGLE):
                    state.paths[definition.id] = self._real_path(definition)
                elif definition.kind in (Kind.RELATION, Kind.REGION):
                    state.relations[definition.id] = self._real_relation(definition)
                elif definition.kind is Kind.SEVERAL and definition.variables == ("x", "y"):
                    compiled = self._compiled_function(definition)
                    surface = RealSurface(compiled.expression, SECOND_OF_PLANE, self._values)
                    state.surfaces[definition.id] = surface
            except (DomainError, StoppedError) as err:
                state.problems[definition.id] = err
                is_whole &= not isinstance(err, StoppedError)
            if definition.kind in VALUED and definition.value is None:
                is_whole &= self._compute(definition, state)
        return state, is_whole

    def _compute(self, definition: Definition, state: State) -> bool:
        """Put the value of a parameter, a point or a list into the state; False if stopped."""
        is_whole = True
        try:
            with calculation():
                result = self.value(definition.name or "")
                text = result.decimal(READING_DIGITS) or f"no value: {result.reason}"
        except MathError as err:
            text = f"no value: {err.message}"
            is_whole = not isinstance(err, StoppedError)
        else:
            points = np.atleast_1d(np.asarray(result.value, dtype=np.complex128))
            if points.ndim > 1 or result.kind is ResultKind.POINT:
                state.points[definition.id] = _real_points(points.reshape(-1, 2))
        state.computed[definition.id] = text
        return is_whole

    def places(
        self,
        start: GivenNumber | None,
        stop: GivenNumber | None,
        step: GivenNumber | None,
        *,
        count: int | None = None,
        x: Sequence[GivenNumber] | None = None,
    ) -> Places:
        """Give the abscissae of a table.

        Raises:
            MathError: they cannot be made from what is given.
        """
        if x is not None:
            return listed([self.number(each) for each in x])
        if start is None or stop is None or (step is None) == (count is None):
            raise ValueError("give start and stop with either step or count, or x")
        first, last = self.number(start), self.number(stop)
        if count is not None:
            return counted(first, last, count)
        return spaced(first, last, self.number(step if step is not None else 1))


def _real_points(points: NDArray[np.complex128]) -> NDArray[np.float64]:
    """Give points as floats, NaN where a coordinate is not real."""
    return np.where(points.imag == 0, points.real, np.nan)
