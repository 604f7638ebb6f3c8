"""A line together with its meaning, as all that is above the compiler sees it."""

from __future__ import annotations

from dataclasses import replace
from fractions import Fraction

from axis_path.core.catalogue.units import read_unit
from axis_path.core.compile.definition import Definition
from axis_path.core.errors import HaltedError, MathError
from axis_path.core.language import FunctionLine, ValueLine, typeset_line
from axis_path.core.language.tree import Negative, Node, Number, Quantity
from axis_path.core.lines.line import StudyLine
from axis_path.core.lines.meaning import Kind, Meaning
from axis_path.core.lines.sliders import slider_unit, written_number


def made_definition(line: StudyLine, meaning: Meaning) -> Definition:
    """Return a line with its meaning; of a slider its text holds the value."""
    mathml, read = meaning.mathml, meaning.line
    slider, own = line.moving, line.slider
    if not meaning.is_slider and meaning.line is not None:
        slider = None
    if slider is not None and meaning.kind is Kind.PARAMETER:
        unit = slider_unit(line.text)
        read = _slider_line(*slider, unit)
        mathml = typeset_line(read, slider[0])
        known = read_unit(unit) if unit else None
        if own is not None and known is not None:
            own = replace(own, unit=known.printed[:20])
    is_typed = slider is None and _is_typed_value(line, meaning)
    variable = meaning.line.variable if isinstance(meaning.line, FunctionLine) else None
    return Definition(
        line.id, meaning.name, meaning.kind, line.text, mathml, meaning.domain_mathml,
        variable, _problem(line, meaning), line.hidden, line.disabled, line.tone,
        own if slider is not None or is_typed else None,
        slider[1] if slider is not None else None, meaning.uses, line.style, read,
        line.fixed, is_typed, line.runner, line.trail, line.family, (), meaning.units,
        meaning.defines,
    )  # fmt: skip


def _slider_line(name: str, value: Fraction, unit: str) -> ValueLine:
    """Return the line of a slider without reading its text, which changes with every frame."""
    number: Node = Number(abs(value), written_number(abs(value)))
    if value < 0:
        number = Negative(number)
    product = read_unit(unit) if unit else None
    return ValueLine(name, Quantity(number, product) if product else number, (0, 0))


def _problem(line: StudyLine, meaning: Meaning) -> MathError | None:
    """Return what is said of a line in its row; nothing of one that is just turned off."""
    if line.halted:
        return HaltedError(
            "Computing this line used up the time or memory there is, so it was turned off. "
            "Change it, or turn it on to try again."
        )
    return None if line.disabled else meaning.problem


def _is_typed_value(line: StudyLine, meaning: Meaning) -> bool:
    """Check whether a line is a slider whose value is an expression without names of the study."""
    is_number = meaning.kind is Kind.PARAMETER and meaning.problem is None and not meaning.uses
    is_plain = meaning.units is None or meaning.units.is_plain
    return is_number and is_plain and line.slider is not None and not line.fixed
