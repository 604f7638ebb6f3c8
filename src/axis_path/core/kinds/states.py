"""All lines of a study as they are drawn, in one position of the sliders."""

from __future__ import annotations

import numpy as np

from axis_path.core.arithmetic.arrays.array import shape_words
from axis_path.core.compile.curves import Curves
from axis_path.core.compile.definition import Definition
from axis_path.core.compile.numbers import Numbers
from axis_path.core.compile.results import Results, real_points
from axis_path.core.compile.slider_queries import Sliders
from axis_path.core.compile.snapshot import Snapshot
from axis_path.core.compile.units.plane import PlaneUnits
from axis_path.core.deadline import calculation
from axis_path.core.errors import DomainError, MathError, StoppedError
from axis_path.core.evaluate import RealFunction, RealPath, Result, ResultKind
from axis_path.core.kinds.drawables import Drawables
from axis_path.core.kinds.functions.read_off import READING_DIGITS
from axis_path.core.kinds.kind import Points
from axis_path.core.kinds.registry import KINDS
from axis_path.core.kinds.state import State
from axis_path.core.lines.meaning import VALUED
from axis_path.core.lines.sliders import exact_number

_UNDECIDED = "it could not be decided"
#: A matrix of more entries is shown by its size.
_MOST_SHOWN = 16
_SIDES = {ResultKind.LIST: 1, ResultKind.MATRIX: 2}


class States:
    """What the lines of a study are as functions, paths, points and numbers."""

    def __init__(self, snapshot: Snapshot) -> None:
        self._snapshot = snapshot
        self._drawables = snapshot.query(Drawables)
        self._numbers = snapshot.query(Numbers)
        self._sliders = snapshot.query(Sliders)
        self._curves = snapshot.query(Curves)
        self._results = snapshot.query(Results)
        self._units = snapshot.query(PlaneUnits)
        self._state: State | None = None

    @property
    def state(self) -> State:
        """Return all lines as they are drawn; what took too long is tried anew the next time."""
        if self._state is not None:
            return self._state
        state, is_whole = self._evaluated()
        if is_whole:
            self._state = state
        return state

    def functions(self) -> list[tuple[Definition, RealFunction]]:
        """Return the functions that work and are not hidden, with their lines."""
        state = self.state
        return [
            (definition, state.functions[definition.id])
            for definition in state.definitions
            if definition.id in state.functions and not definition.hidden
        ]

    def _evaluated(self) -> tuple[State, bool]:
        """Return the state, and whether nothing of it took too long."""
        is_whole = True
        definitions = self._snapshot.definitions()
        state = State(
            definitions, self._snapshot.unit, self._sliders.ranges(), self._sliders.end_uses()
        )
        for definition in definitions:
            if definition.disabled or definition.problem is not None:
                continue
            try:
                self._snapshot.check_solved(definition.uses)
                real = KINDS[definition.kind].realise(self._curves, definition)
                if real is not None:
                    state.realised[definition.id] = real
                if isinstance(real, RealPath) and definition.runner and definition.runner.at:
                    state.runners[definition.id] = self._numbers.number_or_error(
                        definition.runner.at, real.x.units.variable
                    )
            except (DomainError, StoppedError) as err:
                state.problems[definition.id] = err
                is_whole &= not isinstance(err, StoppedError)
            if definition.family is not None and definition.id not in state.problems:
                state.families[definition.id] = self._drawables.family(
                    definition, definition.family
                )
            if definition.kind in VALUED and definition.value is None:
                is_whole &= self._compute(definition, state)
        return state, is_whole

    def _compute(self, definition: Definition, state: State) -> bool:
        """Put the value of a parameter, a point or a list into the state; False if stopped."""
        is_whole = True
        try:
            with calculation():
                result = self._results.value(definition.name or "")
                text = _value_text(result)
        except MathError as err:
            text = f"no value: {err.message}"
            is_whole = not isinstance(err, StoppedError)
        else:
            if definition.typed and result.kind is ResultKind.NUMBER and not result.reason:
                state.typed[definition.id] = result.rational or exact_number(float(result.value))
            units = self._units.of(definition)
            points = _points(result)
            if points is not None and not units.is_plain:
                points = self._results.points_on_plane(definition, units)
            if points is not None:
                state.realised[definition.id] = points
                if _is_complex(result):
                    state.complex_ids.add(definition.id)
            if result.kind in (ResultKind.LIST, ResultKind.MATRIX):
                state.sizes[definition.id] = shape_words(
                    np.shape(result.value)[: _SIDES[result.kind]]
                )
        state.computed[definition.id] = text
        return is_whole


def _value_text(result: Result) -> str:
    """Write a value for its row; a large matrix by its size."""
    if result.kind is ResultKind.MATRIX and result.value.size > _MOST_SHOWN:
        return f"{shape_words(result.value.shape)}"
    return result.decimal(READING_DIGITS) or f"no value: {result.reason or _UNDECIDED}"


def _points(result: Result) -> Points | None:
    """Return what is drawn of a value, (n, 2) floats: points, complex numbers, lists of them."""
    values = np.asarray(result.value)
    if result.kind is ResultKind.POINT or (result.kind is ResultKind.LIST and values.ndim > 1):
        return real_points(values.astype(np.complex128).reshape(-1, 2))
    if _is_complex(result):
        numbers = np.atleast_1d(values)
        return np.column_stack([numbers.real, numbers.imag])
    return None


def _is_complex(result: Result) -> bool:
    """Check whether it is a complex number or a list of them."""
    is_list = result.kind is ResultKind.LIST and np.ndim(result.value) == 1
    return result.kind is ResultKind.COMPLEX or (is_list and np.iscomplexobj(result.value))
