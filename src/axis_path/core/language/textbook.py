"""How a textbook sets a formula: the rules that MathML and LaTeX share.

Brackets come from one table of precedence; fractions and roots need none. What a sign or a fraction
looks like in an output is the business of its printer, a subclass that makes the parts.
"""

from __future__ import annotations

from fractions import Fraction

from axis_path.core.language import quantities
from axis_path.core.language.line_types import (
    FunctionLine,
    Line,
    NoteLine,
    RelationLine,
    SetLine,
    ValueLine,
)
from axis_path.core.language.signs import Signs
from axis_path.core.language.tree import (
    TRANSPOSE,
    Angle,
    AngleUnit,
    At,
    Binary,
    Bound,
    Built,
    Call,
    Converted,
    Derivative,
    Domain,
    Index,
    Items,
    Last,
    Name,
    Negative,
    Node,
    Number,
    Operator,
    Over,
    Pair,
    Percent,
    Physical,
    Pieces,
    Quantity,
    Range,
    Replaced,
    Subscript,
    Summary,
    Transposed,
)
from axis_path.core.language.vocabulary import GREEK
from axis_path.core.language.walk import children

SUM, PRODUCT, SIGNED, POWER, ATOM = 1, 2, 3, 4, 5
_MIRRORED = {"<": ">", "≤": "≥"}
_TYPESET_SIGNS = {"<=": "≤", ">=": "≥"}


def precedence(node: Node) -> int:
    """Return how tightly the outermost operation of a formula binds in print."""
    match node:
        case Binary(Operator.ADD | Operator.SUBTRACT):
            return SUM
        case (
            Binary(Operator.MULTIPLY | Operator.DIVIDE | Operator.ENTRYWISE)
            | Angle(_, AngleUnit.RADIANS)
            | Quantity()
            | Over()
        ):
            return PRODUCT
        case Negative():
            return SIGNED
        case Binary(Operator.POWER) | Transposed():
            return POWER
        case Number(value) if value < 0 or (value.denominator != 1 and "." not in node.text):
            return SIGNED
        case Range() | Pieces() | Replaced() | Converted():
            return 0
        case _:
            return ATOM


class Textbook(Signs):
    """Sets trees of the parts that a subclass makes."""

    # Lines

    def line(self, line: Line, name: str | None) -> str:
        """Set a line; a note gives an empty text.

        Args:
            line: how it was read.
            name: the name of the line, which an unnamed one was given by its study.
        """
        match line:
            case NoteLine():
                return ""
            case FunctionLine():
                variables = self.separator(",").join(
                    self.name(variable) for variable in line.variables
                )
                head = f"{self.name(name)}{self.bracketed(variables)}" if name else self.name("y")
                return self.whole(f"{head}{self.sign('=')}{self.node(line.expression)}")
            case ValueLine():
                head = self.name(name or line.name or "")
                return self.whole(f"{head}{self.sign('=')}{self.node(line.expression)}")
            case RelationLine():
                inner = self.comparison(line.terms, line.signs)
                label = f"{self.name(name)}{self.separator(':')}" if name else ""
                return self.whole(label + inner)
            case SetLine():
                equations = [
                    self.comparison(one.compared.terms, one.compared.signs)
                    for one in line.equations
                ]
                label = f"{self.name(name)}{self.separator(':')}" if name else ""
                return self.whole(label + self.stacked(equations))

    def comparison(self, terms: tuple[Node, ...], signs: tuple[str, ...]) -> str:
        """Set terms with comparisons between them."""
        parts = [self.node(terms[0])]
        for sign, term in zip(signs, terms[1:], strict=True):
            parts += [self.sign(_TYPESET_SIGNS.get(sign, sign)), self.node(term)]
        return "".join(parts)

    def domain(self, domain: Domain, variable: str) -> str:
        """Set where a variable lies; an unrestricted one gives an empty text."""
        middle, parts = self.name(variable), []
        if domain.low is not None and domain.high is not None:
            low = self.node(domain.low.value) + self.sign(_less(domain.low))
            high = self.sign(_less(domain.high)) + self.node(domain.high.value)
            parts.append(low + middle + high)
        elif domain.high is not None:
            parts.append(middle + self.sign(_less(domain.high)) + self.node(domain.high.value))
        elif domain.low is not None:
            more = _MIRRORED[_less(domain.low)]
            parts.append(middle + self.sign(more) + self.node(domain.low.value))
        parts += [f"{middle}{self.sign('≠')}{self.node(value)}" for value in domain.without]
        return self.separator(",").join(parts)

    def domains(self, line: FunctionLine) -> str:
        """Set the domains of all variables of a function; empty if none is restricted."""
        pairs = zip(line.domains, line.variables, strict=True)
        parts = [self.domain(domain, variable) for domain, variable in pairs]
        inner = self.separator(",").join(part for part in parts if part)
        return self.whole(inner) if inner else ""

    # Expressions

    def inside(self, node: Node, least: int) -> str:
        """Set a part, in brackets if it binds less than its place asks."""
        inner = self.node(node)
        return self.bracketed(inner) if precedence(node) < least else inner

    def node(self, node: Node) -> str:
        """Set an expression."""
        match node:
            case Number():
                return self._number(node)
            case Name(name):
                return self.name(name)
            case Negative(operand):
                return f"{self.sign('−')}{self.inside(operand, PRODUCT)}"
            case Angle(operand, AngleUnit.DEGREES):
                return f"{self.inside(operand, ATOM)}{self.degree()}"
            case Angle(operand, _):
                return f"{self.inside(operand, PRODUCT)}{self.space()}{self.words('rad')}"
            case Percent(operand):
                return f"{self.inside(operand, ATOM)}{self.space()}{self.sign('%')}"
            case Quantity() | Converted() | Physical():
                return quantities.measured(self, node)
            case Binary():
                return self._binary(node)
            case Call():
                return self._call(node)
            case _:
                return self._larger(node)

    def _larger(self, node: Node) -> str:
        match node:
            case Pair(first, second):
                return self.bracketed(self.node(first) + self.separator(",") + self.node(second))
            case Range():
                return self._range(node)
            case Derivative(function, order, argument):
                return self.primed(self.name(function), order) + self.bracketed(self.node(argument))
            case Over():
                return self._over(node)
            case Pieces():
                return self._cases(node)
            case _:
                return self._array(node)

    def _cases(self, node: Pieces) -> str:
        rows = []
        for piece in node.pieces:
            condition = self.words("otherwise")
            if piece.domain is not None:
                limits = self.domain(piece.domain, node.variable)
                condition = self.words("for") + self.space() + limits
            rows.append((self.node(piece.expression), condition))
        return self.cases(rows)

    def _array(self, node: Node) -> str:
        """Set a list or a matrix, or what is taken from one."""
        match node:
            case Last():
                return self.words("last")
            case Index(operand, subscripts):
                return self.lowered(self.inside(operand, ATOM), self._subscripts(subscripts))
            case Replaced(operand, subscripts, value):
                index = self.bracketed(self._subscripts(subscripts), shape="[]")
                joined = self.words("and" if isinstance(operand, Replaced) else "with")
                parts = (self.node(operand), joined, f"{index}{self.sign('=')}{self.node(value)}")
                return self.space().join(parts)
            case Transposed(operand, power):
                raised = self.name(TRANSPOSE) if power is not None else self.words(TRANSPOSE)
                return self.raised(self.inside(operand, ATOM), raised)
            case Built():
                return self._built(node)
            case Items(items) if _is_matrix(items):
                return self.table([[self.node(entry) for entry in children(row)] for row in items])
            case Items(items):
                inner = self.separator(",").join(self.node(item) for item in items)
                return self.bracketed(inner, shape="[]")
            case _:
                raise TypeError(f"{type(node).__name__} is not set here")

    def _subscripts(self, subscripts: tuple[Subscript, ...]) -> str:
        return self.separator(",").join(map(self._subscript, subscripts))

    def _subscript(self, part: Subscript) -> str:
        if isinstance(part, At):
            return self.node(part.index)
        if part.low is None or part.high is None:
            return self.words("all")
        return self.space().join((self.node(part.low), self.words("to"), self.node(part.high)))

    def _built(self, node: Built) -> str:
        """Set a term in brackets, with the ranges of its variables below."""
        ranges = self.separator(",").join(
            f"{self.name(c.variable)}{self.sign('=')}{self.node(c.low)}{self.sign('…')}"
            f"{self.node(c.high)}"
            for c in node.counters
        )
        return self.lowered(self.bracketed(self.node(node.body), shape="[]"), ranges)

    def _number(self, node: Number) -> str:
        if node.text:
            mantissa, _, exponent = node.text.lower().partition("e")
            if exponent:
                power = self.number(exponent.lstrip("+").replace("-", "−"))
                return (
                    self.number(mantissa) + self.sign("·") + self.raised(self.number("10"), power)
                )
            return self.number(mantissa)
        return self.fraction_of(node.value)

    def fraction_of(self, value: Fraction) -> str:
        """Set a number as a fraction."""
        size = self.number(str(abs(value.numerator)))
        if value.denominator != 1:
            size = self.fraction(size, self.number(str(value.denominator)))
        return f"{self.sign('−')}{size}" if value < 0 else size

    def _binary(self, node: Binary) -> str:
        left, right = node.left, node.right
        match node.operator:
            case Operator.ADD:
                return f"{self.inside(left, SUM)}{self.sign('+')}{self.inside(right, PRODUCT)}"
            case Operator.SUBTRACT:
                return f"{self.inside(left, SUM)}{self.sign('−')}{self.inside(right, PRODUCT)}"
            case Operator.MULTIPLY:
                return self._product(left, right)
            case Operator.ENTRYWISE:
                sign = self.sign(node.operator.value)
                return f"{self.inside(left, PRODUCT)}{sign}{self.inside(right, POWER)}"
            case Operator.DIVIDE:
                return self.fraction(self.node(left), self.node(right))
            case _:
                return self._power(left, right)

    def _product(self, left: Node, right: Node) -> str:
        # A second factor that is a product itself was bracketed by hand: a/b c reads from the left.
        one = self.inside(left, SIGNED if isinstance(left, Over) else PRODUCT)
        other = self.inside(right, POWER)
        is_quotient = isinstance(left, Binary) and left.operator is Operator.DIVIDE
        if _starts_with_digit(right) or is_quotient or isinstance(left, Quantity):
            return f"{one}{self.sign('·')}{other}"
        thin = (
            isinstance(right, Call) or isinstance(left, Call) or _is_word(left) or _is_word(right)
        )
        return f"{one}{self.space() if thin else self.nothing()}{other}"

    def _power(self, base: Node, exponent: Node) -> str:
        raised = self.node(exponent)
        if isinstance(base, Call) and base.function not in ("abs", "sqrt", "factorial", "root"):
            # sin²(x), as it is printed; the brackets of the call stay.
            return self.raised(self.name(base.function), raised) + self._arguments(base)
        return self.raised(self.inside(base, ATOM), raised)

    def _arguments(self, node: Call) -> str:
        parts = [*map(self.node, node.arguments), *map(self.words, node.options)]
        return self.bracketed(self.separator(",").join(parts))

    def _call(self, node: Call) -> str:
        if not node.arguments:
            return self.name(node.function) + self._arguments(node)
        first = node.arguments[0]
        match node.function, len(node.arguments):
            case "sqrt", 1:
                return self.root(self.node(first), None)
            case "root", 2:
                return self.root(self.node(first), self.node(node.arguments[1]))
            case "abs", 1:
                return self.bracketed(self.node(first), shape="||")
            case "factorial", 1:
                is_plain = isinstance(first, Number | Name) and precedence(first) == ATOM
                inner = self.node(first)
                return f"{inner if is_plain else self.bracketed(inner)}{self.sign('!')}"
            case _:
                return self.name(node.function) + self._arguments(node)

    def _range(self, node: Range) -> str:
        parts = ["from", node.start, "to", node.stop]
        if node.step is not None:
            parts += ["step", node.step]
        if node.count is not None:
            parts += ["in", node.count, "points"]
        words = (self.words(part) if isinstance(part, str) else self.node(part) for part in parts)
        return self.space().join(words)

    def _over(self, node: Over) -> str:
        low, high = self.node(node.low), self.node(node.high)
        if node.summary is Summary.INTEGRAL:
            body = self.inside(node.body, PRODUCT)
            end = f"{self.space()}{self.name('d')}{self.name(node.variable)}"
            return self.over(node.summary, low, high) + body + end
        start = self.name(node.variable) + self.sign("=") + low
        return self.over(node.summary, start, high) + self.inside(node.body, PRODUCT)


def _is_matrix(items: tuple[Node, ...]) -> bool:
    """Check whether a list is written out as the rows of a matrix."""
    lengths = {len(item.items) for item in items if isinstance(item, Items)}
    return len(lengths) == 1 and all(isinstance(item, Items) for item in items)


def _less(bound: Bound) -> str:
    return "≤" if bound.closed else "<"


def _starts_with_digit(node: Node) -> bool:
    while True:
        match node:
            case Number():
                return True
            case Binary(Operator.POWER | Operator.MULTIPLY, left, _):
                node = left
            case Angle(operand, _) | Quantity(operand):
                node = operand
            case _:
                return False


def _is_word(node: Node) -> bool:
    return isinstance(node, Name) and len(GREEK.get(node.name, node.name)) > 1


def split_index(name: str) -> tuple[str, str]:
    """Split a name into its base and its index: ``f_1`` and ``x2`` have one."""
    base, _, index = name.partition("_")
    if not base or not index:
        base, index = name.replace("_", ""), ""
        tail = base.lstrip("ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz")
        if tail.isdigit() and len(base) - len(tail) == 1:
            base, index = base[0], tail
    return base, index
