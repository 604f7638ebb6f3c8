"""What trees are made of: the nodes below a node, and the names and the units in a tree."""

from __future__ import annotations

from collections.abc import Iterator

from axis_path.core.language.tree import (
    INFINITY,
    Angle,
    At,
    Binary,
    Built,
    Call,
    Converted,
    Counter,
    Derivative,
    Domain,
    Index,
    Items,
    Last,
    Name,
    Negative,
    Node,
    Number,
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

#: The nodes that bring units into a line.
WITH_UNITS = (Quantity, Converted, Physical)
_OUTSIDE = (Call, Derivative, *WITH_UNITS)


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
