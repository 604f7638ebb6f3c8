"""A tree as a fully bracketed text, for tables of readings."""

from axis_path.core.language.tree import Angle, Binary, Call, Name, Negative, Node, Number


def bracketed(node: Node) -> str:  # type: ignore[return]
    match node:
        case Number(value):
            return str(value)
        case Name(name):
            return name
        case Negative(operand):
            return f"(-{bracketed(operand)})"
        case Angle(operand, unit):
            return f"({bracketed(operand)} {unit.value})"
        case Binary(operator, left, right):
            return f"({bracketed(left)} {operator.value} {bracketed(right)})"
        case Call(function, arguments):
            return f"{function}[{', '.join(map(bracketed, arguments))}]"
