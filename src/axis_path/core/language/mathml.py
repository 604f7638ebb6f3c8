"""Typeset a tree as MathML, the way a textbook would print it.

Brackets come from one table of precedence; fractions and roots need none. The output is made of
our own fixed elements and escaped text only.
"""

from __future__ import annotations

from fractions import Fraction
from html import escape

from axis_path.core.language.lines import FunctionLine, Line, NoteLine
from axis_path.core.language.tree import (
    Angle,
    AngleUnit,
    Binary,
    Bound,
    Call,
    Domain,
    Name,
    Negative,
    Node,
    Number,
    Operator,
)
from axis_path.core.language.vocabulary import GREEK

_SUM, _PRODUCT, _SIGNED, _POWER, _ATOM = 1, 2, 3, 4, 5
_LEFT, _RIGHT = '<mo stretchy="false">(</mo>', '<mo stretchy="false">)</mo>'
_SPACE = '<mspace width="0.17em"></mspace>'


def typeset_line(line: Line, name: str | None) -> str:
    """Typeset a line as one ``<math>`` element; a note gives an empty text.

    Args:
        line: how it was read.
        name: the name of the line, which an unnamed function was given by its study.
    """
    if isinstance(line, NoteLine):
        return ""
    if isinstance(line, FunctionLine):
        head = f"{_name(name)}{_LEFT}{_name(line.variable)}{_RIGHT}" if name else "<mi>y</mi>"
    else:
        head = _name(name or line.name)
    return _math(f"{head}<mo>=</mo>{_typeset(line.expression)}")


def typeset(node: Node) -> str:
    """Typeset an expression as one ``<math>`` element."""
    return _math(_typeset(node))


def typeset_domain(domain: Domain, variable: str) -> str:
    """Typeset a domain as one ``<math>`` element; an unrestricted one gives an empty text."""
    middle = _name(variable)
    parts = []
    if domain.low is not None and domain.high is not None:
        low = _typeset(domain.low.value) + _sign(domain.low)
        parts.append(low + middle + _sign(domain.high) + _typeset(domain.high.value))
    elif domain.high is not None:
        parts.append(middle + _sign(domain.high) + _typeset(domain.high.value))
    elif domain.low is not None:
        parts.append(middle + _sign(domain.low).replace("&lt;", "&gt;").replace("≤", "≥")
                     + _typeset(domain.low.value))  # fmt: skip
    parts += [f"{middle}<mo>≠</mo>{_typeset(value)}" for value in domain.without]
    return _math('<mo separator="true">,</mo>'.join(parts)) if parts else ""


def _sign(bound: Bound) -> str:
    return "<mo>≤</mo>" if bound.closed else "<mo>&lt;</mo>"


def _math(inner: str) -> str:
    return f"<math><mrow>{inner}</mrow></math>"


def _row(inner: str) -> str:
    return f"<mrow>{inner}</mrow>"


def _name(name: str | None) -> str:
    """Set a name: one letter slanted, a word upright, figures after ``_`` as an index."""
    name = name or ""
    base, _, index = name.partition("_")
    if not base or not index:
        base, index = name.replace("_", ""), ""
        tail = base.lstrip("ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz")
        if tail.isdigit() and len(base) - len(tail) == 1:
            base, index = base[0], tail
    sign = "π" if base == "pi" else GREEK.get(base, base)
    main = f"<mi>{escape(sign)}</mi>"
    if not index:
        return main
    below = f"<mn>{index}</mn>" if index.isdigit() else f"<mi>{escape(index)}</mi>"
    return f"<msub>{main}{below}</msub>"


def _precedence(node: Node) -> int:
    match node:
        case Binary(Operator.ADD | Operator.SUBTRACT):
            return _SUM
        case Binary(Operator.MULTIPLY):
            return _PRODUCT
        case Binary(Operator.DIVIDE):
            return _PRODUCT
        case Negative():
            return _SIGNED
        case Binary(Operator.POWER):
            return _POWER
        case Angle(_, AngleUnit.RADIANS):
            return _PRODUCT
        case Number(value) if value < 0 or (value.denominator != 1 and "." not in node.text):
            return _SIGNED
        case _:
            return _ATOM


def _inside(node: Node, least: int) -> str:
    """Typeset a part, in brackets if it binds less than its place asks."""
    inner = _typeset(node)
    return f"{_LEFT}{inner}{_RIGHT}" if _precedence(node) < least else inner


def _typeset(node: Node) -> str:
    match node:
        case Number():
            return _number(node)
        case Name(name):
            return _name(name)
        case Negative(operand):
            return f"<mo>−</mo>{_inside(operand, _PRODUCT)}"
        case Angle(operand, AngleUnit.DEGREES):
            return f'{_inside(operand, _ATOM)}<mo lspace="0em" rspace="0em">°</mo>'
        case Angle(operand, _):
            return f"{_inside(operand, _PRODUCT)}{_SPACE}<mtext>rad</mtext>"
        case Binary():
            return _binary(node)
        case Call():
            return _call(node)


def _number(node: Number) -> str:
    if node.text:
        mantissa, _, exponent = node.text.lower().partition("e")
        if exponent:
            power = exponent.lstrip("+").replace("-", "−")
            return f"<mn>{mantissa}</mn><mo>·</mo><msup><mn>10</mn><mn>{power}</mn></msup>"
        return f"<mn>{mantissa}</mn>"
    return _fraction(node.value)


def _fraction(value: Fraction) -> str:
    size = f"<mn>{abs(value.numerator)}</mn>"
    if value.denominator != 1:
        size = f"<mfrac>{size}<mn>{value.denominator}</mn></mfrac>"
    return f"<mo>−</mo>{size}" if value < 0 else size


def _binary(node: Binary) -> str:
    left, right = node.left, node.right
    match node.operator:
        case Operator.ADD:
            return f"{_inside(left, _SUM)}<mo>+</mo>{_inside(right, _PRODUCT)}"
        case Operator.SUBTRACT:
            return f"{_inside(left, _SUM)}<mo>−</mo>{_inside(right, _PRODUCT)}"
        case Operator.MULTIPLY:
            return _product(left, right)
        case Operator.DIVIDE:
            return f"<mfrac>{_row(_typeset(left))}{_row(_typeset(right))}</mfrac>"
        case _:
            return _power(left, right)


def _starts_with_digit(node: Node) -> bool:
    while True:
        match node:
            case Number():
                return True
            case Binary(Operator.POWER | Operator.MULTIPLY, left, _):
                node = left
            case Angle(operand, _):
                node = operand
            case _:
                return False


def _product(left: Node, right: Node) -> str:
    # A second factor that is a product itself was bracketed by hand: a/b c reads from the left.
    one, other = _inside(left, _PRODUCT), _inside(right, _POWER)
    if _starts_with_digit(right) or (isinstance(left, Binary) and left.operator is Operator.DIVIDE):
        return f"{one}<mo>·</mo>{other}"
    thin = isinstance(right, Call) or isinstance(left, Call) or _is_word(left) or _is_word(right)
    return f"{one}{_SPACE if thin else '<mo>&#x2062;</mo>'}{other}"


def _is_word(node: Node) -> bool:
    return isinstance(node, Name) and len(GREEK.get(node.name, node.name)) > 1


def _power(base: Node, exponent: Node) -> str:
    raised = _row(_typeset(exponent))
    if isinstance(base, Call) and base.function not in ("abs", "sqrt"):
        # sin²(x), as it is printed; the brackets of the call stay.
        head, rest = _name(base.function), _arguments(base)
        return f"<msup>{head}{raised}</msup>{rest}"
    return f"<msup>{_row(_inside(base, _ATOM))}{raised}</msup>"


def _arguments(node: Call) -> str:
    inner = '<mo separator="true">,</mo>'.join(_typeset(each) for each in node.arguments)
    return f"{_LEFT}{inner}{_RIGHT}"


def _call(node: Call) -> str:
    if node.function == "sqrt":
        return f"<msqrt>{_row(_typeset(node.arguments[0]))}</msqrt>"
    if node.function == "abs":
        inner = _typeset(node.arguments[0])
        bar = '<mo stretchy="true" form="{}">|</mo>'
        return f"{bar.format('prefix')}{_row(inner)}{bar.format('postfix')}"
    return _name(node.function) + _arguments(node)
