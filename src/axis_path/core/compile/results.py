"""Values of expressions, parameters, points and lists in one state of the sliders."""

from __future__ import annotations

from contextlib import suppress
from dataclasses import replace
from functools import cache, partial

import numpy as np
from numpy.typing import NDArray

from axis_path.core.catalogue import ValueKind
from axis_path.core.catalogue.physics import PHYSICAL_CONSTANTS
from axis_path.core.catalogue.units import NO_UNIT, UnitProduct, read_unit
from axis_path.core.compile.comparisons import decide
from axis_path.core.compile.compiled import CompiledObject, CompiledValue
from axis_path.core.compile.definition import Definition
from axis_path.core.compile.integrals.queries import Integrals
from axis_path.core.compile.snapshot import Snapshot
from axis_path.core.dimensions import (
    AnyMeasure,
    Measure,
    PlaneMeasure,
    ShownQuantity,
    dimension_of,
    measures_of,
    unit_of,
)
from axis_path.core.dimensions.curve_units import CurveUnits
from axis_path.core.dimensions.expand import in_unit
from axis_path.core.document.shown_units import ShownUnits
from axis_path.core.errors import MathError, NotHandledError, NoValueError, UnknownNameError
from axis_path.core.evaluate import ExactForm, Result, ResultKind
from axis_path.core.evaluate.exact.factors import factored_form
from axis_path.core.evaluate.quantities import point_with_units, quantity_of
from axis_path.core.language import hint_of, line_nodes, read_expression, spelled, typeset
from axis_path.core.language.read import read_body
from axis_path.core.language.tree import Call, Name, Node, Physical
from axis_path.core.language.walk import walk
from axis_path.core.lines.meaning import VALUED, Kind

#: The usual variables, which a line need not name.
_VARIABLES = ("x", "y", "t", "theta")
#: Exact forms are sought of the entries of lists up to this length.
_MOST_FORMS = 1_000


class Results:
    """What is computed in a study."""

    def __init__(self, snapshot: Snapshot) -> None:
        self._snapshot = snapshot
        self._integrals = snapshot.query(Integrals)

    def evaluate(self, text: str) -> Result:
        """Compute an expression of any kind, or decide whether a comparison holds.

        Integrals in it may have kinks, jumps and places without a value, and go on without end.

        Raises:
            MathError: it does not read, or needs a value that is missing.
        """
        try:
            body = read_body(text, self._snapshot.analysis.names())
        except (NoValueError, UnknownNameError) as err:
            self._refuse_undetermined(text, err)
            raise
        if body.compared is not None:
            return decide(body.compared, lambda node: self.of_node(node, text))
        return self.of_node(read_expression(text, self._snapshot.analysis.names()), text)

    def _refuse_undetermined(self, text: str, error: MathError) -> None:
        """Refuse a name that stands in a set of equations which do not determine it.

        Raises:
            NoValueError: the error was about such a name.
        """
        name = spelled(text[slice(*error.position)])
        if any(name in one.undetermined for one in self._snapshot.analysis.sets.values()):
            raise NoValueError(
                f"The equations do not determine `{name}`.", position=error.position
            ) from None

    def of_node(self, node: Node, owner: str) -> Result:
        """Compute an expression that was read.

        Args:
            node: the expression.
            owner: the definition or the line it is of, by which random numbers are drawn.

        Raises:
            MathError: it needs a value that is missing, or has no meaning.
        """
        measure, base = self._snapshot.analysis.measured(node, owner)
        if measure is None:
            return self._of_base(base, owner)
        units = tuple(map(unit_of, measures_of(measure)))
        return self._with_certainty(self._in_units(base, measure, units, owner), node)

    def _with_certainty(self, result: Result, node: Node) -> Result:
        """Return a result that says how certain the measured constants are on which it rests."""
        name = next(iter(sorted(self._measured_in(node))), None)
        if name is None or result.remark:
            return result
        share = PHYSICAL_CONSTANTS[name].relative_uncertainty
        words = f"`{name}` is measured: its relative uncertainty is {share}."
        return replace(result, remark=words)

    def _measured_in(self, top: Node) -> set[str]:
        """Return the measured constants in an expression, and in the values that it uses."""
        found, seen, waiting = set[str](), set[str](), [top]
        for node in waiting:
            for part in walk(node):
                if isinstance(part, Physical) and not PHYSICAL_CONSTANTS[part.name].is_exact:
                    found.add(part.name)
                name = getattr(part, "name", "") or getattr(part, "function", "")
                if not name or name in seen:
                    continue
                seen.add(name)
                meaning = self._snapshot.analysis.meaning(name)
                if meaning is not None and meaning.line is not None:
                    waiting += line_nodes(meaning.line)
        return found

    def _in_units(
        self, base: Node, measure: AnyMeasure, units: tuple[UnitProduct, ...], owner: str
    ) -> Result:
        """Compute an expression in base units, and return its value in other units."""
        dimensions = tuple(map(dimension_of, measures_of(measure)))
        if isinstance(measure, PlaneMeasure):
            expressions = self._snapshot.analysis.expressions
            compiled = expressions.units.value(expressions.compile_value(base), units)
            result = self._snapshot.evaluator.value(compiled)
            return point_with_units(result, units, dimensions)
        number = self._of_base(in_unit(base, units[0], self._snapshot.unit), owner)
        return quantity_of(number, units[0], dimensions[0])

    def _of_base(self, node: Node, owner: str) -> Result:
        """Compute an expression of plain numbers."""
        if self._snapshot.objects.has_objects(node):
            return self._of_objects(node, owner)
        integral = self._integrals.by_integrals(node)
        if integral is not None:
            return integral
        result = self._snapshot.evaluator.value(
            self._snapshot.analysis.expressions.compile_value(node), node
        )
        return self._with_forms(result, node, owner)

    def _with_forms(self, result: Result, node: Node, owner: str) -> Result:
        """Return a list whose exact form is sought entry by entry, once somebody asks for it."""
        values = result.value
        if result.kind is not ResultKind.LIST or len(values) > _MOST_FORMS:
            return result

        @cache
        def whole() -> Result | None:
            try:
                return self._snapshot.objects.result(node, owner)
            except MathError:
                return None

        def exact(*indices: int) -> ExactForm:
            found = whole()
            if found is None:
                return ExactForm(None)
            for index in indices:
                found = found.parts[index]
            return ExactForm(found.exact, found.exact_note)

        def with_forms(part: Result, *indices: int) -> Result:
            inner = (with_forms(one, *indices, k) for k, one in enumerate(part.parts))
            return replace(part, find_exact=partial(exact, *indices), parts=tuple(inner))

        return with_forms(result)

    def _of_objects(self, node: Node, owner: str) -> Result:
        """Compute an expression in which lists or matrices take part as wholes.

        A number made of few entries is one in the graph, where it has an exact form.
        """
        expressions = self._snapshot.analysis.expressions
        if expressions.search.kinds.kind(node) in (ValueKind.NUMBER, ValueKind.POINT):
            with suppress(NotHandledError):
                result = self._snapshot.evaluator.value(expressions.compile_value(node), node)
                return _as_factors(result, node)
        return _as_factors(self._snapshot.objects.result(node, owner), node)

    def typeset(self, text: str) -> str:
        """Typeset an expression as MathML, as it is read among the names of the study.

        Raises:
            MathError: it does not read.
        """
        return typeset(read_expression(text, self._snapshot.analysis.names()))

    def hint(self, text: str) -> str:
        """Explain how a line is read where it could be meant otherwise; empty for most lines."""
        return hint_of(text, self._snapshot.analysis.names().and_variables(*_VARIABLES))

    def value(self, name: str) -> Result:
        """Compute the value of a parameter, a point or a list; see ``evaluate`` for integrals.

        Raises:
            MathError: the name is not defined, is a function, or has a problem.
        """
        if name in self._snapshot.analysis.integral_names:
            integral = self._integrals.by_integrals(Name(name))
            if integral is not None:
                return integral
        definition = self._snapshot.definition_of(name)
        if definition.problem is not None:
            raise definition.problem
        if definition.kind is Kind.EQUATIONS and name != definition.name:
            return self._with_certainty(self.of_set(name), Name(name))
        if definition.kind not in VALUED or definition.name is None:
            raise UnknownNameError(f"`{definition.name}` has no single value.")
        if definition.units is not None and not definition.units.is_plain:
            return self._of_line(definition, definition.name)
        if definition.value is not None:
            # What is compiled of a slider holds no value; its name does.
            return self.of_node(Name(definition.name), definition.name)
        compiled = self._snapshot.analysis.compiled(definition.name)
        if isinstance(compiled, CompiledObject):
            return self._of_objects(compiled.node, definition.name)
        if not isinstance(compiled, CompiledValue):
            raise TypeError(f"{name} is no value")
        result = self._snapshot.evaluator.value(compiled)
        return self._with_forms(result, Name(definition.name), definition.name)

    def of_set(self, name: str) -> Result:
        """Compute a value that a set of equations defines, in the unit in which it is shown.

        Nothing is said of measured constants on which it rests.

        Raises:
            MathError: the equations do not determine it, or have no solution.
        """
        sets = self._snapshot.analysis.sets
        index = next(k for k, one in sets.items() if name in one.read.unknowns)
        settled = sets[index]
        if name not in settled.names:
            raise NoValueError(f"The equations do not determine `{name}`.")
        unit = self.units_of_set(index)[name]
        if not unit.parts:
            return self._of_base(Name(name), name)
        number = self._of_base(in_unit(Name(name), unit, self._snapshot.unit), name)
        return quantity_of(number, unit, dimension_of(settled.read.measure(name)))

    def units_of_set(self, index: int) -> dict[str, UnitProduct]:
        """Return the units in which the unknowns of a set are shown, by the index of its line."""
        read, line_id = self._snapshot.analysis.sets[index].read, self._snapshot.lines[index].id
        section = self._snapshot.section(ShownUnits)
        return {
            name: _fitting(read_unit(section.of_line(line_id, name)), read.measure(name), own)
            for name, own in read.units.items()
        }

    def _of_line(self, definition: Definition, name: str) -> Result:
        """Compute a value with a unit, in the unit that was chosen for its line."""
        measure, base = self._snapshot.analysis.measured(Name(name), name)
        if measure is None:
            return self._of_base(base, name)
        chosen = self._chosen(definition)
        units = tuple(
            chosen if chosen is not None and chosen.dimension == dimension_of(part) else own
            for part, own in (
                (part, unit_of(part)) for part in measures_of(measure)
            )
        )  # fmt: skip
        return self._with_certainty(self._in_units(base, measure, units, name), Name(name))

    def _chosen(self, definition: Definition) -> UnitProduct | None:
        return read_unit(self._snapshot.section(ShownUnits).of_line(definition.id))

    def unit_of_line(self, definition: Definition) -> UnitProduct:
        """Return the unit in which the value of a line is shown."""
        if definition.units is None:
            return NO_UNIT
        own = measures_of(definition.units.value)[0]
        return _fitting(self._chosen(definition), own, unit_of(own))

    def points_on_plane(self, definition: Definition, units: CurveUnits) -> NDArray[np.float64]:
        """Return a point or a list of points, (n, 2) floats, as numbers on axes with units."""
        name = definition.name or ""
        measure, base = self._snapshot.analysis.measured(Name(name), name)
        if measure is None:
            return self.points_of(name)
        result = self._in_units(base, measure, (units.x, units.y), name)
        return real_points(np.asarray(result.value, dtype=np.complex128).reshape(-1, 2))

    def points_of(self, name: str) -> NDArray[np.float64]:
        """Return a point or a list of points, (n, 2) floats; NaN where there is no real value.

        Raises:
            MathError: the name is not defined, or is no point and no list of points.
        """
        result = self.value(name)
        points = np.atleast_1d(np.asarray(result.value, dtype=np.complex128))
        if points.ndim < 2 and result.kind is not ResultKind.POINT:
            raise UnknownNameError(f"`{name}` is no list of points.")
        return real_points(points.reshape(-1, 2))


def _fitting(chosen: UnitProduct | None, measure: Measure, own: UnitProduct) -> UnitProduct:
    """Return the unit that was chosen if it still fits what is measured, else its own."""
    if chosen is None or not ShownQuantity.of(measure).fits(chosen):
        return own
    return chosen


def _as_factors(result: Result, node: Node) -> Result:
    """Return a number with its prime factors as its exact form, if they were asked for."""
    number = result.rational
    if not isinstance(node, Call) or node.function != "factor" or number is None:
        return result
    return replace(result, find_exact=lambda: factored_form(number))


def real_points(points: NDArray[np.complex128]) -> NDArray[np.float64]:
    """Return points as floats, NaN where a coordinate is not real."""
    return np.where(points.imag == 0, points.real, np.nan)
