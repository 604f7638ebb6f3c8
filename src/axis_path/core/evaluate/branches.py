"""Where an expression may be rough, and what it is between such places.

Every operation says where it begins, ends, jumps or has a kink: a quotient where its divisor is
zero, a size where its argument is, a function in pieces at the ends of its pieces. Between two
neighbouring places of that kind the expression is one branch, in which ``|u|`` is ``u`` or ``-u``
and ``floor(u)`` one number; a branch has all derivatives, and often goes on smoothly to its ends
and beyond them.

A ``Branches`` holds a graph of its own, because branches and their derivatives are many; it is
stored with the expression, and begun anew when it has grown too large.
"""

from __future__ import annotations

from collections.abc import Callable, Iterator
from dataclasses import dataclass, replace

from axis_path.core.arithmetic import Ball, Defined, ball
from axis_path.core.arithmetic.conversion import whole_number
from axis_path.core.arithmetic.real_number import Balls, Parameters, ball_of
from axis_path.core.catalogue import FUNCTIONS
from axis_path.core.errors import LimitError
from axis_path.core.evaluate.backends.backends import Proving
from axis_path.core.evaluate.expression import Expression
from axis_path.core.evaluate.function import Constant, RealFunction
from axis_path.core.evaluate.graph.factors import as_fraction
from axis_path.core.evaluate.graph.fences import ball_inside
from axis_path.core.evaluate.graph.graph import Fence, Graph, Inner, Op, Split, Step
from axis_path.core.evaluate.graph.program import extract, run
from axis_path.core.evaluate.graph.rough import rough_edges
from axis_path.core.evaluate.settled import Known
from axis_path.core.threads import COMPUTING

_PROVING = Proving()
#: A graph that has grown beyond this is begun anew.
_MOST_STEPS = 6_000
#: Operations that become one of several simpler ones on a branch.
_CHOOSING = {"abs", "sign", "floor", "ceil", "min", "max", Op.WITHIN, Op.PIECES, Op.GUARD}

_ROOTS = {"sqrt", Op.ROOT}


@dataclass(frozen=True, slots=True)
class Edge:
    """Where an operation may be rough: at the zeros of a function.

    Attributes:
        is_gap: whether the operation has no value there.
    """

    function: RealFunction
    is_gap: bool


class _Shop:
    """What a branches has for any values of the sliders; it is stored with its expression."""

    def __init__(self, expression: Expression) -> None:
        self.graph = Graph()
        self.expressions: dict[int, Expression] = {}
        made: list[int] = []
        for step in expression.program.steps:
            made.append(self.graph.rebuild(step, tuple(made[k] for k in step.arguments)))
        self.top = made[expression.program.results[0]]
        self.edges, self.is_known = _rough_edges(self.graph, self.top)

    def is_small(self) -> bool:
        """Check whether the graph has not grown too large by the branches of other states."""
        return len(self.graph.steps) <= _MOST_STEPS

    def expression(self, step: int) -> Expression:
        """Return a step as an expression, always the same one."""
        with COMPUTING:
            if step not in self.expressions:
                self.expressions[step] = Expression(self.graph, step)
            return self.expressions[step]


class Branches:
    """A graph of its own for one function, its branches, and what is made of them.

    Attributes:
        function: the function that was given, on the branches's own graph.
        edges: together they hold every place where the function may be rough, those of inner
            operations first.
        is_known: whether the rough places of all its operations are known.
    """

    def __init__(self, function: RealFunction) -> None:
        expression = function.expression
        self._shop = expression.cached("branches", lambda: _Shop(expression), _Shop.is_small)
        self._graph = self._shop.graph
        self._given = function
        self.function = self.of(self._shop.top)
        self.is_known = self._shop.is_known
        self.edges = [Edge(self.of(step), is_gap) for step, is_gap in self._shop.edges.items()]
        #: With the ball of its place, so that no other can take its address.
        self._settled: dict[tuple[int, int, frozenset[int]], tuple[Ball, Ball]] = {}

    def of(self, step: int) -> RealFunction:
        """Return a step as a function with the domain and the sliders of the given one."""
        return replace(self._given, expression=self._shop.expression(step))

    def branch(self, function: RealFunction, at: Ball) -> RealFunction:
        """Return the branch of a function of this branches that holds around a place.

        Args:
            function: it was made by this branches.
            at: a number that is no rough place.
        """
        top = self._step_of(function)
        with COMPUTING:
            chosen = _chosen(self._graph, top, at, function.parameters)
        return self.of(chosen)

    def known(self, abscissa: Ball, zeros: frozenset[int]) -> Known:
        """Return what is known of a place where some steps are zero."""
        return Known(self._graph, abscissa, zeros, Balls(self._given.parameters), _PROVING)

    def settled(self, function: RealFunction, abscissa: Ball, zeros: frozenset[int]) -> Ball:
        """Return the value at a place where some steps are zero; it is stored with the branches.

        Args:
            function: it was made by this branches.
            abscissa: a ball that contains it.
            zeros: the steps.
        """
        key = (function.expression.step, id(abscissa), zeros)
        if key not in self._settled:
            self._settled[key] = (abscissa, function.settle(abscissa, zeros))
        return self._settled[key][1]

    def mirrored(self, function: RealFunction) -> RealFunction:
        """Return f(-x) for a function f of this branches."""
        with COMPUTING:
            graph = self._graph
            variable = graph.add(Op.VARIABLE)
            turned = graph.substitute(self._step_of(function), variable, graph.negative(variable))
        return self.of(turned)

    def zeros_at(self, abscissa: Ball) -> frozenset[int]:
        """Return the step x - c for a place c that is known by an expression; nothing for others.

        Args:
            abscissa: of the study whose sliders the function has.
        """
        if not isinstance(abscissa, Constant) or abscissa.expression is None:
            return frozenset()
        with COMPUTING:
            graph, made = self._graph, list[int]()
            for step in abscissa.expression.program.steps:
                made.append(graph.rebuild(step, tuple(made[k] for k in step.arguments)))
            number = made[abscissa.expression.program.results[0]]
            return frozenset({graph.minus(graph.add(Op.VARIABLE), number)})

    def quotient(self, function: RealFunction) -> tuple[RealFunction, RealFunction] | None:
        """Return a function of this branches as a quotient; None if it is none."""
        with COMPUTING:
            try:
                top, bottom = as_fraction(self._graph, self._step_of(function))
            except LimitError:
                return None
        return None if self._graph.value(bottom) == 1 else (self.of(top), self.of(bottom))

    def logarithm_of_power(self, function: RealFunction) -> RealFunction | None:
        """Return u ln(b) for a function of this branches that is a power b^u; else None."""
        step = self._graph.steps[self._step_of(function)]
        if step.op != Op.POWER:
            return None
        base, exponent = step.arguments
        with COMPUTING:
            made = self._graph.times(exponent, self._graph.call("ln", (base,)))
        return self.of(made)

    def derivative(self, function: RealFunction) -> RealFunction:
        """Return the derivative of a function of this branches.

        Raises:
            NotHandledError: it is not known.
            LimitError: it grows too large.
        """
        derived = function.expression.derivative()
        with COMPUTING:
            self._shop.expressions.setdefault(derived.step, derived)
        return self.of(derived.step)

    def _step_of(self, function: RealFunction) -> int:
        return function.expression.step


def _rough_edges(graph: Graph, top: int) -> tuple[dict[int, bool], bool]:
    """Return the edges of a step and whether they are gaps, and whether these are all."""
    variable = graph.add(Op.VARIABLE)
    moves: set[int] = {variable}
    edges: dict[int, bool] = {}
    is_known = True
    for index in graph.reachable(top):
        step = graph.steps[index]
        if index == variable or moves.isdisjoint(step.arguments):
            continue
        moves.add(index)
        moved = _edges_of(graph, step, moves)
        is_known = is_known and moved is not None
        for edge in moved or ():
            if graph.value(edge) is None:
                edges[edge] = edges.get(edge, False) or _is_gap(step)
    return edges, is_known


def _is_gap(step: Step) -> bool:
    if step.op in FUNCTIONS:
        return FUNCTIONS[step.op].has_gaps
    power = step.payload[0] if isinstance(step.payload, tuple) else step.payload
    return step.op == Op.DIVIDE or (isinstance(power, int) and power < 0)


def _edges_of(graph: Graph, step: Step, moves: set[int]) -> list[int] | None:
    """Return steps that are zero wherever an operation may be rough; None if that is not known."""
    arguments = step.arguments
    match step.op:
        case Op.DIVIDE:
            return [arguments[1]] if arguments[1] in moves else []
        case Op.INTEGER_POWER:
            return [arguments[0]] if _is_gap(step) else []
        case Op.ROOT | Op.POWER:
            return [arguments[0]] if arguments[0] in moves else []
        case Op.WITHIN | Op.PIECES:
            return [graph.minus(subject, bound) for subject, bound in _fenced(step)]
        case Op.OVER:
            # Integrals and sums are taken as smooth where their bodies have no edges at all.
            return [] if isinstance(step.payload, Inner) and _is_plain(step.payload) else None
        case _ if step.op in FUNCTIONS:
            return rough_edges(graph, step)
    return []


def _is_plain(inner: Inner) -> bool:
    for step in inner.steps:
        if step.op in (Op.DIVIDE, Op.ROOT, Op.POWER, Op.WITHIN, Op.PIECES, Op.OVER):
            return False
        if step.op == Op.INTEGER_POWER and not (isinstance(step.payload, int) and step.payload > 0):
            return False
        if step.op in FUNCTIONS and FUNCTIONS[step.op].rough != ():
            return False
    return True


def _fenced(step: Step) -> Iterator[tuple[int, int]]:
    """Return the subject of a step with fences beside each of its bounds."""
    if isinstance(step.payload, Fence):
        for bound in step.arguments[2:]:
            yield step.arguments[1], bound
    elif isinstance(step.payload, Split):
        bodies = {0, *step.payload.bodies()}
        for k, bound in enumerate(step.arguments):
            if k not in bodies:
                yield step.arguments[0], bound


def _chosen(graph: Graph, top: int, at: Ball, parameters: Parameters) -> int:
    """Return ``top`` with every choice made as it falls at a place."""
    order = graph.reachable(top)
    asked = sorted(
        {
            a
            for index in order
            if graph.steps[index].op in _CHOOSING
            for a in graph.steps[index].arguments
        }
        | {
            base
            for index in order
            if graph.steps[index].op in _ROOTS
            and (base := _base_of_even_root(graph, index)) is not None
        }
    )
    if not asked:
        return top
    program = extract(graph, *asked)
    used = {name: ball_of(parameters[name]) for name in program.parameters}
    values = dict(zip(asked, run(program, _PROVING, at, used), strict=True))
    made: dict[int, int] = {}
    for index in order:
        step = graph.steps[index]
        arguments = tuple(made[argument] for argument in step.arguments)
        choice = None
        if step.op in _CHOOSING:
            choice = _choice(graph, step, arguments, [values[a] for a in step.arguments])
        elif step.op in _ROOTS and (base := _base_of_even_root(graph, index)) is not None:
            choice = _even_root(graph, arguments[0], values[base].sign())
        if choice is None:
            choice = index if arguments == step.arguments else graph.rebuild(step, arguments)
        made[index] = choice
    return made[top]


def _base_of_even_root(graph: Graph, index: int) -> int | None:
    """Return u for a root that is the square root of an even power of u; None for any other."""
    step = graph.steps[index]
    if step.op == Op.ROOT and step.payload != (1, 2):
        return None
    inner = graph.steps[step.arguments[0]]
    is_even = isinstance(inner.payload, int) and inner.payload > 0 and inner.payload % 2 == 0
    return inner.arguments[0] if inner.op == Op.INTEGER_POWER and is_even else None


def _even_root(graph: Graph, power: int, sign: int | None) -> int | None:
    """Return the square root of an even power of what has a sign: it has none itself."""
    inner = graph.steps[power]
    if sign not in (-1, 1) or not isinstance(inner.payload, int):
        return None
    base = inner.arguments[0] if sign > 0 else graph.negative(inner.arguments[0])
    return graph.to_the(base, graph.number(inner.payload // 2))


def _choice(graph: Graph, step: Step, arguments: tuple[int, ...], values: list[Ball]) -> int | None:
    """Return what a step is on its branch; None if that cannot be determined, so that it stays."""
    chooser = _CHOICES.get(step.op)
    if chooser is not None:
        return chooser(graph, arguments, values)
    if step.op == Op.GUARD:
        return arguments[0] if values[1].is_defined else None
    if isinstance(step.payload, Fence):
        inside = ball_inside(step.payload, values[1], tuple(values[2:]))
        return arguments[0] if inside else None
    if isinstance(step.payload, Split):
        at = 1
        for fence in step.payload.fences:
            count = 0 if fence is None else fence.count
            bounds = tuple(values[at + 1 : at + 1 + count])
            inside = fence is None or ball_inside(fence, values[0], bounds)
            if inside is None:
                return None
            if inside:
                return arguments[at]
            at += 1 + count
    return None


def _size(graph: Graph, arguments: tuple[int, ...], values: list[Ball]) -> int | None:
    sign = values[0].sign()
    if sign is None or not values[0].is_defined:
        return None
    return graph.negative(arguments[0]) if sign < 0 else arguments[0]


def _sign(graph: Graph, _: tuple[int, ...], values: list[Ball]) -> int | None:
    sign = values[0].sign()
    return None if sign is None or not values[0].is_defined else graph.number(sign)


def _whole(side: int) -> Callable[[Graph, tuple[int, ...], list[Ball]], int | None]:
    def chosen(graph: Graph, _: tuple[int, ...], values: list[Ball]) -> int | None:
        value = values[0]
        if not value.is_defined or not value.value.is_finite():
            return None
        if value.exact is not None and value.exact.q == 1:
            return graph.number(int(value.exact.p))
        whole = whole_number(value.value.floor() if side < 0 else value.value.ceil())
        return None if whole is None else graph.number(int(whole))

    return chosen


def _of_two(side: int) -> Callable[[Graph, tuple[int, ...], list[Ball]], int | None]:
    def chosen(_: Graph, arguments: tuple[int, ...], values: list[Ball]) -> int | None:
        if len(arguments) == 1:
            return arguments[0]
        sign = ball.subtract(values[0], values[1]).sign()
        if sign is None or values[0].defined is not Defined.YES or not values[1].is_defined:
            return None
        return arguments[0] if sign * side >= 0 else arguments[1]

    return chosen


_CHOICES: dict[str, Callable[[Graph, tuple[int, ...], list[Ball]], int | None]] = {
    "abs": _size,
    "sign": _sign,
    "floor": _whole(-1),
    "ceil": _whole(1),
    "max": _of_two(1),
    "min": _of_two(-1),
}
