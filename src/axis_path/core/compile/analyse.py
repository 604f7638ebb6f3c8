"""Make the analysis of all lines, beginning from the one before an edit."""

from __future__ import annotations

from collections.abc import Iterable

from axis_path.core.compile.analysis import Analysis
from axis_path.core.compile.cache import CompileCache
from axis_path.core.compile.dependence import (
    find_problems,
    order_of_need,
    spread_problems,
)
from axis_path.core.compile.settling import Settler
from axis_path.core.compile.units.units import NamedUnits
from axis_path.core.errors import LimitError
from axis_path.core.language.tree import (
    AngleUnit,
)
from axis_path.core.lines.meaning import (
    LineKey,
    LineKeys,
    Meaning,
    names_of,
    read_meaning,
)
from axis_path.core.threads import COMPUTING, SharedCache

_MOST_ANALYSES = 64


#: An edit of more lines than this is analysed as a whole.
_MOST_EDITED = 20


def analyse(unit: AngleUnit, keys: LineKeys, before: Analysis | None = None) -> Analysis:
    """Find out what each line of a study means among the others.

    Args:
        unit: the unit of angles.
        keys: the lines.
        before: the analysis before an edit, from which what did not change is taken.
    """
    key = (unit, keys)
    cached = _cache.get(key, None)
    if cached is None or cached.cache.is_worn:
        cached = _analysed(unit, keys, before)
        _cache.put(key, cached)
    return cached


def _analysed(unit: AngleUnit, keys: LineKeys, before: Analysis | None) -> Analysis:
    if before is not None and before.unit is unit and len(keys) == len(before.keys):
        edited = _edited(keys, before)
        if edited is not None:
            return edited
    vocabulary = names_of(keys)
    known: dict[LineKey, Meaning] = {}
    if before is not None and before.vocabulary == vocabulary:
        known = dict(zip(before.keys, before.raw, strict=True))
    raw = tuple(known.get(key) or read_meaning(key, vocabulary) for key in keys)
    meanings = list(raw)
    find_problems(keys, meanings, vocabulary)
    order = order_of_need(keys, meanings)
    earlier = before.cache if before is not None and before.unit is unit else None
    while True:
        cache = CompileCache(unit) if earlier is None or earlier.is_full else earlier
        analysis = Analysis(unit, keys, (), vocabulary, raw, cache)
        analysis.named_units = named_units(keys, raw)
        settled = list(meanings)
        with COMPUTING:
            Settler(analysis).settle(order, settled)
        if cache is not earlier or not any(
            isinstance(meaning.problem, LimitError) for meaning in settled
        ):
            break
        # The shared graph is full of what earlier edits left behind: begin a new one.
        earlier = None
    cache.settled = len(cache.graph.steps)
    spread_problems(keys, settled)
    analysis.meanings = tuple(settled)
    return analysis


def _edited(keys: LineKeys, before: Analysis) -> Analysis | None:
    """Take over the analysis before an edit, but for the edited lines and what depends on them.

    None where an edit does more than that: where it changes names, or makes or mends a problem.
    """
    changed = keys.changed_from(before.keys)
    if len(changed) > _MOST_EDITED or before.cache.is_full:
        return None
    raw, names = list(before.raw), set[str]()
    for index in changed:
        meaning = _edited_meaning(index, keys[index], before)
        if meaning is None or meaning.name is None:
            return None
        raw[index] = meaning
        names.add(meaning.name)
    meanings = list(before.meanings)
    for index in changed:
        meanings[index] = raw[index]
    touched = _dependents(names, before, set(changed))
    needed = {name for index in touched for name in meanings[index].names}
    if any(meanings[index].uses & needed for index in changed):
        # It may be a circle, or the edited lines use one another: the long way finds out.
        return None
    order = order_of_need(keys, meanings, touched)
    if any(before.meanings[index].problem is not None for index in order):
        return None
    analysis = Analysis(
        before.unit,
        keys,
        (),
        before.vocabulary,
        tuple(raw),
        before.cache,
    )
    before.copy_names(analysis)
    if before.named_units is not None:
        analysis.named_units = before.named_units.copy()
    for index in order:
        meanings[index] = raw[index]
    with COMPUTING:
        Settler(analysis).settle(order, meanings)
    if any(meanings[index].problem is not None for index in order):
        return None
    if all(meanings[index].uses == before.meanings[index].uses for index in changed):
        analysis.used_by = before.used_by
    analysis.written_names = before.written_names
    return analysis


def _edited_meaning(index: int, new: LineKey, before: Analysis) -> Meaning | None:
    """Return the meaning of an edited line; None where the edit changes more than this line."""
    old, was = before.keys[index], before.meanings[index]
    meaning = read_meaning(new, before.vocabulary)
    same_names = (meaning.name, new.disabled, new.given) == (was.name, old.disabled, old.given)
    if not same_names or names_of((new,)) != names_of((old,)):
        return None
    if meaning.problem is not None or was.problem is not None:
        return None
    if not meaning.uses <= before.vocabulary.functions | before.vocabulary.values:
        return None
    # The first unit of a study gives all its lines dimensions, and the last one takes them away.
    return meaning if meaning.has_units == before.raw[index].has_units else None


def named_units(keys: LineKeys, meanings: Iterable[Meaning]) -> NamedUnits | None:
    """Return where the units of names are stored; None in a study without units."""
    pairs = zip(keys, meanings, strict=True)
    has_units = any(meaning.has_units and not key.disabled for key, meaning in pairs)
    return NamedUnits() if has_units else None


def _dependents(names: set[str], before: Analysis, changed: set[int]) -> set[int]:
    """Return the edited lines and all that need them, by what the other lines used before."""
    touched, waiting = set(changed), sorted(names)
    for name in waiting:
        for index in before.used_by.get(name, ()):
            if index not in touched:
                touched.add(index)
                waiting.extend(before.meanings[index].names)
    return touched


_cache: SharedCache[tuple[AngleUnit, LineKeys], Analysis] = SharedCache(_MOST_ANALYSES)
