"""The syntax tree: small frozen nodes, all an expression can be.

A node's ``span`` is where it stands in the text, ``(start, end)`` with the end excluded; it
takes no part in comparison, so two readings of the same formula are equal.
"""

from __future__ import annotations

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


#: The name under which ∞ stands in a tree, and the exponent that transposes a matrix.
INFINITY = "inf"
TRANSPOSE = "T"
