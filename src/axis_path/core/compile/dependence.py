"""How lines hang together: names defined twice, letters without a value, circles."""

from __future__ import annotations

import graphlib
from collections.abc import Iterator
from graphlib import TopologicalSorter

import numpy as np

from axis_path.core.errors import CycleError, MathError, NameTakenError, NoValueError, no_value
from axis_path.core.language import Vocabulary
from axis_path.core.lines.meaning import Kind, LineKey, Meaning, with_problem


def find_problems(
    keys: tuple[LineKey, ...], meanings: list[Meaning], vocabulary: Vocabulary
) -> None:
    """Note the problem of every line with the others, in place."""
    _refuse_doubles(keys, meanings)
    _find_missing(keys, meanings, vocabulary)
    _find_cycles(keys, meanings)
    spread_problems(keys, meanings)


def _refuse_doubles(keys: tuple[LineKey, ...], meanings: list[Meaning]) -> None:
    first: dict[str, int] = {}
    for index, (key, meaning) in enumerate(zip(keys, meanings, strict=True)):
        if key.disabled or meaning.kind is Kind.UNREAD:
            continue
        taken = next((name for name in meaning.names if name in first), None)
        if taken is not None:
            start = max(key.text.find(taken), 0)
            error = NameTakenError(
                f"`{taken}` is defined already, in line {first[taken] + 1}. "
                "Change it there, or choose another name here.",
                position=(start, start + len(taken)),
            )
            meanings[index] = with_problem(meaning, error)
        else:
            first.update(dict.fromkeys(meaning.names, index))


def _find_missing(
    keys: tuple[LineKey, ...], meanings: list[Meaning], vocabulary: Vocabulary
) -> None:
    """Name the letters without a value, all at once for a line."""
    known = vocabulary.functions | vocabulary.values
    for index, (key, meaning) in enumerate(zip(keys, meanings, strict=True)):
        if key.disabled or meaning.problem is not None or meaning.uses <= known:
            continue
        missing = [(name, span) for name, span in meaning.first_uses if name not in known]
        letters = tuple(name for name, _ in missing)
        meanings[index] = with_problem(meaning, _no_value(letters, missing[0][1]))


def _no_value(letters: tuple[str, ...], position: tuple[int, int]) -> NoValueError:
    if len(letters) == 1:
        return no_value(letters[0], position)
    names = ", ".join(f"`{name}`" for name in letters[:-1])
    message = f"{names} and `{letters[-1]}` have no value yet: make them sliders?"
    return NoValueError(message, position=position, letters=letters)


def working(keys: tuple[LineKey, ...], meanings: list[Meaning]) -> dict[str, int]:
    """Return the places of the lines that work, by their names."""
    return {
        name: index
        for index, (key, meaning) in enumerate(zip(keys, meanings, strict=True))
        if not key.disabled and meaning.problem is None
        for name in meaning.names
        if name not in meaning.undetermined
    }


def _find_cycles(keys: tuple[LineKey, ...], meanings: list[Meaning]) -> None:
    by_name = working(keys, meanings)
    for name in _in_cycles({n: meanings[k].uses & by_name.keys() for n, k in by_name.items()}):
        cycle = _cycle_through(name, by_name, meanings)
        index = by_name[name]
        names = " → ".join(f"`{member}`" for member in [*cycle, cycle[0]])
        message = (
            f"`{name}` depends on itself." if len(cycle) == 1
            else f"These depend on each other: {names}."
        )  # fmt: skip
        span = (0, len(keys[index].text))
        meanings[index] = with_problem(meanings[index], CycleError(message, position=span))


def _in_cycles(graph: dict[str, frozenset[str]]) -> list[str]:
    """Return the names that lie on a cycle: those whose strong component holds an edge."""
    try:
        TopologicalSorter(graph).prepare()
    except graphlib.CycleError:
        pass
    else:
        return []
    # Loading SciPy's graphs takes longer than anything here, and cycles are rare.
    from scipy.sparse import csr_array
    from scipy.sparse.csgraph import connected_components

    names = list(graph)
    numbers = {name: k for k, name in enumerate(names)}
    edges = [(numbers[name], numbers[used]) for name, uses in graph.items() for used in uses]
    rows, columns = np.array(edges).T
    matrix = csr_array((np.ones(len(edges)), (rows, columns)), shape=(len(names), len(names)))
    _, component = connected_components(matrix, directed=True, connection="strong")
    sizes = np.bincount(component)
    return [name for name in names if sizes[component[numbers[name]]] > 1 or name in graph[name]]


def _cycle_through(name: str, by_name: dict[str, int], meanings: list[Meaning]) -> list[str]:
    """Return the shortest cycle of names from ``name`` back to it."""
    paths = {name: [name]}
    waiting = [name]
    for current in waiting:
        for used in sorted(meanings[by_name[current]].uses):
            if used == name:
                return paths[current]
            if used in by_name and used not in paths:
                paths[used] = [*paths[current], used]
                waiting.append(used)
    return [name]


def spread_problems(keys: tuple[LineKey, ...], meanings: list[Meaning]) -> None:
    """Note a problem of their own for lines that need a line with a problem."""
    works = working(keys, meanings)
    broken = {
        name: meaning.problem
        for key, meaning in zip(keys, meanings, strict=True)
        if not key.disabled
        for name in meaning.names
        if name not in works
    }
    if not broken:
        return
    users = _users(keys, meanings)
    waiting = sorted(broken)
    while waiting:
        name = waiting.pop(0)
        cause = broken[name]
        for index in users.get(name, ()):
            meaning = meanings[index]
            if meaning.problem is not None:
                continue
            error = NoValueError(
                f"{_reason(name, cause)}, so there is no value here yet.",
                position=(0, len(keys[index].text)),
                letters=cause.letters if cause is not None else (),
            )
            meanings[index] = with_problem(meaning, error)
            for defined in meaning.names:
                if defined not in broken:
                    broken[defined] = error
                    waiting.append(defined)


def _reason(name: str, cause: MathError | None) -> str:
    """Return why a name has no value."""
    if cause is None:
        return f"The equations do not determine `{name}`"
    return f"`{name}` has a problem of its own"


def _users(keys: tuple[LineKey, ...], meanings: list[Meaning]) -> dict[str, list[int]]:
    users: dict[str, list[int]] = {}
    for index, (key, meaning) in enumerate(zip(keys, meanings, strict=True)):
        if not key.disabled:
            for used in meaning.uses:
                users.setdefault(used, []).append(index)
    return users


def names_that_need(
    name: str, keys: tuple[LineKey, ...], meanings: tuple[Meaning, ...]
) -> Iterator[str]:
    """Return the names of the lines that use a name, in the order of the lines."""
    for key, meaning in zip(keys, meanings, strict=True):
        if not key.disabled and name in meaning.uses:
            yield from (other for other in meaning.names if other != name)


def order_of_need(
    keys: tuple[LineKey, ...], meanings: list[Meaning], among: set[int] | None = None
) -> list[int]:
    """Return the lines that work so that each comes after those that it uses.

    Args:
        keys: the lines.
        meanings: what they mean.
        among: the lines to be put in order; all by default.
    """
    chosen = range(len(keys)) if among is None else sorted(among)
    ready = [
        index
        for index in chosen
        if not keys[index].disabled
        and meanings[index].problem is None
        and meanings[index].kind is not Kind.NOTE
    ]
    own = {name: index for index in ready for name in meanings[index].names}
    order: list[int] = []
    done: set[int] = set()
    for index in ready:
        waiting = [index]
        while waiting:
            current = waiting[-1]
            needs = [
                own[name]
                for name in meanings[current].uses
                if name in own and own[name] not in done
            ]
            if needs and current not in done:
                waiting.extend(needs)
            else:
                waiting.pop()
                if current not in done:
                    done.add(current)
                    order.append(current)
    return order
