"""The sliders of a scene, as plain data."""

from __future__ import annotations

import math
from collections.abc import Mapping
from fractions import Fraction
from typing import Any

from axis_path.core.compile.definition import Definition
from axis_path.core.contract import write
from axis_path.core.errors import MathError
from axis_path.core.kinds.problems import problem_dict
from axis_path.core.language import GREEK
from axis_path.core.lines.sliders import (
    Slider,
    SliderKind,
    SliderRange,
    written_number,
)

#: A value is named as a part of pi if it is as near to it as a value with this step would be.
_NEAR_PI = 1e-9
_LARGEST_PART = 24
_LONGEST_SHOWN = 8


def make_sliders(
    definitions: list[Definition],
    ranges: Mapping[int, SliderRange | MathError],
    users: Mapping[str, list[str]],
    typed: Mapping[int, Fraction],
) -> list[dict[str, Any]]:
    """Return the sliders in the order of their lines.

    Args:
        definitions: all lines.
        ranges: the range of each slider, or what is wrong with it, by id.
        users: the names of the lines that use a name.
        typed: the values of those that were typed as expressions, by id.
    """
    shown = {d.name for d in definitions if not d.hidden and not d.disabled}
    return [
        _slider(d, d.slider, value, ranges.get(d.id), users, shown)
        for d in definitions
        for value in [typed.get(d.id) if d.typed else d.value]
        if value is not None and d.slider is not None and not d.disabled
    ]


def _slider(
    definition: Definition,
    slider: Slider,
    value: Fraction,
    bounds: SliderRange | MathError | None,
    users: Mapping[str, list[str]],
    shown: set[str | None],
) -> dict[str, Any]:
    name = definition.name or ""
    text = definition.text.partition("=")[2].strip() if definition.typed else written_number(value)
    problem = bounds if isinstance(bounds, MathError) else definition.problem
    limits = bounds if isinstance(bounds, SliderRange) else None
    return {
        "id": definition.id,
        "name": name,
        "sign": GREEK.get(name, name),
        "text": text.replace("-", "−"),
        "short": text if definition.typed and len(text) <= _LONGEST_SHOWN else short(value),
        "value": float(value),
        "about": about(value) if slider.kind is SliderKind.ANGLE else "",
        "low": slider.low,
        "high": slider.high,
        "step": slider.step,
        "kind": slider.kind.value,
        "unit": slider.unit,
        "note": slider.note,
        "play": write(slider.play),
        # Without a range nothing moves: the knob stands still at the value.
        "low_value": float(limits.low) if limits else float(value),
        "high_value": float(limits.high) if limits else float(value),
        "step_value": float(limits.step) if limits else 1.0,
        "is_beyond": limits is not None and not limits.low <= value <= limits.high,
        "used_by": users.get(name, []),
        "moves": _moves_what(name, users, shown),
        "problem": None if problem is None else problem_dict(problem),
    }


def _moves_what(name: str, users: Mapping[str, list[str]], shown: set[str | None]) -> bool:
    """Check whether anything that is shown depends on a name."""
    dependents, pending = {name}, [name]
    for line in pending:
        for user in users.get(line, ()):
            if user not in dependents:
                dependents.add(user)
                pending.append(user)
    return bool((dependents - {name}) & shown)


def short(value: Fraction) -> str:
    """Write a value for a narrow field: in full if it is short, else rounded."""
    text = written_number(value)
    return (text if len(text) <= _LONGEST_SHOWN else f"{float(value):.6g}").replace("-", "−")


def about(value: Fraction) -> str:
    """Name a multiple of pi that a value is the nearest decimal of, such as ``≈ 3π/4``."""
    part = float(value) / math.pi
    if not value or abs(part) > 1e6:
        return ""
    near = Fraction(part).limit_denominator(_LARGEST_PART)
    if abs(float(near) - part) > _NEAR_PI * max(1.0, abs(part)):
        return ""
    top = {1: "π", -1: "−π"}.get(near.numerator, f"{near.numerator}π").replace("-", "−")
    return f"≈ {top}" if near.denominator == 1 else f"≈ {top}/{near.denominator}"
