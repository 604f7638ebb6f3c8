"""What is said of a set of equations: what is missing, too much, or contradictory."""

from __future__ import annotations

from collections.abc import Sequence

from axis_path.core.compile.inputs import input_name
from axis_path.core.compile.sets.model import ReadSet
from axis_path.core.features.equations.meanings import meanings_of
from axis_path.core.locate.sets import SetSolutions

_SMALL = ("no solution", "exactly one solution", "exactly two solutions")


ONE_SOLUTION = f"Proved: {_SMALL[1]}"


def set_verdict(solutions: SetSolutions) -> str:
    """Describe in a few words whether all solutions of a set were found."""
    count = len(solutions.solutions)
    if solutions.is_free:
        return "Not determined"
    words = _SMALL[count] if count < len(_SMALL) else f"exactly {count} solutions"
    if solutions.complete:
        return f"Proved: {words}"
    proved = sum(one.proved for one in solutions.solutions)
    return f"Not complete: {count} found, {proved} of them proved"


def set_note(
    read: ReadSet, solutions: SetSolutions, box: int, *, with_letters: bool = True
) -> str:  # fmt: skip
    """Describe in sentences what is not certain, and what the equations lack.

    Args:
        read: the set.
        solutions: of it.
        box: between which numbers was searched.
        with_letters: whether it is said which letters are names, and which are units.
    """
    inputs = {input_name(name): name for name in read.unknowns}
    sentences = []
    structure = solutions.structure
    if solutions.conflict:
        sentences.append(_conflict(solutions.conflict))
    if structure.free:
        names = [read.unknowns[k] for k in structure.free]
        verb = "are" if len(names) > 1 else "is"
        sentences.append(
            f"{listed(names)} {verb} not determined: {counted(structure.missing, 'equation')} "
            f"{'is' if structure.missing == 1 else 'are'} missing."
        )
    other = [inputs[name] for name in solutions.is_free]
    other = [name for name in other if read.unknowns.index(name) not in structure.free]
    if other:
        sentences.append(f"There are infinitely many solutions: {listed(other)} can be any number.")
    if solutions.redundant and not solutions.conflict:
        verb = "follows" if len(solutions.redundant) == 1 else "follow"
        sentences.append(f"{equations(solutions.redundant)} {verb} from the others.")
    if solutions.boxed:
        names = [inputs[name] for name in solutions.boxed]
        sentences.append(f"{listed(names)}: searched from −{box:,} to {box:,}.")
    letters = [one.sentence for one in meanings_of(read)] if with_letters else []
    return " ".join([*sentences, *letters, *solutions.notes])


def _conflict(conflict: Sequence[int]) -> str:
    if len(conflict) == 1:
        return f"There is no solution: {equations(conflict).lower()} has none."
    return f"There is no solution: {equations(conflict).lower()} contradict each other."


def equations(places: Sequence[int]) -> str:
    """Name equations by their numbers: ``Equations 1 and 3``."""
    numbers = [str(place + 1) for place in places]
    return f"Equation{'s' if len(numbers) > 1 else ''} {joined(numbers)}"


def listed(names: Sequence[str]) -> str:
    """List names with backticks around them."""
    return joined([f"`{name}`" for name in names])


def joined(parts: Sequence[str]) -> str:
    """Join parts with commas and ``and``."""
    if len(parts) < 2:
        return "".join(parts)
    return f"{', '.join(parts[:-1])} and {parts[-1]}"


def counted(count: int, what: str) -> str:
    """Return a number of things in words."""
    words = ("no", "one", "two", "three", "four")
    number = words[count] if count < len(words) else str(count)
    return f"{number} {what}{'' if count == 1 else 's'}"
