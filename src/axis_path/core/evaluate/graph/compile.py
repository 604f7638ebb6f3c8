"""From trees to the graph: names looked up, angles made radians, functions put in.

A value is one step (a number) or two (a point). An element of a list is an input of the graph, so
that what is computed from a list is one value with the list's inputs, and runs for all elements at
once.
"""

from __future__ import annotations

from functools import partial

from axis_path.core.catalogue import CONSTANTS, DEGREE, FUNCTIONS, FunctionEntry
from axis_path.core.errors import (
    LimitError,
    NotHandledError,
    NoValueError,
    ShapeError,
    UnitError,
    no_value,
)
from axis_path.core.evaluate.graph.arguments import mapped, spread, wrong_count
from axis_path.core.evaluate.graph.graph import IMAGINARY, Fence, Graph, Op, Split
from axis_path.core.evaluate.graph.shapes import (
    SECOND,
    ListSource,
    Shaped,
    Surroundings,
    UserFunction,
)
from axis_path.core.language.tree import (
    Angle,
    AngleUnit,
    Binary,
    Call,
    Converted,
    Derivative,
    Domain,
    Items,
    Name,
    Negative,
    Node,
    Number,
    Operator,
    Over,
    Pair,
    Parameter,
    Percent,
    Physical,
    Pieces,
    Quantity,
    Range,
    Summary,
)
from axis_path.core.language.walk import is_infinite
from axis_path.core.limits import NESTED_DEFINITIONS


class Compiler:
    """Puts trees into one graph; what a function gives for an argument is put in once.

    Attributes:
        lists: the lists that expressions use, by the names of their inputs.
    """

    def __init__(self, graph: Graph, surroundings: Surroundings) -> None:
        self.graph = graph
        self.lists: dict[str, ListSource] = {}
        self._around = surroundings
        self._calls: dict[tuple[object, ...], Shaped] = {}
        self._values: dict[object, Shaped] = {}
        self._list_names: dict[ListSource, str] = {}
        self._depth = 0
        self._bound = 0

    def share(
        self,
        lists: dict[str, ListSource],
        list_names: dict[ListSource, str],
        calls: dict[tuple[object, ...], Shaped],
        values: dict[object, Shaped],
    ) -> None:
        """Keep what is compiled where other compilers of the same graph keep theirs."""
        self.lists, self._list_names = lists, list_names
        self._calls, self._values = calls, values

    def compile(self, node: Node, variables: dict[str, int]) -> int:
        """Return the step of an expression that is a number, or runs over a list of numbers.

        Args:
            node: the tree.
            variables: the steps that stand for its own variables.

        Raises:
            NoValueError: a letter has no value; ArgumentCountError: a call has the wrong number.
            ShapeError: it is a point. LimitError: the graph grows too large or too deep.
        """
        return self._number(node, {name: Shaped(step) for name, step in variables.items()}).first

    def compile_value(self, node: Node, variables: dict[str, Shaped] | None = None) -> Shaped:
        """Return an expression that may be a number, a point or a list."""
        self._depth += 1
        try:
            if self._depth > NESTED_DEFINITIONS.value:
                raise LimitError("The definitions use one another too many times over.")
            return self._compile(node, variables or {})
        finally:
            self._depth -= 1

    def _number(self, node: Node, variables: dict[str, Shaped]) -> Shaped:
        shaped = self.compile_value(node, variables)
        if shaped.second is not None:
            raise ShapeError(
                f"A number is wanted here; this is {shaped.words}.", position=node.span
            )
        return shaped

    def _single(self, node: Node, variables: dict[str, Shaped]) -> int:
        shaped = self._number(node, variables)
        if shaped.lists:
            raise ShapeError("One number is wanted here; this is a list.", position=node.span)
        return shaped.first

    def _compile(self, node: Node, variables: dict[str, Shaped]) -> Shaped:
        if self._concerns_objects(node, variables):
            return self._object(node, variables)
        match node:
            case Number(value):
                return Shaped(self.graph.number(value))
            case Name():
                return self._name(node, variables)
            case Negative(operand):
                return mapped(self.graph.negative, self.compile_value(operand, variables))
            case Quantity() | Converted() | Physical():
                # What may have units is written in base units before it comes here.
                raise UnitError("Units cannot be used here.", position=node.span)
            case Parameter(name):
                return Shaped(self.graph.add(Op.PARAMETER, payload=name))
            case Percent(operand):
                return mapped(self._hundredth, self.compile_value(operand, variables))
            case Angle(operand, unit):
                angle = self._number(operand, variables)
                return Shaped(self._angle(angle.first, unit), None, angle.lists)
            case Binary():
                return self._binary(node, variables)
            case Call():
                return self._call(node, variables)
            case Pair(first, second):
                one, other = self._number(first, variables), self._number(second, variables)
                return Shaped(one.first, other.first, one.lists | other.lists)
            case _:
                return self._compile_larger(node, variables)

    def _hundredth(self, step: int) -> int:
        return self.graph.over(step, self.graph.number(100))

    def _compile_larger(self, node: Node, variables: dict[str, Shaped]) -> Shaped:
        match node:
            case Items() | Range():
                return self._list(node, variables)
            case Over():
                return self._over(node, variables)
            case Pieces():
                return self._pieces(node, variables)
            case Derivative():
                return self._derivative(node, variables)
            case _:
                return self._object(node, variables)

    def _concerns_objects(self, node: Node, variables: dict[str, Shaped]) -> bool:
        """Check whether a node makes or takes apart a list or a matrix as a whole."""
        return False

    def _object(self, node: Node, variables: dict[str, Shaped]) -> Shaped:
        raise NotHandledError("Lists and matrices have no place here.", position=node.span)

    def _derivative(self, node: Derivative, variables: dict[str, Shaped]) -> Shaped:
        raise NotHandledError("A derivative has no place here.", position=node.span)

    def _binary(self, node: Binary, variables: dict[str, Shaped]) -> Shaped:
        a, b = self.compile_value(node.left, variables), self.compile_value(node.right, variables)
        lists = a.lists | b.lists
        if a.second is None and b.second is None:
            return Shaped(self._operation(node.operator, a.first, b.first), None, lists)
        match node.operator:
            case Operator.ADD | Operator.SUBTRACT if a.second is not None and b.second is not None:
                first, second = (
                    self._operation(node.operator, one, other)
                    for one, other in ((a.first, b.first), (a.second, b.second))
                )
                return Shaped(first, second, lists)
            case Operator.MULTIPLY | Operator.ENTRYWISE if (
                a.second is None and b.second is not None
            ):
                times = self.graph.times
                return Shaped(times(a.first, b.first), times(a.first, b.second), lists)
            case Operator.MULTIPLY | Operator.DIVIDE if a.second is not None and b.second is None:
                first, second = (
                    self._operation(node.operator, term, b.first) for term in (a.first, a.second)
                )
                return Shaped(first, second, lists)
            case _:
                raise ShapeError(
                    f"`{node.operator.value}` has no meaning between {a.words} and {b.words}.",
                    position=node.span,
                )

    def _operation(self, operator: Operator, a: int, b: int) -> int:
        graph = self.graph
        match operator:
            case Operator.ADD:
                return graph.plus(a, b)
            case Operator.SUBTRACT:
                return graph.minus(a, b)
            case Operator.MULTIPLY | Operator.ENTRYWISE:
                return graph.times(a, b)
            case Operator.DIVIDE:
                return graph.over(a, b)
            case Operator.POWER:
                return graph.to_the(a, b)

    def _degree(self) -> int:
        return self.graph.add(Op.CONSTANT, payload=DEGREE)

    def _angle(self, operand: int, unit: AngleUnit) -> int:
        if unit is self._around.unit:
            return operand
        if unit is AngleUnit.DEGREES:
            return self.graph.times(operand, self._degree())
        return self.graph.over(operand, self._degree())

    def _name(self, node: Name, variables: dict[str, Shaped]) -> Shaped:
        name = node.name
        if name in variables:
            return variables[name]
        if name in CONSTANTS:
            return Shaped(self.graph.add(Op.CONSTANT, payload=name))
        mark = self._around.mark(name)
        if mark in self._values:
            return self._values[mark]
        meaning = self._around.value(name)
        if meaning is None:
            if name == IMAGINARY:
                return Shaped(self.graph.add(Op.CONSTANT, payload=IMAGINARY))
            raise no_value(name, node.span)
        if isinstance(meaning, bool):
            shaped = Shaped(self.graph.add(Op.PARAMETER, payload=name))
        else:
            shaped = self._meaning(name, meaning)
        self._values[mark] = shaped
        return shaped

    def _meaning(self, name: str, meaning: Node) -> Shaped:
        """Return the value of a name of the study."""
        return self.compile_value(meaning, {})

    # Functions

    def _call(self, node: Call, variables: dict[str, Shaped]) -> Shaped:
        given = [self.compile_value(argument, variables) for argument in node.arguments]
        entry = FUNCTIONS.get(node.function)
        own = None if entry is not None else self._around.function(node.function)
        if entry is None and own is None:
            raise NoValueError(f"`{node.function}` is not defined here.", position=node.span)
        arguments = spread(given, entry, own)
        lists = frozenset[str]().union(*(argument.lists for argument in given))
        if entry is not None:
            self._check_count(node, entry, len(arguments))
            return self._known(entry, arguments, lists)
        assert own is not None  # noqa: S101 - one of the two is there
        if len(arguments) != len(own.variables):
            raise wrong_count(node, len(own.variables), len(arguments))
        return self._own(own, arguments, lists)

    def _check_count(self, node: Call, entry: FunctionEntry, count: int) -> None:
        if not entry.accepts(count):
            least = sum(not argument.is_optional for argument in entry.arguments)
            raise wrong_count(node, least if count < least else len(entry.arguments), count)

    def _known(
        self, entry: FunctionEntry, arguments: tuple[int, ...], lists: frozenset[str]
    ) -> Shaped:
        """Apply a function of the catalogue; inside it angles are radians."""
        in_degrees = self._around.unit is AngleUnit.DEGREES
        if in_degrees:
            arguments = tuple(
                self.graph.times(argument, self._degree())
                if position in entry.takes_angle
                else argument
                for position, argument in enumerate(arguments)
            )
        second = None
        if entry.components is not None:
            texts = entry.components[len(arguments)]
            first, second = (self._expanded(text, arguments) for text in texts)
        else:
            first = self._applied(entry, arguments)
        if in_degrees and entry.returns_angle:
            if second is not None:
                second = self.graph.over(second, self._degree())
            else:
                first = self.graph.over(first, self._degree())
        return Shaped(first, second, lists)

    def _applied(self, entry: FunctionEntry, arguments: tuple[int, ...]) -> int:
        if entry.expansion is not None:
            return self._expanded(entry.expansion[len(arguments)], arguments)
        result = self.graph.call(entry.name, arguments[: len(entry.arguments)])
        for more in arguments[len(entry.arguments) :]:
            result = self.graph.call(entry.name, (result, more))
        return result

    def _expanded(self, text: str, arguments: tuple[int, ...]) -> int:
        raise NotHandledError("This function has no place here.")

    def _own(
        self, function: UserFunction, arguments: tuple[int, ...], lists: frozenset[str]
    ) -> Shaped:
        key = (function.name, self._around.mark(function.name), *arguments)
        if key not in self._calls:
            variables = {
                name: Shaped(step) for name, step in zip(function.variables, arguments, strict=True)
            }
            body = self.compile_value(function.expression, variables)
            reason = f"outside the domain of {function.name}"
            for domain, subject in zip(function.domains, arguments, strict=True):
                fenced = partial(self._fenced, subject=subject, domain=domain, reason=reason)
                body = mapped(fenced, body)
            self._calls[key] = body
        cached = self._calls[key]
        return Shaped(cached.first, cached.second, cached.lists | lists)

    def _fenced(self, body: int, *, subject: int, domain: Domain, reason: str) -> int:
        if domain.is_whole:
            return body
        bounds, fence = self._fence(domain, reason)
        return self.graph.add(Op.WITHIN, (body, subject, *bounds), fence)

    def _fence(self, domain: Domain, reason: str) -> tuple[list[int], Fence]:
        ends = [end for end in (domain.low, domain.high) if end is not None]
        bounds = [self._single(end.value, {}) for end in ends]
        bounds += [self._single(value, {}) for value in domain.without]
        fence = Fence(
            low=domain.low.closed if domain.low is not None else None,
            high=domain.high.closed if domain.high is not None else None,
            without=len(domain.without),
            reason=reason,
        )
        return bounds, fence

    # Larger forms

    def _pieces(self, node: Pieces, variables: dict[str, Shaped]) -> Shaped:
        subject = variables[node.variable]
        arguments, fences = [subject.first], list[Fence | None]()
        reason = "outside all pieces"
        lists = subject.lists
        for piece in node.pieces:
            body = self._number(piece.expression, variables)
            lists |= body.lists
            arguments.append(body.first)
            if piece.domain is None:
                fences.append(None)
            else:
                bounds, fence = self._fence(piece.domain, reason)
                arguments += bounds
                fences.append(fence)
        made = self.graph.add(Op.PIECES, tuple(arguments), Split(tuple(fences), reason))
        return Shaped(made, None, lists)

    def _over(self, node: Over, variables: dict[str, Shaped]) -> Shaped:
        low, high = (self._end(end, node.summary, variables) for end in (node.low, node.high))
        # Named by its depth, so that equal sums are one step.
        self._bound += 1
        bound = self.graph.add(Op.INPUT, payload=f"#{self._bound}")
        try:
            body = self._single(node.body, variables | {node.variable: Shaped(bound)})
        finally:
            self._bound -= 1
        fourth = self._fourth(body, bound) if node.summary is Summary.INTEGRAL else None
        return Shaped(self.graph.summarise(node.summary, body, bound, (low, high), fourth))

    def _end(self, end: Node, summary: Summary, variables: dict[str, Shaped]) -> int:
        if summary is not Summary.INTEGRAL or not is_infinite(end):
            return self._single(end, variables)
        infinity = self.graph.infinity()
        return self.graph.negative(infinity) if isinstance(end, Negative) else infinity

    def _fourth(self, body: int, bound: int) -> int | None:
        return None

    def _list(self, node: Items | Range, variables: dict[str, Shaped]) -> Shaped:
        if isinstance(node, Range):
            start, stop = (self._single(bound, variables) for bound in (node.start, node.stop))
            step, count = (
                None if bound is None else self._single(bound, variables)
                for bound in (node.step, node.count)
            )
            source = ListSource((), start, stop, step, count)
            return self._listed(source, is_points=False)
        items = [self.compile_value(item, variables) for item in node.items]
        for item, written in zip(items, node.items, strict=True):
            if item.lists:
                raise ShapeError("A list holds numbers or points, no lists.", position=written.span)
            if (item.second is None) != (items[0].second is None):
                raise ShapeError(
                    "A list holds numbers only, or points only.", position=written.span
                )
        steps = tuple(
            (item.first,) if item.second is None else (item.first, item.second) for item in items
        )
        return self._listed(ListSource(steps), is_points=items[0].second is not None)

    def _listed(self, source: ListSource, *, is_points: bool) -> Shaped:
        name = self._list_names.setdefault(source, f"list {len(self._list_names) + 1}")
        self.lists[name] = source
        first = self.graph.add(Op.INPUT, payload=name)
        second = self.graph.add(Op.INPUT, payload=name + SECOND) if is_points else None
        return Shaped(first, second, frozenset({name}))
