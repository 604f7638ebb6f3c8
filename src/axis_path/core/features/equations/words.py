"""What is said of a set of equations: what is missing, too much, or contradictory."""

from __future__ import annotations

from collections.abc import Sequence

from axis_path.core.catalogue.units import find_unit
from axis_path.core.compile.inputs import input_name
from axis_path.core.compile.sets.model import ReadSet
from axis_path.core.language.sets.letters import gives, units_in
from axis_path.core.locate.sets import SetSolutions

_SMALL = ("no solution", "exactly one solution", "exactly two solutions")


ONE_SOLUTION = f"Proved: {_SMALL[1]}"


def letters_note(read: ReadSet) -> str:
    """Describe which letters are names of a set, and which are units, where both could be."""
    return " ".join(_meanings(read))


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


def set_note(read: ReadSet, solutions: SetSolutions, box: int) -> str:
    """Describe in sentences what is not certain, and what the equations lack."""
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
    return " ".join([*sentences, *_meanings(read), *solutions.notes])


def _meanings(read: ReadSet) -> list[str]:
    """Describe which letters are names of the set, and which are units, where both could be."""
    sentences = []
    for place, equation in enumerate(read.equations, 1):
        for name, unit in units_in(equation.compared).items():
            if name in (*read.unknowns, *read.others) and not gives(equation.compared, name):
                said = unit.parts[0][0].name
                other = f"for the name write a sign between, as in `2*{name}`"
                sentences.append(f"In equation {place} `{name}` is the unit {said}; {other}.")
        for name in equation.meant:
            own = find_unit(name)
            said = "" if own is None else f"; for the unit write `{own.name}`"
            what = "the unknown" if name in read.unknowns else "the name"
            sentences.append(f"In equation {place} `{name}` is {what}{said}.")
    return sentences


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
