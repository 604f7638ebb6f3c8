"""A set of equations as it is solved, and what is asked of its expressions."""

from __future__ import annotations

from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass, field, replace

from axis_path.core.arithmetic import Ball
from axis_path.core.arithmetic.real_number import Parameters
from axis_path.core.evaluate import Expression, Graph, Op
from axis_path.core.locate.sets.values import SetValue, dependent_value
from axis_path.core.threads import COMPUTING

#: With so many binary digits it is decided whether an equation holds.
CHECK_BITS = 320
Values = dict[str, SetValue]
#: Turns an exact form such as ``√2/2`` into an expression.
ReadExact = Callable[[str], Expression | None]


@dataclass(frozen=True, slots=True)
class SetProblem:
    """A set of equations as it is solved.

    Attributes:
        graph: in which its expressions are.
        gaps: of each equation the left side less the right, with the unknowns as inputs.
        unknowns: their inputs, in the order in which they are shown.
        parameters: the values of the sliders.
        boxes: between which numbers each unknown is looked for, where a search needs that.
        is_bounded: whether solutions outside of these are left out where a search takes place.
        bounded: unknowns of which solutions outside are left out, however they are found.
        read_exact: turns exact forms into expressions.
    """

    graph: Graph
    gaps: tuple[Expression, ...]
    unknowns: tuple[str, ...]
    parameters: Parameters
    boxes: Mapping[str, tuple[float, float]]
    is_bounded: bool
    read_exact: ReadExact
    bounded: frozenset[str] = frozenset()

    def bounds_of(self, name: str) -> tuple[float, float] | None:
        """Return between which numbers all solutions are wanted; None if it may be any number."""
        is_bounded = self.is_bounded or name in self.bounded
        return self.boxes[name] if is_bounded else None

    def only(self, equations: Sequence[int]) -> SetProblem:
        """Return the problem with some of its equations, and the unknowns in them."""
        gaps = tuple(self.gaps[k] for k in equations)
        used = {name for gap in gaps for name in gap.program.inputs}
        return replace(
            self, gaps=gaps, unknowns=tuple(name for name in self.unknowns if name in used)
        )


def with_values(problem: SetProblem, gap: Expression, values: Values) -> Expression:
    """Return an expression with the values that are known exactly put in."""
    graph, step = problem.graph, gap.step
    with COMPUTING:
        for name in gap.program.inputs:
            known = values.get(name)
            if known is not None and known.expression is not None:
                own = graph.add(Op.INPUT, payload=name)
                step = graph.substitute(step, own, known.expression.step)
    return gap if step == gap.step else gap.sibling(step)


def without(problem: SetProblem, gap: Expression, name: str) -> Expression:
    """Return an expression with 0 in the place of an unknown."""
    with COMPUTING:
        own = problem.graph.add(Op.INPUT, payload=name)
        return gap.sibling(problem.graph.substitute(gap.step, own, problem.graph.number(0)))


def put_in(problem: SetProblem, gap: Expression, name: str, value: Expression) -> Expression:
    """Return an expression with another in the place of an unknown."""
    if name not in gap.program.inputs:
        return gap
    with COMPUTING:
        own = problem.graph.add(Op.INPUT, payload=name)
        return gap.sibling(problem.graph.substitute(gap.step, own, value.step))


def value_at(expression: Expression, problem: SetProblem, values: Values, bits: int) -> Ball:
    """Compute an expression with the values of the unknowns."""
    return dependent_value(expression, problem.parameters, values).at_bits(bits)


def is_not_zero(slope: Expression, problem: SetProblem, values: Values) -> bool:
    """Check whether it is proved that an expression is not 0."""
    if slope.known is not None:
        return slope.known != 0
    if not set(slope.program.inputs) <= values.keys():
        return False
    value = value_at(slope, problem, values, CHECK_BITS)
    return value.is_defined and not bool(value.value.contains(0))


def holds(gap: Expression, problem: SetProblem, values: Values) -> bool | None:
    """Decide whether an equation holds; None if it only does as far as can be computed."""
    if gap.known is not None:
        return gap.known == 0
    value = value_at(gap, problem, values, CHECK_BITS)
    if not value.is_defined:
        return False
    if value.exact is not None:
        return bool(value.exact == 0)
    if not value.value.contains(0):
        return False
    return True if gap.is_zero() else None


@dataclass
class SearchState:
    """What is noted while a set is solved."""

    complete: bool = True
    notes: list[str] = field(default_factory=list)
    boxed: set[str] = field(default_factory=set)
    redundant: set[int] = field(default_factory=set)
    free: set[str] = field(default_factory=set)

    def note(self, words: str) -> None:
        """Add what is not certain, once."""
        self.complete = False
        if words and words not in self.notes:
            self.notes.append(words)
