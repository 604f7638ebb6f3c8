"""Compile, or load, what Numba compiles, so that the first picture need not wait for it.

Run as a program it fills the cache beside the sources; set-up does that once.
"""

from numba import config

from axis_path.core.draw.window import Window
from axis_path.core.study import Study

#: A zero, a pole, a wave that is faster than the pixels, a path and an equation take all ways; what
#: is enclosed with NumPy, as the gamma function, takes some of them from Python.
_LINES = (
    "x^3 - 2", "1/x", "sin(900 x) for x > 0", "P(t) = (cos t, t^2)", "x^2 + y^2 = 4",
    "gamma(x)", "integral(sin(t), t, 0, x)", "Q(t) = (gamma(t), t)",
)  # fmt: skip


def is_compiled() -> bool:
    """Check whether the arithmetic is compiled, or is done by the interpreter for now."""
    return not config.DISABLE_JIT


def warm_up() -> None:
    """Draw a little of everything."""
    study = Study()
    for line in _LINES:
        study.define(line)
    study.scene(Window((-5.0, 5.0), (-3.0, 3.0), 300, 200), reading_x=1.0, pointer_y=1.0)
    study.scene(Window((0.1, 5.0), (0.1, 3.0), 300, 200, log_x=True, log_y=True))


if __name__ == "__main__":
    warm_up()
