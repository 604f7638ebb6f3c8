"""Lines and typed expressions as steps of the graph."""

from __future__ import annotations

from collections.abc import Collection, Mapping, Sequence
from contextlib import suppress
from itertools import pairwise
from types import MappingProxyType

from axis_path.core.catalogue import ValueKind
from axis_path.core.catalogue.units import NO_UNIT, UnitProduct
from axis_path.core.compile.cache import CompileCache
from axis_path.core.compile.compiled import (
    Compiled,
    CompiledFunction,
    CompiledObject,
    CompiledRelation,
    CompiledValue,
)
from axis_path.core.compile.inputs import SECOND_OF_PLANE, input_name
from axis_path.core.compile.units.conversion import UnitConversion
from axis_path.core.dimensions.curve_units import PLAIN_UNITS, CurveUnits
from axis_path.core.errors import MathError, NotHandledError, ShapeError
from axis_path.core.evaluate import (
    Expression,
    FullCompiler,
    Op,
    Shaped,
)
from axis_path.core.evaluate.graph.graph import IMAGINARY
from axis_path.core.evaluate.objects.object_search import ObjectSearch
from axis_path.core.evaluate.objects.values import Value
from axis_path.core.language import (
    FunctionLine,
    RelationLine,
    ValueLine,
)
from axis_path.core.language.tree import Binary, Call, Name, Node, Operator
from axis_path.core.language.walk import walk
from axis_path.core.lines.meaning import (
    Kind,
    Meaning,
)
from axis_path.core.threads import COMPUTING

#: No unknown has a unit.
NO_UNITS: Mapping[str, UnitProduct] = MappingProxyType({})


class Expressions:
    """Compiles lines and expressions into the graph of a study.

    Args:
        cache: of what was compiled.
        compiler: of expressions, with the meanings of their names.

    Attributes:
        units: what moves compiled expressions from one unit to another.
    """

    def __init__(self, cache: CompileCache, compiler: FullCompiler) -> None:
        self.cache = cache
        self.units = UnitConversion(cache, compiler)
        self._compiler = compiler

    def relation(self, line: RelationLine) -> CompiledRelation:
        """Return an equation or an inequality in the graph."""
        with COMPUTING:
            graph = self.cache.graph
            variables = {
                "x": graph.add(Op.VARIABLE),
                "y": graph.add(Op.INPUT, payload=SECOND_OF_PLANE),
            }
            steps, signs = [], []
            for left, right, sign in zip(line.terms, line.terms[1:], line.signs, strict=False):
                # What is less than something is something above it.
                great, small = (right, left) if sign in ("<", "<=") else (left, right)
                difference = Binary(Operator.SUBTRACT, great, small)
                steps.append(self._compiler.compile(difference, variables))
                signs.append({"<": ">", "<=": ">="}.get(sign, sign))
            self._check_real(*steps)
            return CompiledRelation(tuple(map(self._expression, steps)), tuple(signs))

    def differences(
        self,
        terms: Sequence[Node],
        variable: str,
        others: Sequence[str] = (),
        units: Mapping[str, UnitProduct] = NO_UNITS,
    ) -> list[Expression]:
        """Return every term of an equation or an inequality less the one after it.

        Args:
            terms: what stands between the signs.
            variable: the unknown that is the variable of the expressions; none if it is empty.
            others: further unknowns, which are inputs under their names.
            units: of the unknowns, whose numbers they are; the terms are in base units.
        """
        with COMPUTING:
            graph = self.cache.graph
            variables = {variable: graph.add(Op.VARIABLE)} if variable else {}
            variables |= {name: graph.add(Op.INPUT, payload=input_name(name)) for name in others}
            for name, unit in units.items():
                if name in variables:
                    variables[name] = self.units.step_in_base_units(variables[name], unit)
            steps = [
                self._compiler.compile(Binary(Operator.SUBTRACT, left, right), variables)
                for left, right in pairwise(terms)
            ]
            self._check_real(*steps)
            return [self._expression(step) for step in steps]

    def expression(self, node: Node, inputs: Sequence[str]) -> Expression:
        """Return an expression whose variables are inputs under their names."""
        with COMPUTING:
            graph = self.cache.graph
            variables = {name: graph.add(Op.INPUT, payload=input_name(name)) for name in inputs}
            step = self._compiler.compile(node, variables)
            self._check_real(step)
            return self._expression(step)

    def side(
        self,
        term: Node,
        variable: str,
        unit: UnitProduct = NO_UNIT,
        value_unit: UnitProduct = NO_UNIT,
    ) -> Expression:
        """Return one side of an equation as an expression of its unknown.

        Args:
            term: the side, in base units.
            variable: the unknown.
            unit: of which the unknown is a number.
            value_unit: of which the value is one.
        """
        with COMPUTING:
            own = self.units.step_in_base_units(self.cache.graph.add(Op.VARIABLE), unit)
            step = self._compiler.compile(term, {variable: own})
            return self._expression(self.units.step_in_unit(step, value_unit))

    def row_expression(
        self,
        node: Node,
        variables: Collection[str],
        over: str,
        at: Expression | None,
        units: CurveUnits = PLAIN_UNITS,
    ) -> Expression:
        """Return an expression of what the rows of a table are.

        Args:
            node: the expression.
            variables: the letters that stand for the place of a row, or for ``at``.
            over: the slider whose values the rows are; empty if they are those of the variables.
            at: the value of the variables if the rows are those of a slider.
            units: of the variables and of the value; the expression is in base units.
        """
        with COMPUTING:
            graph = self.cache.graph
            row = graph.add(Op.VARIABLE)
            own = self.units.step_in_base_units(at.step if at else row, units.variable)
            step = self._compiler.compile(node, dict.fromkeys(variables, own))
            step = self.units.step_in_unit(step, units.y)
            if over:
                step = graph.substitute(step, graph.add(Op.PARAMETER, payload=over), row)
            self._check_real(step)
            return self._expression(step)

    def at_expression(self, expression: Expression, at: Expression) -> Expression:
        """Return an expression with a number in the place of its variable."""
        with COMPUTING:
            graph = self.cache.graph
            step = graph.substitute(expression.step, graph.add(Op.VARIABLE), at.step)
            return self._expression(step)

    def _check_real(self, *steps: int) -> None:
        graph = self.cache.graph
        for step in (graph.steps[index] for index in graph.reachable(*steps)):
            if step.op == Op.CONSTANT and step.payload == IMAGINARY:
                raise NotHandledError(
                    "Functions, domains and lists are real; `i` works in Working, and in "
                    "`z = 2 + 3i`."
                )

    def compile_constant(self, node: Node) -> Expression:
        """Return a number without a variable in the graph.

        Raises:
            MathError: something it needs is missing, or it is no number.
        """
        with COMPUTING:
            step = self._compiler.compile(node, {})
            self._check_real(step)
            return self._expression(step)

    def compile_exact(self, node: Node) -> Expression:
        """Return an exact form in the graph; its angles are radians, whatever the study's unit."""
        with COMPUTING:
            return self._expression(self._compiler.compile_plain(node))

    def compile_value(self, node: Node) -> CompiledValue:
        """Return a number, a point or a list in the graph.

        Raises:
            MathError: something it needs is missing, or a limit is reached.
        """
        with COMPUTING:
            shaped = self._compiler.compile_value(node)
            sources = [self.cache.lists[name] for name in shaped.lists]
            if sources:
                second = () if shaped.second is None else (shaped.second,)
                elements = [step for source in sources for step in source.steps]
                self._check_real(shaped.first, *second, *elements)
            return self._compiled_value(shaped)

    def _expression(self, step: int) -> Expression:
        return Expression(self.cache.graph, step)

    def _compiled_value(self, shaped: Shaped) -> CompiledValue:
        second = None if shaped.second is None else self._expression(shaped.second)
        return CompiledValue(shaped, self._expression(shaped.first), second)

    def compile_line(self, meaning: Meaning) -> tuple[Kind, Compiled] | MathError:
        """Return the kind of a line and what it is in the graph, or why it cannot be compiled."""
        try:
            match meaning.base_line:
                case FunctionLine() as line if self._is_operation(line):
                    return Kind.OPERATION, CompiledObject(line.expression)
                case FunctionLine() as line:
                    return self._compile_function(line)
                case ValueLine(_, expression):
                    return self._compile_value_line(expression)
                case RelationLine() as line:
                    return meaning.kind, self.relation(line)
        except MathError as err:
            return err.with_traceback(None)
        raise TypeError("a note is not compiled")

    def _compile_value_line(self, expression: Node) -> tuple[Kind, Compiled]:
        if not self.has_objects(expression):
            value = self.compile_value(expression)
            return _value_kind(value.shaped), value
        kind = _KINDS[self._compiler.search.kinds.kind(expression)]
        if kind in (Kind.PARAMETER, Kind.POINT):
            with suppress(NotHandledError):
                return kind, self.compile_value(expression)
        self._check_shapes(expression)
        return kind, CompiledObject(expression)

    @property
    def search(self) -> ObjectSearch:
        """Return what tells in which expressions lists or matrices take part as wholes."""
        return self._compiler.search

    def compile_plain(self, node: Node, variables: dict[str, Shaped]) -> Shaped:
        """Return an expression in which none does, with steps for its own variables."""
        with COMPUTING:
            return self._compiler.compile_value(node, variables)

    def has_objects(self, node: Node) -> bool:
        """Check whether lists or matrices take part in an expression as wholes."""
        return self._compiler.search.has_objects(node)

    def compile_object(self, node: Node, *, decides: bool = False) -> Value:
        """Return a value whose entries are steps; see ``FullCompiler.compile_object``."""
        with COMPUTING:
            return self._compiler.compile_object(node, decides=decides)

    def _check_shapes(self, expression: Node) -> None:
        """Refuse shapes that do not fit; what depends on numbers is found out when it is computed.

        Raises:
            MathError: the expression has no meaning, whatever the sliders are.
        """
        with suppress(NotHandledError):
            self.compile_object(expression)

    def _is_operation(self, line: FunctionLine) -> bool:
        """Check whether a function can be one of lists or matrices only."""
        if line.name is None or not all(domain.is_whole for domain in line.domains):
            return False
        return self._compiler.search.kinds.is_operation(line.expression, frozenset(line.variables))

    def _compile_function(self, line: FunctionLine) -> tuple[Kind, Compiled]:
        graph = self.cache.graph
        if line.name is None and self.has_objects(line.expression) and not _uses_variable(line):
            # An unnamed line without a variable, such as ``A B``, is the value that it is.
            kind, compiled = self._compile_value_line(line.expression)
            if kind is not Kind.PARAMETER:
                return kind, compiled
        with COMPUTING:
            variables = {line.variables[0]: Shaped(graph.add(Op.VARIABLE))}
            for name in line.variables[1:]:
                variables[name] = Shaped(graph.add(Op.INPUT, payload=input_name(name)))
            body = self._compiler.compile_value(line.expression, variables)
            self._check_real(body.first, *([] if body.second is None else [body.second]))
            if body.lists:
                return self._list_line(line, body)
            kind = _function_kind(line, body)
            if kind is Kind.POINT:
                return kind, self._compiled_value(body)
            domain = line.domains[0]
            made = CompiledFunction(
                self._expression(body.first),
                None if domain.low is None else self.compile_constant(domain.low.value),
                None if domain.high is None else self.compile_constant(domain.high.value),
                tuple(self.compile_constant(value) for value in domain.without),
                self._plane(line, kind, body, variables),
            )
            for more in line.domains[1:]:
                for bound in (more.low, more.high):
                    if bound is not None:
                        self.compile_constant(bound.value)
            return kind, made

    def _plane(
        self, line: FunctionLine, kind: Kind, body: Shaped, variables: dict[str, Shaped]
    ) -> tuple[Expression, Expression] | None:
        """Return the coordinates of a path, or of a curve by an angle: r cos θ and r sin θ."""
        if body.second is not None:
            return self._expression(body.first), self._expression(body.second)
        if kind is not Kind.POLAR:
            return None
        angle = Name(line.variable)
        across, up = (
            self._compiler.compile_value(
                Binary(Operator.MULTIPLY, line.expression, Call(turn, (angle,))), variables
            )
            for turn in ("cos", "sin")
        )
        return self._expression(across.first), self._expression(up.first)

    def _list_line(self, line: FunctionLine, body: Shaped) -> tuple[Kind, Compiled]:
        """Take an unnamed line such as ``f(L)`` as the list that it is."""
        if line.name is None and not _uses_variable(line):
            return Kind.LIST, self._compiled_value(body)
        raise ShapeError(
            "A function has one value at a place; make the list outside, as in `f([1, 2])`.",
            position=line.expression.span,
        )


def _uses_variable(line: FunctionLine) -> bool:
    return any(getattr(node, "name", None) == line.variable for node in walk(line.expression))


_KINDS = {
    ValueKind.NUMBER: Kind.PARAMETER, ValueKind.POINT: Kind.POINT, ValueKind.LIST: Kind.LIST,
    ValueKind.MATRIX: Kind.MATRIX, ValueKind.TRUTH: Kind.TRUTH,
}  # fmt: skip


def _value_kind(shaped: Shaped) -> Kind:
    if shaped.lists:
        return Kind.LIST
    return Kind.PARAMETER if shaped.second is None else Kind.POINT


def _function_kind(line: FunctionLine, body: Shaped) -> Kind:
    if body.second is not None:
        if len(line.variables) == 1:
            return Kind.POINT if line.name is None and not _uses_variable(line) else Kind.PATH
        raise NotHandledError(
            "A point that depends on several variables is not handled.",
            position=line.expression.span,
        )
    if len(line.variables) > 1:
        return Kind.SEVERAL
    return Kind.POLAR if line.variables[0] == "theta" else Kind.FUNCTION
