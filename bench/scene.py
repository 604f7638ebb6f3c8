"""How long a scene takes, against plain NumPy sampling of the same curves in the same run.

Run: PYTHONPATH=src .venv/bin/python -m bench.scene
"""

import time
from collections.abc import Callable

import numpy as np
import orjson

from axis_path.core import Study, Window

WINDOW = Window((-1, 13), (-2.2, 5.2), 660, 430)
ROUNDS = 300


def make_study() -> Study:
    study = Study()
    study.set("a", "1.6", low=0, high=3, step="0.001")
    study.set("c", "1.6", low=0, high=5, step="0.001")
    study.define("h(t) = 2.1 + a sin(pi t/6.2) for 0 <= t <= 12.4")
    study.define("g(t) = 1.2 + 0.18t")
    study.define("q(t) = 0.9 cosh((t - 6)/3) - c for 2 <= t < 10")
    return study


def plain(a: float, c: float) -> bytes:
    """The yardstick: the same curves at every pixel, rounded and sent, and nothing proved."""
    t = np.linspace(*WINDOW.x, WINDOW.width + 1)
    curves = (2.1 + a * np.sin(np.pi * t / 6.2), 1.2 + 0.18 * t, 0.9 * np.cosh((t - 6) / 3) - c)
    xs = np.rint(WINDOW.across(t) * 10).astype(int)
    return orjson.dumps(
        [np.column_stack([xs, np.rint(WINDOW.down(y) * 10).astype(int)]).tolist() for y in curves]
    )


def timed(work: Callable[[float], object]) -> np.ndarray:
    times = []
    for k in range(ROUNDS):
        # No value comes twice: what was drawn before is stored, and would be measured for nothing.
        value = 1 + k / 250
        began = time.perf_counter()
        work(value)
        times.append((time.perf_counter() - began) * 1000)
    return np.array(times[20:])


def main() -> None:
    study = make_study()

    def moved(value: float) -> bytes:
        study.set("c", f"{value:.3f}")
        return orjson.dumps(study.scene(WINDOW, reading_x=4.6).to_dict())

    def still(value: float) -> bytes:
        return orjson.dumps(study.scene(WINDOW, reading_x=4.6).to_dict())

    def reading(value: float) -> bytes:
        return orjson.dumps(study.readings(WINDOW, value))

    yardstick = timed(lambda value: plain(value, value))
    rows = (("a slider moved", moved), ("nothing changed", still), ("the reading line", reading))
    print(f"plain NumPy, 3 curves: median {np.median(yardstick):.2f} ms")
    for name, work in rows:
        times = timed(work)
        print(
            f"{name}: median {np.median(times):.2f} ms, p95 {np.quantile(times, 0.95):.2f} ms, "
            f"{np.median(times) / np.median(yardstick):.1f} times plain NumPy"
        )
    print(f"bytes of a scene: {len(moved(1.5)):,}")


if __name__ == "__main__":
    main()
