"""What new lines are given by the study: a name, a colour and stroke, the range of a slider."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import replace

from axis_path.core.language import FunctionLine, RelationLine, ValueLine, is_function_head
from axis_path.core.language.sets.split import split_set
from axis_path.core.language.tree import Name, Pair
from axis_path.core.language.walk import walk
from axis_path.core.lines.line import StudyLine
from axis_path.core.lines.meaning import name_in_head, read_alone, reads_with_others
from axis_path.core.lines.sliders import guessed_range, slider_unit
from axis_path.core.threads import lazy_property

#: The names that unnamed lines are given, in this order, then with an index.
_FUNCTION_NAMES, _POINT_NAMES, _LIST_NAMES = "fghpq", "ABCDGHJK", "LMNUVW"


def settled(
    lines: tuple[StudyLine, ...], before: tuple[StudyLine, ...] = ()
) -> tuple[StudyLine, ...]:
    """Return new functions, points and lists their name and tone, new parameters their slider.

    Args:
        lines: all lines of a study.
        before: the lines before an edit, which have all of that already.
    """
    known = {id(line) for line in before}
    if all(id(line) in known for line in lines):
        return lines
    taken = _Taken(lines)
    return tuple(line if id(line) in known else _settle(line, taken) for line in lines)


def settle_line(lines: Sequence[StudyLine], index: int) -> StudyLine:
    """Do the same for one line among others that have all of that already."""
    return _settle(lines[index], _Taken(lines))


class _Taken:
    """The names and tones that the lines have; looked up only when a new one is needed."""

    def __init__(self, lines: Sequence[StudyLine]) -> None:
        self._lines = lines

    @lazy_property
    def names(self) -> set[str]:
        names = (name_in_head(line.text) or line.given for line in self._lines)
        return {name for name in names if name is not None}

    @lazy_property
    def tones(self) -> set[int | None]:
        return {line.tone for line in self._lines}

    def free_name(self, names: str) -> str:
        name = next(name for name in _free(names) if name not in self.names)
        self.names.add(name)
        return name

    def free_tone(self) -> int:
        tone = next(k for k in range(len(self.tones) + 1) if k not in self.tones)
        self.tones.add(tone)
        return tone


def _settle(line: StudyLine, taken: _Taken) -> StudyLine:
    value = line.moving
    if value is not None:
        # What a pointer drags: nothing more is read than its name and its number.
        unit = slider_unit(line.text)
        slider = guessed_range(value[1], unit) if line.slider is None else line.slider
        is_same = line.slider is slider and line.given is None
        return line if is_same else replace(line, slider=slider, given=None)
    named = name_in_head(line.text)
    is_text = line.text.lstrip().startswith("#") or not line.text.strip()
    is_set = bool(split_set(line.text))
    if (named is not None or is_set) and line.given is not None:
        line = replace(line, given=None)
    if is_text or is_set:
        return line
    alone = read_alone(line.text)
    if isinstance(alone, RelationLine) and alone.name is None and line.given is not None:
        line = replace(line, given=None)
    if named is None and line.given is None:
        names = _names_for(alone, line.text)
        line = replace(line, given=taken.free_name(names)) if names else line
    if line.tone is None and _is_drawn(alone, line.text):
        line = replace(line, tone=taken.free_tone())
    return line


def _names_for(alone: object, text: str) -> str:
    match alone:
        case FunctionLine():
            return _FUNCTION_NAMES
        case ValueLine(_, Pair()):
            return _POINT_NAMES
        case ValueLine():
            return _LIST_NAMES
        case None if reads_with_others(text):
            return _FUNCTION_NAMES
        case _:
            return ""


def _is_drawn(alone: object, text: str) -> bool:
    if isinstance(alone, FunctionLine | RelationLine) or is_function_head(text):
        return True
    if isinstance(alone, ValueLine):
        return not _is_plain_value(alone)
    return name_in_head(text) is None


def _is_plain_value(line: ValueLine) -> bool:
    """Check whether a value is only computed: points are drawn, and complex numbers."""
    is_complex = any(isinstance(node, Name) and node.name == "i" for node in walk(line.expression))
    return line.name is not None and not isinstance(line.expression, Pair) and not is_complex


def _free(names: str) -> Iterator[str]:
    yield from names
    number = 1
    while True:
        yield f"{names[0]}_{number}"
        number += 1
