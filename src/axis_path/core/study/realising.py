"""Lines as functions, paths and relations with the present values of the sliders."""

from __future__ import annotations

from dataclasses import replace
from fractions import Fraction

from axis_path.core.arithmetic import Ball, Defined
from axis_path.core.draw import (
    RealRelation,
)
from axis_path.core.errors import DomainError, MathError, UnknownNameError
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
from axis_path.core.study.analysis import SECOND_OF_PLANE
from axis_path.core.study.compiled import CompiledFunction
from axis_path.core.study.definition import Definition
from axis_path.core.study.domains import with_ends
from axis_path.core.study.family import (
    Drawable,
    Family,
    FamilyError,
    FamilyState,
    Member,
    family_values,
)
from axis_path.core.study.meaning import Kind
from axis_path.core.study.moving import Runner
from axis_path.core.study.sliders import SliderRange
from axis_path.core.study.valuing import Valuing


class Realising(Valuing):
    """Lines that can be drawn, sampled and proved, in one state of the sliders."""

    def function(self, name: str) -> RealFunction:
        """Return a function with the present values of the sliders.

        Raises:
            MathError: the name is not defined, is no function, or has a problem.
        """
        line = self._line_of(name)
        definition = self.definition(line.id)
        return self._real_function(definition)

    def _real_function(self, definition: Definition) -> RealFunction:
        if definition.problem is not None:
            raise definition.problem
        if definition.kind not in (Kind.FUNCTION, Kind.POLAR) or definition.name is None:
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
            else self._end(expression, bound, definition)
            for expression, bound in ((compiled.low, domain.low), (compiled.high, domain.high))
        )
        return RealFunction(
            definition.name or "", definition.variable or "x", compiled.expression, self._values,
            low, high, tuple(self._bound(each, definition) for each in compiled.without),
        )  # fmt: skip

    def path(self, name: str) -> RealPath:
        """Return a path, or a curve by an angle, with the present values of the sliders.

        Raises:
            MathError: the name is not defined, is no path, or has a problem.
        """
        return self._real_path(self.definition(self._line_of(name).id))

    def _real_path(self, definition: Definition) -> RealPath:
        if definition.problem is not None:
            raise definition.problem
        if definition.kind not in (Kind.PATH, Kind.POLAR):
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

    def _end(self, expression: Expression, bound: Bound, definition: Definition) -> End:
        def make() -> End:
            return End(self._bound(expression, definition), bound.closed)

        # One that depends on no slider stays the same end in all states, with what is known of it.
        if expression.program.parameters:
            return make()
        return expression.kept(("end", bound.closed), make, lambda end: True)

    def _bound(self, expression: Expression, definition: Definition) -> Ball:
        found = evaluate_constant(expression, self._values, bits=VALUE_BITS)
        if found.defined is not Defined.YES:
            reason = found.reason or "not decided"
            raise DomainError(
                f"An end of the domain of `{definition.name}` has no value: {reason}.",
                position=(0, len(definition.text)),
            )
        return Constant.of(found, expression)

    def family_of(self, line_id: int) -> FamilyState:
        """Do the same for a line by its id, whether it has a name or not.

        Raises:
            MathError: it has no family that can be; KeyError: there is no such line.
        """
        definition = self.definition(line_id)
        if definition.family is None:
            raise UnknownNameError(f"`{definition.name}` is drawn for the present values only.")
        found = self._family(definition, definition.family)
        if found.problem is not None:
            raise found.problem
        return found

    def _family(self, definition: Definition, family: Family) -> FamilyState:
        name = ""
        try:
            name, _, _ = self.slider_of(family.slider)
            if definition.name not in self._analysis.users(name) and definition.name is not None:
                raise FamilyError(f"`{definition.name}` does not depend on `{name}`.")
            values = family_values(family, self.rational)
        except KeyError:
            return FamilyState(family, name, (), FamilyError("The slider of this family is gone."))
        except MathError as err:
            return FamilyState(family, name, (), err)
        members = [self._member(definition, name, text, value) for text, value in values]
        return FamilyState(family, name, tuple(members))

    def _member(self, definition: Definition, name: str, text: str, value: Fraction) -> Member:
        other = self.at({name: value})
        try:
            return Member(text, value, other._drawable(definition))
        except MathError as err:
            return Member(text, value, None, err.message)

    def _drawable(self, definition: Definition) -> Drawable:
        if definition.kind is Kind.FUNCTION:
            return self._real_function(definition)
        if definition.kind in (Kind.RELATION, Kind.REGION):
            return self._real_relation(definition)
        return self._real_path(definition)

    def _runner_at(self, runner: Runner) -> Ball | MathError:
        try:
            return self.number(runner.at)
        except MathError as err:
            return err

    def _ranges(self) -> dict[int, SliderRange | MathError]:
        found: dict[int, SliderRange | MathError] = {}
        for line in self.lines:
            if line.slider is None or line.aside:
                continue
            if line.moving is not None or self.definition(line.id).typed:
                try:
                    found[line.id] = self.slider_range(line.id)
                except MathError as err:
                    found[line.id] = err
        return found
