"""Edits of sliders: set, type, widen, make, fix. Each returns the snapshot after it."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import replace
from fractions import Fraction

from axis_path.core.compile.numbers import GivenNumber, Numbers
from axis_path.core.compile.slider_queries import Sliders
from axis_path.core.compile.snapshot import Snapshot, line_name
from axis_path.core.errors import SliderError
from axis_path.core.features.lines.edits import put_line, write
from axis_path.core.features.sliders.guess import guess_slider
from axis_path.core.language import line_nodes, spelled
from axis_path.core.lines.sliders import (
    Slider,
    SliderKind,
    exact_number,
    guessed_range,
    literal,
    slider_unit,
    slider_value,
    written_number,
    written_slider,
)

_LARGEST = Fraction(10) ** 100


def set_slider(
    snapshot: Snapshot,
    name: str,
    value: GivenNumber,
    low: GivenNumber | None = None,
    high: GivenNumber | None = None,
    step: GivenNumber | None = None,
) -> Snapshot:
    """Set the value of a slider, and its range if one is given; a new name makes a new slider.

    Args:
        snapshot: before the edit.
        name: the letter.
        value: a number, or an expression for one.
        low: the lower end; an expression is stored as it is, and followed.
        high: the same for the upper end.
        step: the same for the distance of its values.

    Raises:
        MathError: the name is no slider, its range cannot be, or a text has no value.
    """
    name = spelled(name)
    exact = snapshot.query(Numbers).rational(value, snapshot.unit_of_slider(name))
    if abs(exact) > _LARGEST:
        raise SliderError("The value of a slider is too large.")
    line = next((line for line in snapshot.lines if line_name(line) == name), None)
    is_slider = line is not None and snapshot.definition(line.id).slider is not None
    if line is not None and not is_slider:
        what = "a constant" if slider_value(line.text) else "computed from other names"
        raise SliderError(f"`{name}` is {what}; it is no slider.")
    present = line.slider if line is not None and line.slider else guessed_range(exact)
    _check_kind(name, present, exact)
    texts = zip((low, high, step), present.texts, strict=True)
    chosen = present.with_texts(
        *(stored if given is None else _written(given) for given, stored in texts)
    )
    line_id = line.id if line is not None else snapshot.next_id()
    return _put(snapshot, line_id, name, exact, chosen)


def type_value(snapshot: Snapshot, line_id: int, text: str) -> Snapshot:
    """Set a slider to a value as it was typed: ``pi/2`` stays ``pi/2``.

    What depends on other lines is taken as the number that it is now.

    Raises:
        MathError: the text has no value, or one that the slider cannot take.
    """
    numbers = snapshot.query(Numbers)
    name, _, slider = snapshot.query(Sliders).slider_of(line_id)
    value, unit = literal(text), snapshot.unit_of_slider(name)
    if value is not None or unit.parts or numbers.names_used(text):
        return set_slider(snapshot, name, numbers.rational(text, unit) if value is None else value)
    exact = numbers.rational(text)
    if abs(exact) > _LARGEST:
        raise SliderError("The value of a slider is too large.")
    _check_kind(name, slider, exact)
    changed = write(snapshot, line_id, f"{name} = {text}")
    problem = changed.definition(line_id).problem
    if problem is not None:
        raise problem
    return changed


def change_slider(snapshot: Snapshot, line_id: int, slider: Slider) -> Snapshot:
    """Keep another range of a slider, or another way to play.

    Raises:
        MathError: the range cannot be.
    """
    name, value, _ = snapshot.query(Sliders).slider_of(line_id)
    return _put(snapshot, line_id, name, value, slider)


def widen_slider(snapshot: Snapshot, line_id: int) -> Snapshot:
    """Move an end of a slider to its value, if that lies beyond it."""
    sliders = snapshot.query(Sliders)
    _, value, slider = sliders.slider_of(line_id)
    chosen = sliders.slider_range(line_id)
    low = slider.low if value >= chosen.low else written_number(value)
    high = slider.high if value <= chosen.high else written_number(value)
    return change_slider(snapshot, line_id, replace(slider, low=low, high=high))


def make_sliders(snapshot: Snapshot, names: Sequence[str]) -> Snapshot:
    """Make sliders of letters without a value, with ranges guessed from their use.

    Raises:
        MathError: one of them can be no slider.
    """
    read = [meaning.line for meaning in snapshot.analysis.meanings]
    nodes = [node for line in read if line is not None for node in line_nodes(line)]
    for name in map(spelled, names):
        value, slider = guess_slider(name, nodes, snapshot.unit)
        snapshot = _put(snapshot, snapshot.next_id(), name, value, slider)
    return snapshot


def fix(snapshot: Snapshot, line_id: int, *, fixed: bool) -> Snapshot:
    """Turn a slider into a constant, which nothing moves, or a constant into a slider.

    Raises:
        SliderError: the line is no number.
    """
    line = snapshot.line(line_id)
    if slider_value(line.text) is None:
        raise SliderError("Only a letter with a number can be a slider or a constant.")
    return put_line(snapshot, replace(line, fixed=fixed))


def _put(snapshot: Snapshot, line_id: int, name: str, value: Fraction, slider: Slider) -> Snapshot:
    """Write a slider with its value and its range, and check that both can be."""
    unit = slider_unit(snapshot.line(line_id).text) if snapshot.has_line(line_id) else ""
    changed = write(snapshot, line_id, written_slider(name, value, unit))
    problem = changed.definition(line_id).problem
    if problem is not None:
        raise problem
    line = changed.line(line_id)
    if line.slider == slider:
        return changed
    changed = put_line(changed, replace(line, slider=slider))
    changed.query(Sliders).slider_range(line_id)
    return changed


def _written(given: GivenNumber) -> str:
    return given.strip() if isinstance(given, str) else written_number(exact_number(given))


def _check_kind(name: str, slider: Slider, value: Fraction) -> None:
    """Refuse a value that a slider of whole numbers cannot take.

    Raises:
        SliderError: it is not whole.
    """
    if slider.kind is SliderKind.WHOLE and value.denominator != 1:
        raise SliderError(f"The slider `{name}` takes whole numbers only.")
