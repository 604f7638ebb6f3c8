"""A scene of six curves of all kinds, and a relation, against plain NumPy in the same run.

Run: PYTHONPATH=src .venv/bin/python -m bench.six
"""

from __future__ import annotations

import time
import zlib
from collections.abc import Callable

import numpy as np
import orjson

from axis_path.core import Study, Window

SAMPLES = 1_281
WIDTHS = (330, 660, 1_320)
LINES = (
    "f(x) = x^3/20 - x + s/100",
    "g(x) = (x^2 + 1)/((x - 3)(x + 4)) + s/100",
    "h(x) = 3 exp(-x/5) sin(3x + s)",
    "q(x) = x^2/4 for x < 0; 2 - x for 0 <= x < 3; s otherwise",
    "P(t) = (5cos(3t), 4sin(2t + s)) for 0 <= t <= 2pi",
    "r(theta) = 2 + s sin(4theta) for 0 <= theta <= 2pi",
)
RELATION = "x^2/25 + y^2/9 = 1 + s/1000"


def window(k: int = 0, width: int = 660) -> Window:
    # A little different each time: what was drawn before is stored.
    return Window((-10 + k / 1e4, 10), (-6.5, 6.5), width, 430)


def make_study(lines: tuple[str, ...]) -> Study:
    study = Study()
    study.set("s", "1.5", low=0, high=9, step="0.001")
    for line in lines:
        study.define(line)
    return study


def by_hand(s: float) -> list[np.ndarray]:
    """Evaluate the same six by hand, at the same number of places each."""
    with np.errstate(all="ignore"):
        x = np.linspace(-10, 10, SAMPLES)
        t = np.linspace(0, 2 * np.pi, SAMPLES)
        r = 2 + s * np.sin(4 * t)
        return [
            x**3 / 20 - x + s / 100,
            (x**2 + 1) / ((x - 3) * (x + 4)) + s / 100,
            3 * np.exp(-x / 5) * np.sin(3 * x + s),
            np.where(x < 0, x**2 / 4, np.where(x < 3, 2 - x, s)),
            5 * np.cos(3 * t), 4 * np.sin(2 * t + s),
            r * np.cos(t), r * np.sin(t),
        ]  # fmt: skip


def median_ms(work: Callable[[int], object], rounds: int = 120) -> float:
    times = []
    for k in range(rounds):
        began = time.perf_counter()
        work(k)
        times.append(1000 * (time.perf_counter() - began))
    return float(np.median(times[10:]))


def in_turn_ms(
    yardstick: Callable[[int], object], work: Callable[[int], object], rounds: int = 120
) -> tuple[float, float]:
    """Return the median times of two works that are done in turn: the processor changes its pace."""
    times = []
    for k in range(rounds):
        began = time.perf_counter()
        yardstick(k)
        between = time.perf_counter()
        work(k)
        times.append((between - began, time.perf_counter() - between))
    one, other = np.median(times[10:], axis=0)
    return 1000 * float(one), 1000 * float(other)


def main() -> None:
    study = make_study(LINES)
    alone = median_ms(lambda k: by_hand(1 + k / 1000))

    def moved(k: int, width: int = 660) -> object:
        return study.scene(window(k + 1, width))

    def slid(k: int) -> object:
        study.set("s", f"{1 + k / 1000:.3f}")
        return study.scene(window())

    print(f"six curves by hand, alone: {alone:.2f} ms")
    for name, work in (("the window moved", moved), ("a slider of all six moved", slid)):
        plain, spent = in_turn_ms(lambda k: by_hand(1 + k / 1000), work)
        print(
            f"{name}: {spent:.2f} ms, {spent / plain:.1f} times {plain:.2f} ms by hand in turn, "
            f"{spent / alone:.1f} times alone (wanted: 20, and under 10 ms)"
        )
    data = orjson.dumps(study.scene(window()).to_dict())
    print(f"bytes: {len(data):,}, compressed {len(zlib.compress(data)):,} (wanted: 40,000)")
    for line in LINES:
        one = make_study((line,))
        spent = median_ms(lambda k, one=one: one.scene(window(k + 1)), 60)  # type: ignore[misc]
        print(f"  {spent:5.2f} ms  {line}")
    relation = make_study((RELATION,))
    spent = median_ms(lambda k: relation.scene(window(k + 1)), 60)
    print(f"a relation: {spent:.1f} ms (wanted: 40)  {RELATION}")
    costs = [median_ms(lambda k, w=w: moved(1_000 + k, w), 60) for w in WIDTHS]  # type: ignore[misc]
    print("  ".join(f"{w} px: {cost:.1f} ms" for w, cost in zip(WIDTHS, costs, strict=True)))


if __name__ == "__main__":
    main()
