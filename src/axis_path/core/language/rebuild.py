"""Make trees of trees: the same tree with some of its nodes changed."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import fields, is_dataclass, replace
from typing import Any

from axis_path.core.language.tree import Node

#: Gives the node that stands in the place of another, whose own parts were changed already.
Change = Callable[[Node, Node], Node]


def rebuilt(node: Node, change: Change) -> Node:
    """Return a tree with its nodes changed, the innermost first.

    Args:
        node: the tree.
        change: gets each node with changed parts, and the node as it was.
    """
    made: Node = change(_with_parts(node, change), node)
    return made


def _with_parts(node: Any, change: Change) -> Any:  # noqa: ANN401 - a node or a part of one
    changed = {}
    for part in fields(node):
        if part.name == "span":
            continue
        old = getattr(node, part.name)
        new = _changed(old, change)
        if new is not old:
            changed[part.name] = new
    return replace(node, **changed) if changed else node


def _changed(value: Any, change: Change) -> Any:  # noqa: ANN401 - whatever a node is made of
    if isinstance(value, tuple):
        parts = tuple(_changed(part, change) for part in value)
        return parts if any(a is not b for a, b in zip(parts, value, strict=True)) else value
    if isinstance(value, Node):
        return rebuilt(value, change)
    is_part = is_dataclass(value) and type(value).__module__ == Node.__args__[0].__module__
    return _with_parts(value, change) if is_part else value
