"""Which equations of a set determine which of its unknowns, and in what order.

Each unknown is matched with an equation. What cannot be matched is left over: an equation is one
too many, an unknown is free. The matched pairs fall into blocks that depend on one another in one
direction only, so that one block after the other can be solved.

Source: Dulmage and Mendelsohn 1958; Pothen and Fan, "Computing the block triangular form of a
sparse matrix", 1990.
"""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from graphlib import TopologicalSorter


@dataclass(frozen=True, slots=True)
class Block:
    """Equations that determine as many unknowns together.

    Attributes:
        equations: by their places in the set.
        unknowns: by their places among the unknowns.
    """

    equations: tuple[int, ...]
    unknowns: tuple[int, ...]


@dataclass(frozen=True, slots=True)
class Structure:
    """What the equations of a set determine.

    Attributes:
        blocks: each after those on which it depends.
        extra: equations beyond those that determine their unknowns.
        free: unknowns that stay undetermined, with those that depend on them.
        missing: how many more equations they need.
        loose: the equations in which these unknowns stand.
    """

    blocks: tuple[Block, ...]
    extra: tuple[int, ...]
    free: tuple[int, ...]
    missing: int
    loose: tuple[int, ...]


def structure_of(uses: Sequence[frozenset[int]], count: int) -> Structure:
    """Find out what the equations of a set determine.

    Args:
        uses: for each equation the places of the unknowns in it.
        count: how many unknowns there are.
    """
    of_unknown = _matched(uses, count)
    of_equation = {equation: unknown for unknown, equation in of_unknown.items()}
    unmatched = [unknown for unknown in range(count) if unknown not in of_unknown]
    free = _reached(unmatched, uses, of_equation)
    determined = [unknown for unknown in range(count) if unknown not in free]
    blocks = _blocks(determined, uses, of_unknown)
    loose = tuple(of_unknown[unknown] for unknown in sorted(free) if unknown in of_unknown)
    extra = tuple(k for k in range(len(uses)) if k not in of_equation)
    return Structure(blocks, extra, tuple(sorted(free)), len(unmatched), loose)


def _matched(uses: Sequence[frozenset[int]], count: int) -> dict[int, int]:
    """Return the equation that each unknown is matched with; as many as can be."""
    of_unknown: dict[int, int] = {}

    def augment(equation: int, seen: set[int]) -> bool:
        for unknown in sorted(uses[equation]):
            if unknown in seen:
                continue
            seen.add(unknown)
            if unknown not in of_unknown or augment(of_unknown[unknown], seen):
                of_unknown[unknown] = equation
                return True
        return False

    # Equations in few unknowns first: they leave others their choice.
    for equation in sorted(range(len(uses)), key=lambda k: (len(uses[k]), k)):
        augment(equation, set())
    return dict(sorted(of_unknown.items()))


def _reached(
    start: Iterable[int], uses: Sequence[frozenset[int]], of_equation: dict[int, int]
) -> set[int]:
    """Return the unknowns that are undetermined because others are."""
    reached, waiting = set(start), list(start)
    for unknown in waiting:
        for equation, used in enumerate(uses):
            other = of_equation.get(equation)
            if unknown in used and other is not None and other not in reached:
                reached.add(other)
                waiting.append(other)
    return reached


def _blocks(
    unknowns: Sequence[int], uses: Sequence[frozenset[int]], of_unknown: dict[int, int]
) -> tuple[Block, ...]:
    """Return the blocks of unknowns that need one another, each after those it needs."""
    needs = {
        unknown: uses[of_unknown[unknown]].intersection(unknowns) - {unknown}
        for unknown in unknowns
    }
    component = _components(needs)
    members: dict[int, list[int]] = {}
    for unknown in unknowns:
        members.setdefault(component[unknown], []).append(unknown)
    graph = {
        number: {component[need] for unknown in own for need in needs[unknown]} - {number}
        for number, own in members.items()
    }
    order = TopologicalSorter(graph).static_order()
    return tuple(
        Block(tuple(sorted(of_unknown[unknown] for unknown in members[k])), tuple(members[k]))
        for k in order
    )


def _components(needs: dict[int, frozenset[int]]) -> dict[int, int]:
    """Return the number of the strongly connected component of each unknown.

    Source: Tarjan 1972, without recursion.
    """
    index: dict[int, int] = {}
    low: dict[int, int] = {}
    component: dict[int, int] = {}
    stack: list[int] = []
    for root in needs:
        if root in index:
            continue
        work = [(root, iter(sorted(needs[root])))]
        index[root] = low[root] = len(index)
        stack.append(root)
        while work:
            node, following = work[-1]
            other = next(following, None)
            if other is None:
                work.pop()
                if work:
                    low[work[-1][0]] = min(low[work[-1][0]], low[node])
                if low[node] == index[node]:
                    while True:
                        member = stack.pop()
                        component[member] = node
                        if member == node:
                            break
            elif other not in index:
                index[other] = low[other] = len(index)
                stack.append(other)
                work.append((other, iter(sorted(needs[other]))))
            elif other not in component:
                low[node] = min(low[node], index[other])
    return component
