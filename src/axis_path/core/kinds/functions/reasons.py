"""Why a function that works shows no curve, in a sentence."""

from __future__ import annotations

from fractions import Fraction
from typing import Any

from axis_path.core.arithmetic import Defined, ball, precision
from axis_path.core.draw import Curve, Window
from axis_path.core.evaluate import VALUE_BITS, RealFunction
from axis_path.core.evaluate.quantities import with_unit
from axis_path.core.kinds.functions.lane import end_text
from axis_path.core.lines.domains import round_to_px
from axis_path.core.lines.sliders import written_number


def why_not_drawn(
    name: str, function: RealFunction, curve: Curve, window: Window
) -> dict[str, Any] | None:
    """Explain why a function that works shows no curve; None if it shows one."""
    variable, unit = function.variable, function.units.variable.printed
    if function.low is not None and function.high is not None:
        with precision(VALUE_BITS):
            sign = ball.subtract(function.high.value, function.low.value).sign()
        if sign != 1:
            low, high = (end_text(end, unit) for end in (function.low, function.high))
            return _why(
                f"Nothing of {name} is drawn: its domain is empty, because its lower end {low} is "
                f"not below its upper end {high}."
            )
    if curve.domain is None:
        abscissa = _domain_words(function)
        return _why(
            f"Nothing of {name} is drawn: its domain {abscissa} lies outside the window.", True
        )
    if curve.is_empty:
        reason = _first_reason(function, curve)
        return _why(
            f"Nothing of {name} is drawn: it has no real value for "
            f"{_interval_words(curve.domain, variable, window, unit)}{reason}."
        )
    side = _outside(curve, window)
    if side:
        return _why(f"Nothing of {name} is seen: its curve lies {side} the window.", frame=True)
    return None


def _why(sentence: str, frame: bool = False) -> dict[str, Any]:
    return {"sentence": sentence, "frame": frame}


def _first_reason(function: RealFunction, curve: Curve) -> str:
    if curve.domain is None:
        return ""
    low, high = curve.domain
    for part in (0.5, 0.25, 0.75):
        x = Fraction(low + (high - low) * part).limit_denominator(10)
        x = x if low < x < high else Fraction(low + (high - low) * part)
        with precision(VALUE_BITS):
            value = function.prove_within(ball.from_fraction(x))
        if value.defined is Defined.NO and value.reason:
            at = with_unit(_number(x), function.units.variable.printed)
            return f" ({value.reason} at {function.variable} = {at})"
    return ""


def _number(x: Fraction) -> str:
    text = written_number(x).replace("-", "−")
    return text if len(text) <= 8 else f"{float(x):.4g}".replace("-", "−")


def _domain_words(function: RealFunction) -> str:
    low, high, unit = function.low, function.high, function.units.variable.printed
    left = f"{end_text(low, unit)} {'≤' if low.closed else '<'} " if low is not None else ""
    right = f" {'≤' if high.closed else '<'} {end_text(high, unit)}" if high is not None else ""
    if low is not None and high is None:
        return f"{function.variable} {'≥' if low.closed else '>'} {end_text(low, unit)}"
    return f"{left}{function.variable}{right}"


def _interval_words(
    domain: tuple[float, float], variable: str, window: Window, unit: str
) -> str:  # fmt: skip
    low, high = (with_unit(_number(round_to_px(end, window)), unit) for end in domain)
    return f"{low} ≤ {variable} ≤ {high}"


def _outside(curve: Curve, window: Window) -> str:
    """Return on which side of the window a curve lies that is not seen at all."""
    lows = [float(piece[:, 1].min()) for piece in curve.pieces]
    highs = [float(piece[:, 1].max()) for piece in curve.pieces]
    lows += [float(band[:, 1].min()) for band in curve.bands]
    highs += [float(band[:, 2].max()) for band in curve.bands]
    if min(lows) > window.y[1]:
        return "above"
    if max(highs) < window.y[0]:
        return "below"
    sides = [low > window.y[1] or high < window.y[0] for low, high in zip(lows, highs, strict=True)]
    return "above and below" if all(sides) else ""
