"""Lines as functions, paths and relations with the present values of the sliders."""

from __future__ import annotations

from dataclasses import replace

from axis_path.core.arithmetic import Ball, Defined
from axis_path.core.compile.compiled import CompiledFunction
from axis_path.core.compile.definition import Definition
from axis_path.core.compile.inputs import SECOND_OF_PLANE
from axis_path.core.compile.numbers import Numbers
from axis_path.core.compile.slider_queries import Sliders
from axis_path.core.compile.snapshot import Snapshot
from axis_path.core.compile.units.plane import PlaneUnits
from axis_path.core.draw import (
    RealRelation,
)
from axis_path.core.errors import DomainError, UnknownNameError
from axis_path.core.evaluate import (
    VALUE_BITS,
    Constant,
    End,
    Expression,
    RealFunction,
    RealPath,
    RealSurface,
    evaluate_constant,
)
from axis_path.core.language import RelationLine
from axis_path.core.language.tree import Bound
from axis_path.core.lines.domains import with_ends
from axis_path.core.lines.meaning import Kind


class Curves:
    """The lines of a study that can be drawn, sampled and proved."""

    def __init__(self, snapshot: Snapshot) -> None:
        self._snapshot = snapshot
        self._numbers = snapshot.query(Numbers)
        self._sliders = snapshot.query(Sliders)
        self._units = snapshot.query(PlaneUnits)

    def function(self, name: str) -> RealFunction:
        """Return a function with the present values of the sliders.

        Raises:
            MathError: the name is not defined, is no function, or has a problem.
        """
        return self.real_function(self._snapshot.definition_of(name))

    def real_function(self, definition: Definition) -> RealFunction:
        """Return the function of a line.

        Raises:
            MathError: it is no function, or does not work.
        """
        if definition.problem is not None:
            raise definition.problem
        if definition.kind not in (Kind.FUNCTION, Kind.POLAR) or definition.name is None:
            raise UnknownNameError(f"`{definition.name}` is no function of one variable.")
        return self._with_domain(definition, self._compiled_function(definition))

    def surface(self, definition: Definition) -> RealSurface:
        """Return the function of x and y of a line that works."""
        compiled = self._compiled_function(definition)
        expression = self._snapshot.analysis.expressions.units.on_plane(
            compiled.expression, self._units.of(definition), has_value=True
        )
        return RealSurface(expression, SECOND_OF_PLANE, self._snapshot.values)

    def _compiled_function(self, definition: Definition) -> CompiledFunction:
        compiled = self._snapshot.analysis.compiled(definition.name or "")
        if not isinstance(compiled, CompiledFunction):
            raise TypeError(f"{definition.name} is no function")
        units = self._units.of(definition)
        if definition.kind is Kind.SEVERAL or units.is_plain:
            return compiled
        return self._snapshot.analysis.expressions.units.function(compiled, units)

    def _with_domain(self, definition: Definition, compiled: CompiledFunction) -> RealFunction:
        domain = self._snapshot.function_line(definition.id).domain
        low, high = (
            None
            if expression is None or bound is None
            else self._end(expression, bound, definition)
            for expression, bound in ((compiled.low, domain.low), (compiled.high, domain.high))
        )
        without = tuple(self._bound(piece, definition) for piece in compiled.without)
        return RealFunction(
            definition.name or "", definition.variable or "x", compiled.expression,
            self._snapshot.values, low, high, without, self._units.of(definition),
        )  # fmt: skip

    def path(self, name: str) -> RealPath:
        """Return a path, or a curve by an angle, with the present values of the sliders.

        Raises:
            MathError: the name is not defined, is no path, or has a problem.
        """
        return self.real_path(self._snapshot.definition_of(name))

    def real_path(self, definition: Definition) -> RealPath:
        """Return the path of a line.

        Raises:
            MathError: it is no path, or does not work.
        """
        if definition.problem is not None:
            raise definition.problem
        if definition.kind not in (Kind.PATH, Kind.POLAR):
            raise UnknownNameError(f"`{definition.name}` is no path and no curve by an angle.")
        compiled = self._compiled_function(definition)
        if compiled.plane is None:
            raise TypeError(f"{definition.name} is no path")
        given = self._with_domain(definition, compiled)
        low, high = with_ends(given.low, given.high, definition.kind, self._snapshot.unit)
        x, y = (
            replace(given, expression=expression, low=low, high=high)
            for expression in compiled.plane
        )
        assumed = {side for side in ("low", "high") if getattr(given, side) is None}
        return RealPath(x, y, frozenset(assumed))

    def real_relation(self, definition: Definition) -> RealRelation:
        """Return the equation or the inequality of a line that works."""
        line = self._snapshot.base_line(definition.id)
        if not isinstance(line, RelationLine):
            raise TypeError(f"{definition.text} is no relation")
        compiled = self._snapshot.analysis.expressions.relation(line)
        units, expressions = self._units.of(definition), self._snapshot.analysis.expressions
        surfaces = (
            RealSurface(
                expressions.units.on_plane(condition, units, has_value=False),
                SECOND_OF_PLANE,
                self._snapshot.values,
            )
            for condition in compiled.conditions
        )
        return RealRelation(tuple(surfaces), compiled.signs)

    def _end(self, expression: Expression, bound: Bound, definition: Definition) -> End:
        def make() -> End:
            return End(self._bound(expression, definition), bound.closed)

        # One that depends on no slider stays the same end in all states, with what is known of it.
        if expression.program.parameters:
            return make()
        return expression.cached(("end", bound.closed), make, lambda end: True)

    def _bound(self, expression: Expression, definition: Definition) -> Ball:
        value = evaluate_constant(expression, self._snapshot.values, bits=VALUE_BITS)
        if value.defined is not Defined.YES:
            reason = value.reason or "not decided"
            raise DomainError(
                f"An end of the domain of `{definition.name}` has no value: {reason}.",
                position=(0, len(definition.text)),
            )
        return Constant.of(value, expression)
