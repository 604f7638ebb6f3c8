"""Print a tree as the plain text that reads back to the same tree."""

from __future__ import annotations

from fractions import Fraction

from axis_path.core.language.line_types import (
    FunctionLine,
    Line,
    NoteLine,
    RelationLine,
    SetLine,
    ValueLine,
)
from axis_path.core.language.tree import (
    TRANSPOSE,
    Angle,
    AngleUnit,
    At,
    Binary,
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
    Parameter,
    Percent,
    Physical,
    Pieces,
    Quantity,
    Range,
    Replaced,
    Subscript,
    Transposed,
)

_SUM, _PRODUCT, _SIGNED, _POWER, _ATOM = 1, 2, 3, 4, 5


def plain(node: Node) -> str:
    """Print an expression."""
    return _outer(node)


def plain_line(line: Line) -> str:
    """Print a line as it could have been typed."""
    match line:
        case NoteLine(text):
            return f"# {text}"
        case ValueLine(name, expression):
            return f"{name} = {_outer(expression)}" if name else _outer(expression)
        case RelationLine(name, terms, signs):
            parts = [_outer(terms[0])]
            for sign, term in zip(signs, terms[1:], strict=True):
                parts += [sign, _outer(term)]
            return (f"{name}: " if name else "") + " ".join(parts)
        case SetLine(name, _, _):
            written = "; ".join(
                f"{_outer(one.compared.terms[0])} = {_outer(one.compared.terms[1])}"
                for one in line.equations
            )
            end = ";" if len(line.equations) == 1 else ""
            return (f"{name}: " if name else "") + written + end
        case FunctionLine():
            head = f"{line.name}({', '.join(line.variables)}) = " if line.name else ""
            pairs = zip(line.domains, line.variables, strict=True)
            limits = ", ".join(_domain(d, v) for d, v in pairs if not d.is_whole)
            return f"{head}{_outer(line.expression)}" + (f" for {limits}" if limits else "")


def _domain(domain: Domain, variable: str) -> str:
    parts = []
    if domain.low is not None and domain.high is not None:
        left, right = ("<=" if end.closed else "<" for end in (domain.low, domain.high))
        low, high = _outer(domain.low.value), _outer(domain.high.value)
        parts.append(f"{low} {left} {variable} {right} {high}")
    elif domain.low is not None:
        sign = ">=" if domain.low.closed else ">"
        parts.append(f"{variable} {sign} {_outer(domain.low.value)}")
    elif domain.high is not None:
        sign = "<=" if domain.high.closed else "<"
        parts.append(f"{variable} {sign} {_outer(domain.high.value)}")
    parts += [f"{variable} != {_outer(value)}" for value in domain.without]
    return ", ".join(parts) or f"-inf < {variable} < inf"


def _outer(node: Node) -> str:
    """Print what stands alone, where pieces and ranges need no brackets."""
    match node:
        case Pieces(variable, pieces):
            return "; ".join(
                _text(piece.expression)
                + (
                    " otherwise"
                    if piece.domain is None
                    else f" for {_domain(piece.domain, variable)}"
                )
                for piece in pieces
            )
        case Range():
            return _range(node)
        case Replaced():
            return _replaced(node)
        case Converted(operand, unit):
            return f"{_text(operand)} in {node.typed or unit.symbol}"
        case _:
            return _text(node)


def _measured(node: Quantity | Converted | Physical) -> str:
    """Print a number with its unit, a conversion in brackets, or a constant of nature."""
    match node:
        case Physical(name):
            return name
        case Converted():
            return f"({_outer(node)})"
        case Quantity(operand, unit):
            # A sign before a temperature with a zero of its own belongs to its number.
            is_below = unit.has_zero and _is_negative_number(operand)
            number = _text(operand) if is_below else _inside(operand, _ATOM)
            unit_text = node.typed or unit.symbol
            if len(unit.parts[0][0].symbol) == 1 and not isinstance(operand, Number):
                # A single letter behind a name is a factor.
                number = number if number.startswith("(") or is_below else f"({number})"
            parts = [f"{number} {unit_text}", *map(_measured, node.more)]
            return " ".join(parts)


def _is_negative_number(node: Node) -> bool:
    return isinstance(node, Negative) and isinstance(node.operand, Number)


def _precedence(node: Node) -> int:
    match node:
        case Binary(Operator.ADD | Operator.SUBTRACT):
            return _SUM
        case Binary(Operator.MULTIPLY | Operator.DIVIDE | Operator.ENTRYWISE):
            return _PRODUCT
        case Negative() | Quantity():
            return _SIGNED
        case Converted():
            return 0
        case Binary(Operator.POWER) | Angle() | Percent() | Transposed():
            return _POWER
        case Number(value, text) if not text and (value < 0 or "/" in _number(value)):
            return _SUM
        case _:
            return _ATOM


def _inside(node: Node, least: int) -> str:
    return _text(node) if _precedence(node) >= least else f"({_text(node)})"


def _text(node: Node) -> str:
    match node:
        case Number(value, text):
            return text or _number(value)
        case Name(name):
            return name
        case Negative(Quantity() as operand) if operand.unit.has_zero:
            return f"-({_text(operand)})"
        case Negative(operand):
            return f"-{_inside(operand, _SIGNED)}"
        case Angle(operand, AngleUnit.DEGREES):
            return f"{_inside(operand, _ATOM)}°"
        case Angle(operand, _):
            return f"{_inside(operand, _ATOM)} rad"
        case Parameter(name):
            return name
        case Percent(operand):
            return f"{_inside(operand, _ATOM)}%"
        case Quantity() | Converted() | Physical():
            return _measured(node)
        case Binary(operator, left, right):
            return _binary(operator, left, right)
        case Call(function, arguments):
            return f"{function}({', '.join([*map(_argument, arguments), *node.options])})"
        case _:
            return _larger(node)


def _argument(node: Node) -> str:
    return _replaced(node) if isinstance(node, Replaced) else _text(node)


def _replaced(node: Replaced) -> str:
    changes, inner = [], node
    while True:
        changes.append(f"[{_subscripts(inner.subscripts)}] = {_text(inner.value)}")
        if not isinstance(inner.operand, Replaced):
            break
        inner = inner.operand
    return f"{_text(inner.operand)} with {' and '.join(reversed(changes))}"


def _subscripts(subscripts: tuple[Subscript, ...]) -> str:
    return ", ".join(map(_subscript, subscripts))


def _subscript(part: Subscript) -> str:
    if isinstance(part, At):
        return _text(part.index)
    if part.low is None or part.high is None:
        return "all"
    return f"{_text(part.low)} to {_text(part.high)}"


def _counters(node: Built) -> str:
    return ", ".join(
        f"{counter.variable}, {_text(counter.low)}, {_text(counter.high)}"
        for counter in node.counters
    )


def _larger(
    node: Pair
    | Items
    | Range
    | Last
    | Index
    | Replaced
    | Transposed
    | Built
    | Derivative
    | Over
    | Pieces,
) -> str:
    match node:
        case Last():
            return "last"
        case Index(operand, subscripts):
            return f"{_indexed(operand)}[{_subscripts(subscripts)}]"
        case Replaced():
            return f"({_replaced(node)})"
        case Transposed(operand):
            return f"{_inside(operand, _ATOM)}^T"
        case Built(body, counters):
            name = "list" if len(counters) == 1 else "matrix"
            return f"{name}({_text(body)}, {_counters(node)})"
        case Pair(first, second):
            return f"({_text(first)}, {_text(second)})"
        case Items(items):
            return f"[{', '.join(map(_text, items))}]"
        case Range():
            return f"({_range(node)})"
        case Derivative(function, order, argument):
            return f"{function}{chr(39) * order}({_text(argument)})"
        case Over(summary, body, variable, low, high):
            return f"{summary.value}({', '.join([_text(body), variable, _text(low), _text(high)])})"
        case Pieces():
            raise ValueError("a function in pieces is no part of an expression")


def _indexed(node: Node) -> str:
    """Print what stands before an index: a name, a call, a list, or brackets."""
    is_closed = isinstance(node, Name | Call | Items | Index | Built | Derivative)
    return _text(node) if is_closed else f"({_text(node)})"


def _binary(operator: Operator, left: Node, right: Node) -> str:
    if operator is Operator.POWER:
        # T as a name stands in brackets: bare it transposes.
        exponent = "(T)" if right == Name(TRANSPOSE) else _exponent(right)
        return f"{_inside(left, _ATOM)}^{exponent}"
    is_sum = operator in (Operator.ADD, Operator.SUBTRACT)
    least, space = (_SUM, " ") if is_sum else (_PRODUCT, "")
    space = " " if operator is Operator.ENTRYWISE else space
    last = _inside(right, least + 1)
    if operator is Operator.DIVIDE and isinstance(right, Quantity):
        last = f"({last})"
    return f"{_inside(left, least)}{space}{operator.value}{space}{last}"


def _exponent(node: Node) -> str:
    if isinstance(node, Negative):
        return f"-{_exponent(node.operand)}"
    is_power = isinstance(node, Binary) and node.operator is Operator.POWER
    return _text(node) if is_power or _precedence(node) == _ATOM else f"({_text(node)})"


def _range(node: Range) -> str:
    text = f"from {_text(node.start)} to {_text(node.stop)}"
    if node.step is not None:
        return f"{text} step {_text(node.step)}"
    return f"{text} in {_text(node.count)} points" if node.count is not None else text


def _number(value: Fraction) -> str:
    """Write a number exactly: as a decimal if it is one, else as a quotient."""
    bottom = value.denominator
    twos = fives = 0
    while bottom % 2 == 0:
        bottom, twos = bottom // 2, twos + 1
    while bottom % 5 == 0:
        bottom, fives = bottom // 5, fives + 1
    if bottom != 1:
        return f"{value.numerator}/{value.denominator}"
    decimals = max(twos, fives)
    figures = str(abs(value.numerator) * 10**decimals // value.denominator).rjust(decimals + 1, "0")
    whole = figures[: len(figures) - decimals] if decimals else figures
    part = figures[len(figures) - decimals :] if decimals else ""
    return ("-" if value < 0 else "") + (f"{whole}.{part}" if part else whole)
