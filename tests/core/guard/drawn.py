"""Equations whose curves are known by a parameter: drawn within half a pixel, nothing astray."""

from __future__ import annotations

import random
from collections.abc import Callable
from dataclasses import dataclass
from functools import partial
from typing import Any

import numpy as np
from numpy.typing import NDArray
from scipy.spatial import cKDTree

from axis_path.core import Study, Window
from axis_path.core.draw import draw_relation
from axis_path.core.kinds.states import States
from tests.core.guard.truths import Case, Verdict, weak, wrong

_Floats = NDArray[np.float64]
_MOST_PX = 0.5
_WIDTH, _HEIGHT = 400, 280
_TURN = np.linspace(0, 2 * np.pi, 12_001)
_SINE, _COSINE = np.sin(_TURN), np.cos(_TURN)
_LINE = np.linspace(-8, 8, 12_001)


@dataclass(frozen=True)
class _Curve:
    """An equation in U and V for x and y less a place, and points of its curve."""

    text: str
    points: Callable[[], tuple[_Floats, _Floats]]


_CURVES = (
    _Curve("U^2 + V^2 = 1", lambda: (_COSINE, _SINE)),
    _Curve("(U^2 + V^2 - U)^2 = U^2 + V^2", lambda: ((1 + _COSINE) * _COSINE, (1 + _COSINE) * _SINE)),
    _Curve("sqrt(U) + sqrt(V) = 1", lambda: (_COSINE**4, _SINE**4)),
    _Curve("|U| + |V| = 1", lambda: (np.sign(_COSINE) * _COSINE**2, np.sign(_SINE) * _SINE**2)),
    _Curve("max(|U|, |V|) = 1", lambda: (
        _COSINE / np.maximum(abs(_COSINE), abs(_SINE)), _SINE / np.maximum(abs(_COSINE), abs(_SINE)))),
    _Curve("U^2 = V^2", lambda: (np.tile(_LINE, 2), np.concatenate([_LINE, -_LINE]))),
    _Curve("(U^2 + V^2)^2 = 2(U^2 - V^2)", lambda: (
        np.sqrt(2) * _COSINE / (1 + _SINE**2), np.sqrt(2) * _SINE * _COSINE / (1 + _SINE**2))),
    _Curve("V^2 = U^2(U + 1)", lambda: (_LINE**2 - 1, _LINE * (_LINE**2 - 1))),
    _Curve("V^2 = U^3", lambda: (_LINE**2, _LINE**3)),
    _Curve("cbrt(U)^2 + cbrt(V)^2 = 1", lambda: (_COSINE**3, _SINE**3)),
    _Curve("xy = 1", lambda: (np.concatenate([np.exp(_LINE), -np.exp(_LINE)]), np.concatenate([np.exp(-_LINE), -np.exp(-_LINE)]))),
    _Curve("U V = 1", lambda: (np.concatenate([np.exp(_LINE), -np.exp(_LINE)]), np.concatenate([np.exp(-_LINE), -np.exp(-_LINE)]))),
    _Curve("sin(U) = V", lambda: (_LINE, np.sin(_LINE))),
    _Curve("ln(V) = U", lambda: (_LINE, np.exp(_LINE))),
    _Curve("(U - V)^2 = 0", lambda: (_LINE, _LINE)),
    _Curve("(U^2 + V^2 - 1)(U - V) = 0", lambda: (np.concatenate([_COSINE, _LINE]), np.concatenate([_SINE, _LINE]))),
    _Curve("U^2/2 + 2V^2 = 1", lambda: (np.sqrt(2) * _COSINE, _SINE / np.sqrt(2))),
)  # fmt: skip


def drawn(given: random.Random) -> Case:
    """Return an equation, moved, in some window."""
    curve = given.choice(_CURVES)
    a, b = (given.choice((0.0, 0.25, -0.7, 1.0)) for _ in range(2))
    if "U" not in curve.text:
        a = b = 0.0
    text = curve.text.replace("U", _less("x", a)).replace("V", _less("y", b))
    reach = given.uniform(1.3, 3.2)
    left, low = a - reach + given.uniform(-0.2, 0.2), b - reach * 0.7 + given.uniform(-0.2, 0.2)
    window = Window((left, left + 2 * reach), (low, low + 1.4 * reach), _WIDTH, _HEIGHT)
    return Case(
        f"{text} in {window.x}, {window.y}", "picture", partial(_judge, text, curve, (a, b), window)
    )


def _less(name: str, abscissa: float) -> str:
    return name if abscissa == 0 else f"({name} - ({abscissa}))"


def _judge(text: str, curve: _Curve, at: tuple[float, float], window: Window) -> Verdict:
    study = Study()
    study.define(text)
    picture = draw_relation(
        next(iter(study.snapshot.query(States).state.relations.values())), window
    )
    x, y = curve.points()
    truth = _in_px(np.column_stack([x + at[0], y + at[1]]), window)
    # What lies far outside of the window need not be followed in steps of a tenth of a pixel.
    truth = _filled(truth.clip(-_WIDTH, 2 * _WIDTH))
    inner = ((truth > 1) & (truth < (_WIDTH - 1, _HEIGHT - 1))).all(axis=1)
    lines = [_filled(_in_px(line, window)) for line in picture.solid]
    shown = np.concatenate([*lines, _in_px(picture.dots, window)])
    if not len(shown):
        return wrong("nothing is drawn") if inner.any() else weak("")
    missed = cKDTree(shown).query(truth[inner])[0].max(initial=0.0)
    inside = ((shown > 2) & (shown < (_WIDTH - 2, _HEIGHT - 2))).all(axis=1)
    stray = cKDTree(truth).query(shown[inside])[0].max(initial=0.0)
    if max(missed, stray) > _MOST_PX:
        return wrong(f"{missed:.2f} px of the curve are missed, {stray:.2f} px astray")
    return weak("")


def _in_px(points: _Floats, window: Window) -> _Floats:
    points = np.asarray(points, dtype=np.float64).reshape(-1, 2)
    return np.column_stack([window.across(points[:, 0]), window.down(points[:, 1])])


def _filled(line: _Floats) -> _Floats:
    """Return points along a line at most a tenth of a pixel apart; long steps stay as they are."""
    steps = np.hypot(*np.diff(line, axis=0).T)
    counts = np.where(steps < 40, np.ceil(steps * 10).astype(int), 1).clip(1)
    rows = np.repeat(np.arange(len(steps)), counts)
    parts: Any = (
        np.concatenate([np.arange(count) / count for count in counts]) if len(counts) else []
    )
    filled = line[rows] + (line[rows + 1] - line[rows]) * np.asarray(parts)[:, None]
    return np.concatenate([filled, line[-1:]])
