"""Print a number's exact form as a textbook does: ``(1 + √5)/4``, ``5π/6``, ``3 + 4i``.

The text is in our language and reads back to the same number.
"""

from __future__ import annotations

from axis_path.core.language.plain import plain
from axis_path.core.language.tree import Binary, Call, Name, Negative, Node, Number, Operator

_SUM, _SIGNED, _PRODUCT, _POWER, _ATOM = 1, 2, 3, 4, 5
_NAMES = {"pi": "π"}


def shown(node: Node) -> str:
    """Return the text of an exact form.

    Args:
        node: numbers, the constants pi, e and i, sums, products, quotients, powers and calls of
            functions of one number.
    """
    match node:
        case Number():
            return plain(node)
        case Name(name):
            return _NAMES.get(name, name)
        case Negative(operand):
            return f"-{_inside(operand, _PRODUCT)}"
        case Call("sqrt", (argument,)):
            return f"√{_inside(argument, _ATOM)}"
        case Call(function, arguments):
            return f"{function}({', '.join(map(shown, arguments))})"
        case Binary(operator, left, right):
            return _binary(operator, left, right)
    return plain(node)


def _precedence(node: Node) -> int:
    match node:
        case Binary(Operator.ADD | Operator.SUBTRACT):
            return _SUM
        case Negative():
            return _SIGNED
        case Number(value) if value < 0:
            return _SIGNED
        case Number(value) if value.denominator != 1:
            return _PRODUCT
        case Binary(Operator.MULTIPLY | Operator.DIVIDE):
            return _PRODUCT
        case Binary(Operator.POWER):
            return _POWER
    return _ATOM


def _inside(node: Node, least: int) -> str:
    return shown(node) if _precedence(node) >= least else f"({shown(node)})"


def _binary(operator: Operator, left: Node, right: Node) -> str:
    match operator:
        case Operator.ADD | Operator.SUBTRACT:
            least = _SUM if operator is Operator.ADD else _PRODUCT
            return f"{_inside(left, _SUM)} {operator.value} {_inside(right, least)}"
        case Operator.DIVIDE:
            return f"{_inside(left, _PRODUCT)}/{_inside(right, _POWER)}"
        case Operator.POWER:
            return f"{_inside(left, _ATOM)}^{_inside(right, _ATOM)}"
        case _:
            one, other = _inside(left, _PRODUCT), _inside(right, _POWER)
            # Two numbers beside each other would be one.
            return f"{one}·{other}" if other[0].isdigit() else f"{one}{other}"
