"""The syntax tree: small frozen nodes, all an expression can be.

A node's ``span`` is where it stands in the text, ``(start, end)`` with the end excluded; it
takes no part in comparison, so two readings of the same formula are equal.
"""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass, field
from enum import StrEnum
from fractions import Fraction

from axis_path.core.catalogue.units import UnitProduct

Span = tuple[int, int]
NOWHERE: Span = (0, 0)


class Operator(StrEnum):
    """The two-sided operations."""

    ADD = "+"
    SUBTRACT = "-"
    MULTIPLY = "*"
    DIVIDE = "/"
    POWER = "^"
    ENTRYWISE = "∘"


class Summary(StrEnum):
    """The operations that run over a range of a variable of their own."""

    SUM = "sum"
    PRODUCT = "product"
    INTEGRAL = "integral"


class AngleUnit(StrEnum):
    """How a study measures angles."""

    RADIANS = "radians"
    DEGREES = "degrees"


@dataclass(frozen=True, slots=True)
class Number:
    """An exact number; ``text`` keeps how it was typed."""

    value: Fraction
    text: str = field(default="", compare=False)
    span: Span = field(default=NOWHERE, compare=False)


@dataclass(frozen=True, slots=True)
class Name:
    """A variable, a parameter or a constant, by its spelled name (``theta``, not its sign)."""

    name: str
    span: Span = field(default=NOWHERE, compare=False)


@dataclass(frozen=True, slots=True)
class Negative:
    """The opposite of a number."""

    operand: Node
    span: Span = field(default=NOWHERE, compare=False)


@dataclass(frozen=True, slots=True)
class Binary:
    """A two-sided operation."""

    operator: Operator
    left: Node
    right: Node
    span: Span = field(default=NOWHERE, compare=False)


@dataclass(frozen=True, slots=True)
class Call:
    """A function of the catalogue or of the study, applied.

    Attributes:
        options: words behind the arguments, such as ``population``.
    """

    function: str
    arguments: tuple[Node, ...]
    span: Span = field(default=NOWHERE, compare=False)
    options: tuple[str, ...] = ()


@dataclass(frozen=True, slots=True)
class Angle:
    """An angle with its own unit: ``30°``, ``2 rad``."""

    operand: Node
    unit: AngleUnit
    span: Span = field(default=NOWHERE, compare=False)


@dataclass(frozen=True, slots=True)
class Quantity:
    """A number with a unit: ``12 kg``.

    Attributes:
        more: what is added in smaller units, as in ``1 h 30 min``.
        typed: how the unit was typed.
    """

    operand: Node
    unit: UnitProduct
    span: Span = field(default=NOWHERE, compare=False)
    more: tuple[Quantity, ...] = ()
    typed: str = field(default="", compare=False)


@dataclass(frozen=True, slots=True)
class Converted:
    """A value that is shown in a unit: ``v in km/h``."""

    operand: Node
    unit: UnitProduct
    span: Span = field(default=NOWHERE, compare=False)
    typed: str = field(default="", compare=False)


@dataclass(frozen=True, slots=True)
class Physical:
    """A constant of nature, by its name in the catalogue."""

    name: str
    span: Span = field(default=NOWHERE, compare=False)


@dataclass(frozen=True, slots=True)
class Parameter:
    """The number of a slider, in the unit in which it is written; it is never typed."""

    name: str
    span: Span = field(default=NOWHERE, compare=False)


@dataclass(frozen=True, slots=True)
class Percent:
    """A number of hundredths: ``20%``."""

    operand: Node
    span: Span = field(default=NOWHERE, compare=False)


@dataclass(frozen=True, slots=True)
class Pair:
    """A point, by its two coordinates."""

    first: Node
    second: Node
    span: Span = field(default=NOWHERE, compare=False)


@dataclass(frozen=True, slots=True)
class Items:
    """A list, written out; a matrix is a list of lists, its rows."""

    items: tuple[Node, ...]
    span: Span = field(default=NOWHERE, compare=False)


@dataclass(frozen=True, slots=True)
class Range:
    """Evenly spaced numbers: either by their distance ``step`` or by their ``count``."""

    start: Node
    stop: Node
    step: Node | None = None
    count: Node | None = None
    span: Span = field(default=NOWHERE, compare=False)


@dataclass(frozen=True, slots=True)
class Last:
    """The last index of what stands before the square bracket: ``L[last - 1]``."""

    span: Span = field(default=NOWHERE, compare=False)


@dataclass(frozen=True, slots=True)
class At:
    """One index within square brackets."""

    index: Node


@dataclass(frozen=True, slots=True)
class Part:
    """Several indices in a row: ``2 to 5``; without ends ``all``."""

    low: Node | None = None
    high: Node | None = None


Subscript = At | Part


@dataclass(frozen=True, slots=True)
class Index:
    """An entry or a part of a list (one subscript) or of a matrix (two)."""

    operand: Node
    subscripts: tuple[Subscript, ...]
    span: Span = field(default=NOWHERE, compare=False)


@dataclass(frozen=True, slots=True)
class Replaced:
    """A copy of a list or a matrix with other entries: ``M with [2, 1] = 0``."""

    operand: Node
    subscripts: tuple[Subscript, ...]
    value: Node
    span: Span = field(default=NOWHERE, compare=False)


@dataclass(frozen=True, slots=True)
class Transposed:
    """``A^T``: of a matrix or a list the transpose; of a number its power, if T has a value.

    Attributes:
        power: the name T, where the study has a value of that name.
    """

    operand: Node
    power: Name | None = None
    span: Span = field(default=NOWHERE, compare=False)


@dataclass(frozen=True, slots=True)
class Counter:
    """A variable that runs over whole numbers: ``k, 1, 10``."""

    variable: str
    low: Node
    high: Node


@dataclass(frozen=True, slots=True)
class Built:
    """A list (one counter) or a matrix (two: rows, columns) of what a term gives."""

    body: Node
    counters: tuple[Counter, ...]
    span: Span = field(default=NOWHERE, compare=False)


@dataclass(frozen=True, slots=True)
class Derivative:
    """A derivative of a function, at a place: ``f''(2)``."""

    function: str
    order: int
    argument: Node
    span: Span = field(default=NOWHERE, compare=False)


@dataclass(frozen=True, slots=True)
class Over:
    """A sum, a product or an integral of ``body`` over ``variable`` from ``low`` to ``high``."""

    summary: Summary
    body: Node
    variable: str
    low: Node
    high: Node
    span: Span = field(default=NOWHERE, compare=False)


@dataclass(frozen=True, slots=True)
class Bound:
    """One end of a domain; ``closed`` means that the end belongs to it."""

    value: Node
    closed: bool


@dataclass(frozen=True, slots=True)
class Domain:
    """Where a variable is restricted to; a missing end is unbounded.

    Attributes:
        without: single values that are left out.
    """

    low: Bound | None = None
    high: Bound | None = None
    without: tuple[Node, ...] = ()

    @property
    def is_whole(self) -> bool:
        """Check whether nothing is restricted."""
        return self.low is None and self.high is None and not self.without


@dataclass(frozen=True, slots=True)
class Piece:
    """One piece of a function in pieces; without a domain it holds everywhere else."""

    expression: Node
    domain: Domain | None


@dataclass(frozen=True, slots=True)
class Pieces:
    """A function in pieces by ``variable``; where two hold, the first one counts."""

    variable: str
    pieces: tuple[Piece, ...]
    span: Span = field(default=NOWHERE, compare=False)


Node = (
    Number
    | Name
    | Negative
    | Binary
    | Call
    | Angle
    | Quantity
    | Converted
    | Physical
    | Parameter
    | Percent
    | Pair
    | Items
    | Range
    | Last
    | Index
    | Replaced
    | Transposed
    | Built
    | Derivative
    | Over
    | Pieces
)


#: The nodes that bring units into a line.
WITH_UNITS = (Quantity, Converted, Physical)
_OUTSIDE = (Call, Derivative, *WITH_UNITS)

#: The name under which ∞ stands in a tree, and the exponent that transposes a matrix.
INFINITY = "inf"
TRANSPOSE = "T"


def is_infinite(node: Node) -> bool:
    """Check whether an expression is ∞ or -∞."""
    inner = node.operand if isinstance(node, Negative) else node
    return isinstance(inner, Name) and inner.name == INFINITY


def children(node: Node) -> tuple[Node, ...]:
    """Return the nodes directly below ``node``, from left to right."""
    match node:
        case Number() | Name() | Last() | Physical() | Parameter():
            return ()
        case Negative(operand) | Angle(operand) | Percent(operand) | Converted(operand):
            return (operand,)
        case Quantity(operand):
            return (operand, *node.more)
        case Binary(_, left, right) | Pair(left, right):
            return (left, right)
        case Call(_, parts) | Items(parts):
            return parts
        case Range(start, stop, step, count):
            return tuple(part for part in (start, stop, step, count) if part is not None)
        case Derivative(_, _, argument):
            return (argument,)
        case Over(_, body, _, low, high):
            return (body, low, high)
        case Pieces(_, pieces):
            nested = ((piece.expression, *domain_nodes(piece.domain)) for piece in pieces)
            return tuple(node for nodes in nested for node in nodes)
        case _:
            return _children_of_array(node)


def _children_of_array(node: Index | Replaced | Transposed | Built) -> tuple[Node, ...]:
    match node:
        case Index(operand, subscripts):
            return (operand, *subscript_nodes(subscripts))
        case Replaced(operand, subscripts, value):
            return (operand, *subscript_nodes(subscripts), value)
        case Transposed(operand, power):
            return (operand,) if power is None else (operand, power)
        case Built(body, counters):
            return (body, *counter_nodes(counters))


def has_unit_nodes(node: Node) -> bool:
    """Check whether units are written in an expression."""
    return any(isinstance(part, WITH_UNITS) for part in walk(node))


def domain_nodes(domain: Domain | None) -> tuple[Node, ...]:
    """Return the expressions that a domain is made of."""
    if domain is None:
        return ()
    bounds = tuple(end.value for end in (domain.low, domain.high) if end is not None)
    return bounds + domain.without


def subscript_nodes(subscripts: tuple[Subscript, ...]) -> tuple[Node, ...]:
    """Return the expressions that subscripts are made of."""
    ends = ((part.index,) if isinstance(part, At) else (part.low, part.high) for part in subscripts)
    return tuple(node for nodes in ends for node in nodes if node is not None)


def counter_nodes(counters: tuple[Counter, ...]) -> tuple[Node, ...]:
    """Return the expressions of the ends between which counters run."""
    return tuple(end for counter in counters for end in (counter.low, counter.high))


def walk(node: Node) -> Iterator[Node]:
    """Return every node of a tree, the top first."""
    waiting = [node]
    while waiting:
        current = waiting.pop()
        yield current
        waiting.extend(children(current))


def free_uses(
    node: Node, hidden: frozenset[str] = frozenset()
) -> Iterator[Name | Call | Derivative]:
    """Return the nodes that name something from outside: no variable of a sum within the tree.

    Args:
        node: the tree.
        hidden: variables that stand for nothing outside.
    """
    return (part for part in free_parts(node, hidden) if isinstance(part, Name | Call | Derivative))


def free_parts(
    node: Node, hidden: frozenset[str] = frozenset()
) -> Iterator[Name | Call | Derivative | Quantity | Converted | Physical]:
    """Return the nodes that name something from outside, and those that bring units."""
    waiting = [(node, hidden)]
    while waiting:
        current, own = waiting.pop()
        match current:
            case Name(name):
                if name not in own:
                    yield current
            case Over(_, body, variable, low, high):
                waiting += [(high, own), (low, own), (body, own | {variable})]
            case Built(body, counters):
                waiting += [(end, own) for end in reversed(counter_nodes(counters))]
                waiting.append((body, own.union(counter.variable for counter in counters)))
            case _:
                if isinstance(current, _OUTSIDE):
                    yield current
                waiting += [(part, own) for part in reversed(children(current))]


def name_of(use: Name | Call | Derivative) -> str:
    """Return the name that a node uses."""
    return use.name if isinstance(use, Name) else use.function


def names_in(node: Node) -> frozenset[str]:
    """Return the names that a tree uses from outside itself: values, constants and functions."""
    return frozenset(name_of(use) for use in free_uses(node))
