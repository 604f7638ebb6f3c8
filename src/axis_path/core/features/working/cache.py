"""Results that are kept from one edit to the next: an edit computes what depends on it, no more."""

from __future__ import annotations

from collections.abc import Callable, Iterable
from fractions import Fraction

from axis_path.core.compile.analysis import Analysis
from axis_path.core.compile.snapshot import Snapshot
from axis_path.core.document.random_seed import RandomSeed
from axis_path.core.evaluate import Result
from axis_path.core.language.tree import Node, names_in


def cached_result(
    snapshot: Snapshot, node: Node, owner: str, compute: Callable[[], Result]
) -> Result:
    """Return the result of an expression, from before if nothing that it uses has changed.

    Args:
        snapshot: the names that it may use.
        node: the expression.
        owner: by what its random numbers are drawn.
        compute: computes it.
    """
    analysis = snapshot.analysis
    names = names_in(node)
    marks = tuple(sorted((name, str(analysis.mark(name))) for name in names))
    sliders = _sliders_below(analysis, names, snapshot.sliders)
    key = (node, owner, marks, sliders, snapshot.section(RandomSeed).number)
    return analysis.cache.results.get_or_make(key, compute)


def _sliders_below(
    analysis: Analysis, names: Iterable[str], sliders: dict[str, Fraction]
) -> tuple[tuple[str, Fraction], ...]:
    """Return the values of all sliders that names depend on."""
    known, waiting = set[str](), list(names)
    while waiting:
        name = waiting.pop()
        meaning = analysis.meaning(name)
        if name not in known and meaning is not None:
            known.add(name)
            waiting.extend(meaning.uses)
    return tuple(sorted((name, sliders[name]) for name in known if name in sliders))
