"""Whether a path that does not close would close over a longer range of its parameter."""

from __future__ import annotations

from dataclasses import dataclass
from fractions import Fraction
from typing import Any

from axis_path.core.arithmetic import Ball, ball, precision
from axis_path.core.evaluate import VALUE_BITS, Multiple, RealPath, period
from axis_path.core.kinds.functions.lane import end_text
from axis_path.core.lines.sliders import written_number
from axis_path.core.threads import SharedCache

#: Nobody wants to be offered more turns than this of a curve.
_MOST_TIMES = 1_000
#: The period of a whole may be a part of that of its parts: these parts of it are tried.
_DIVISORS = (2, 3, 5, 7)
#: A shorter period is believed when the path agrees with itself at so many parameters, to
#: ``VALUE_BITS`` each. No two different curves that are met in practice do.
_AGREEMENTS = 12


@dataclass(frozen=True, slots=True)
class Closing:
    """Where a path would close: the upper end as text, and the lower one if it has to be given."""

    low: str | None
    high: str
    shown: str


_cache: SharedCache[tuple[object, ...], Closing | None] = SharedCache(256)


def closing_of(path: RealPath) -> Closing | None:
    """Return where a path closes that does not close yet; None if it does, or never will."""
    key = (path.x.key(), path.y.key(), path.assumed)
    # A period that no slider changes is asked for once.
    steady = ("closes", path.y.expression, path.x.key()[:-1])
    if path.x.expression.cached(steady, lambda: [_closes_always(path)], bool)[0]:
        return None
    return _cache.get_or_make(key, lambda: _closing(path))


def _closes_always(path: RealPath) -> bool:
    """Check whether a path reaches over a whole period of its, whatever the sliders are."""
    known = period(path.x.expression.together(path.y.expression), None)
    return known is not None and not _is_longer(known, path)


def _closing(path: RealPath) -> Closing | None:
    known = period(path.x.expression.together(path.y.expression), path.x.parameters)
    # Most paths reach over a whole period; only of others the shortest one is looked for.
    if known is None or not _is_longer(known, path):
        return None
    length = _shortest(path, known)
    if not _is_longer(length, path):
        return None
    with precision(VALUE_BITS):
        start = path.low.value
        end = ball.add(start, _ball(length))
    text = _written(length)
    low = end_text(path.low)
    is_zero = start.exact is not None and start.exact == 0
    high = text if is_zero else f"{low.replace('−', '-').replace('π', 'pi')} + {text}"
    shown = end_text(type(path.high)(end, closed=True), path.x.units.variable.printed)
    return Closing(low if "low" in path.assumed else None, high, shown)


def closing_dict(path: RealPath) -> dict[str, Any] | None:
    """Return the same as plain data."""
    closing = closing_of(path)
    return (
        None
        if closing is None
        else {"low": closing.low, "high": closing.high, "text": closing.shown}
    )


def _is_longer(multiple: Multiple, path: RealPath) -> bool:
    """Check whether a period is longer than the range of a path, but not beyond all measure."""
    with precision(VALUE_BITS):
        length = ball.subtract(path.high.value, path.low.value)
        whole = _ball(multiple)
        most = ball.multiply(length, ball.from_fraction(Fraction(_MOST_TIMES)))
        is_far = ball.subtract(whole, most).sign() == 1
        return ball.subtract(whole, length).sign() == 1 and not is_far


def _shortest(path: RealPath, known: Multiple) -> Multiple:
    for divisor in _DIVISORS:
        while True:
            shorter = Multiple(known.part / divisor, known.power)
            if not _repeats(path, shorter):
                break
            known = shorter
    return known


def _repeats(path: RealPath, after: Multiple) -> bool:
    """Check whether a path is at the same places again after a part of its range."""
    agreed = 0
    with precision(VALUE_BITS):
        shift = _ball(after)
        for k in range(4 * _AGREEMENTS):
            # Places that are no simple multiples of anything.
            t = ball.from_fraction(Fraction(7_919 * (k + 1), 5_000) + Fraction(k * k, 1_013))
            later = ball.add(t, shift)
            for function in (path.x, path.y):
                one, other = function.prove(t), function.prove(later)
                if one.is_defined and other.is_defined and not one.value.overlaps(other.value):
                    return False
                agreed += one.is_defined and other.is_defined
    return agreed >= 2 * _AGREEMENTS


def _ball(multiple: Multiple) -> Ball:
    value = ball.from_fraction(multiple.part)
    for _ in range(abs(multiple.power)):
        value = (
            ball.multiply(value, ball.pi()) if multiple.power > 0 else ball.divide(value, ball.pi())
        )
    return value


def _written(multiple: Multiple) -> str:
    number = written_number(multiple.part)
    if multiple.power == 0:
        return number
    sign = "pi" if multiple.power == 1 else f"pi^{multiple.power}"
    if multiple.part == 1:
        return sign
    top, bottom = multiple.part.numerator, multiple.part.denominator
    return f"{'' if top == 1 else top}{sign}" + (f"/{bottom}" if bottom != 1 else "")
