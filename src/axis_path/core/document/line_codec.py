"""Lines in the open study format."""

from __future__ import annotations

from typing import Any

from axis_path.core.document.fields import field_of
from axis_path.core.errors import FormatError, MathError, SliderError
from axis_path.core.limits import LINE_LENGTH
from axis_path.core.lines.family import family_from_dict, family_to_dict
from axis_path.core.lines.line import StudyLine
from axis_path.core.lines.moving import (
    Runner,
    runner_from_dict,
    runner_to_dict,
    trail_from_dict,
    trail_to_dict,
)
from axis_path.core.lines.sliders import Slider, literal, slider_from_dict, slider_to_dict
from axis_path.core.lines.style import LineStyle, style_from_dict, style_to_dict


def line_to_dict(line: StudyLine) -> dict[str, Any]:
    """Return a line as plain data; what is as usual is left out."""
    kept: dict[str, Any] = {"id": line.id, "text": line.text}
    if line.hidden:
        kept["hidden"] = True
    if line.disabled:
        kept["disabled"] = True
    if line.halted:
        kept["halted"] = True
    if line.given is not None:
        kept["given"] = line.given
    if line.tone is not None:
        kept["tone"] = line.tone
    kept |= {
        name: value for name, value in (("fit", line.fit), ("fit_lost", line.fit_lost)) if value
    }
    if line.style != LineStyle():
        kept["style"] = style_to_dict(line.style)
    if line.fixed:
        kept["fixed"] = True
    if line.runner is not None:
        kept["runner"] = runner_to_dict(line.runner)
    if line.trail is not None:
        kept["trail"] = trail_to_dict(line.trail)
    if line.family is not None:
        kept["family"] = family_to_dict(line.family)
    if line.slider is not None:
        kept["slider"] = slider_to_dict(line.slider)
    return kept


def line_from_dict(given: object) -> StudyLine:
    """Read a line.

    Raises:
        FormatError: a field is not what it should be.
    """
    if not isinstance(given, dict):
        raise FormatError("A line of the study is of the wrong kind.")
    text = field_of(given, "text", str)
    if len(text) > LINE_LENGTH.value:
        raise FormatError(f"A line of the study has more than {LINE_LENGTH.value:,} characters.")
    slider = given.get("slider")
    return StudyLine(
        id=field_of(given, "id", int),
        text=text,
        hidden=field_of(given, "hidden", bool, False),
        disabled=field_of(given, "disabled", bool, False),
        halted=field_of(given, "halted", bool, False),
        given=given["given"][:100] if isinstance(given.get("given"), str) else None,
        fixed=field_of(given, "fixed", bool, False),
        slider=_slider(slider) if isinstance(slider, dict) else None,
        tone=None if given.get("tone") is None else field_of(given, "tone", int),
        style=style_from_dict(given.get("style", {})),
        runner=None if given.get("runner") is None else _runner(given["runner"]),
        family=None if given.get("family") is None else family_from_dict(given["family"]),
        fit=None if given.get("fit") is None else field_of(given, "fit", int),
        fit_lost=field_of(given, "fit_lost", bool, False),
        trail=None if given.get("trail") is None else trail_from_dict(given["trail"]),
    )


def _slider(given: dict[str, Any]) -> Slider:
    try:
        slider = slider_from_dict(given)
        known = [literal(text) for text in slider.texts]
        if None not in known:
            # What depends on other lines is looked at when they are all there.
            slider.range(*(each for each in known if each is not None))
        return slider
    except MathError as err:
        raise FormatError(f"A slider of the study cannot be: {err.message}") from err


def _runner(given: object) -> Runner:
    try:
        return runner_from_dict(given)
    except SliderError as err:
        raise FormatError(f"The runner of a path cannot be: {err.message}") from err
