"""Lines that once ended or froze the process that read them, and mutations of them.

    PYTHONPATH=src:. .venv/bin/python -m tests.deadly 100000 [seed]

Everything that the Bench does with a line is done with each: it is defined, drawn, read off,
searched, tabulated, solved and computed. Batches run in processes of their own, so that a death is
counted and its line printed. The tests run a short round of the same.
"""

from __future__ import annotations

import os
import random
import resource
import signal
import sys
import time
import traceback
from collections.abc import Iterator

from axis_path.compute.forked import run_forked
from axis_path.core import Deadline, MathError, Study, Window, deadline_scope
from axis_path.core.evaluate import run_exact_work_with
from axis_path.core.study import Kind, SavedQuery, answer
from axis_path.core.warm import warm_up
from tests.fuzz import changed

WINDOW = Window((-10.0, 10.0), (-7.0, 7.0), 330, 215)
#: Each line may compute for so long before it is stopped in words, and then until it is killed.
STOPPED_S, KILLED_S = 0.1, 30
_BATCH, _TELL_EVERY = 100, 5_000
_MEMORY = 4 << 30
#: What a mutation puts into a line: numbers and functions that grow fast.
_GROWING = (
    "10^100^40", "exp(exp(99))", "exp(", "floor(", "1e10000", "1/", "10^-9000", "factorial(",
    "gamma(", "x", "9", "^", "-", "(", ")", "binomial(", "integral(t, t, 0, ", "i", "pi",
)  # fmt: skip
LINES = """
A = floor(exp(exp(99)))
A = ceil(10^100^40)
A = round(10^100^40, 2)
A = mod(10^100^40, 7)
A = floor(1e10000^1e9)
h(x) = floor(exp(exp(x^2)))
g(x) = floor(10^(10^(x^2+40)))
g(x) = mod(10^(10^(x^2+40)), 3)
A = gamma(10^100^40)
A = gamma(1/10^3000)
A = gamma(10^300)
A = gamma(-10^300+1/3)
A = digamma(10^100^40)
A = digamma(-10^300+1/3)
A = sin(10^100^40)
A = sin(10^300)
A = tan(exp(exp(99)))
A = cos(exp(exp(99)))
A = atan2(exp(exp(99)), 1)
A = erf(10^100^40)
A = erf(exp(99))
A = asinh(exp(exp(99)))
A = acosh(exp(exp(99)))
A = ln(exp(exp(99)))
A = ln(10^100^40)
A = log(10^100^40)
A = sqrt(10^100^40)
A = cbrt(10^100^40)
A = (10^100^40)^(1/3)
A = (10^100^40)^(1/999999999999999999999999)
A = 2^(1/999999999999999999999999)
A = 2^(1/99999999999)
A = 3^(99999999999/99999999998)
g(x) = x^(1/99999999999)
g(x) = x^(99999999999/7)
g(x) = x^99999999999
g(x) = (x+1)^2000000000
A = 1.0000001^99999999999
A = 3^2000000000
A = pi^2000000000
A = factorial(10^100^40)
A = factorial(exp(exp(99)))
A = binomial(10^100^40, 3)
A = binomial(10^3000, 10^2999)
A = binomial(10^300, 10^5)
A = gcd(10^100^40, 3)
A = lcm(10^90000, 3^90000)
A = lcm(lcm(10^90000, 3^90000), 7^90000)
A = max(10^100^40, 3)
A = sign(10^100^40)
A = abs(-10^100^40)
L = from 0 to 10^100^40
L = from 0 to exp(exp(99)) step 1
L = from 0 to 1 step 1/10^100^40
L = from 10^100^40 to 10^100^40+10
A = sum(k, k, 1, 10^100^40)
A = sum(k, k, 10^100^40, 10^100^40+3)
A = integral(x, x, 0, 10^100^40)
A = integral(floor(exp(exp(x))), x, 0, 9)
A = integral(exp(exp(x)), x, 0, 99)
A = integral(1/x, x, 10^-9999, 1)
A = product(k^k, k, 1, 9999)
A = product(10^10000, k, 1, 99999)
A = (floor(exp(exp(99))), 2)
A = i^(10^100^40)
A = exp(exp(99)) i
A = (1+i)^(10^100^40)
A = exp(exp(exp(99))+i)
A = floor(exp(exp(99)) + 1/10^99)
A = floor(1/exp(exp(99)))
A = exp(-exp(exp(99)))
A = 1/exp(-exp(exp(99)))
g(x) = exp(exp(exp(x)))
g(x) = 1/exp(exp(exp(x)))
g(x) = x exp(exp(exp(x)))
g(x) = x - exp(exp(exp(99)))
g(x) = x + 10^100^40
g(x) = 10^100^40 (x-1)
g(x) = 10^10000 (x-1)
g(x) = x^2 - 10^9000
g(x) = x^2 - 10^90000
g(x) = x^2 10^90000 - 1
g(x) = x^100 - 10^90000
g(x) = x for x > 10^100^40
g(x) = x for x > 10^100^4pi
g(x) = x for x < exp(exp(99))
g(x) = x for 1/exp(exp(99)) < x < 1
g(x) = x for x < 0; 5 for x < exp(exp(99)); 4 otherwise
P(t) = (t, exp(exp(t))) for 0 <= t <= exp(exp(99))
r(theta) = exp(exp(theta)) for 0 <= theta <= 10^100^40
r(theta) = floor(exp(exp(theta^2)))
x^2 + y^2 = 10^100^40
floor(exp(exp(x))) + y = 3
y < exp(exp(x^2))
b = exp(exp(99))
b = 10^9999
b = 10^100^40
g(x) = round(exp(exp(x)), 10^100^40)
A = round(pi, 10^100^40)
A = round(pi, -10^100^40)
A = mod(10^100^40, 10^-100^40)
A = mod(pi, 10^-9000)
A = |10^100^40|!
A = 0.5^(10^100^40)
A = (-8)^(1/3 + 10^100^40)
A = (-1)^(10^100^40)
A = (-exp(exp(99)))^3
A = (-exp(exp(99)))^(1/3)
A = acos(1/exp(exp(99)))
A = sin(1/exp(exp(99)))
A = atan(exp(exp(99)))
A = tanh(exp(exp(99)))
A = sinh(exp(exp(99)))
A = coth(exp(exp(99)))
A = sec(exp(exp(99)))
A = 1e10000^1e9
A = 1e-10000^1e9
A = 1e-10000^-1e9
g(x) = 1e-10000 x
g(x) = sin(1e300 x)
g(x) = sin(1e10000 x)
g(x) = sin(exp(exp(x)))
g(x) = floor(1e300 x)
g(x) = floor(1e10000 x)
g(x) = gcd(floor(exp(exp(x))), 7)
g(x) = binomial(floor(exp(exp(x^2))), 7)
g(x) = factorial(floor(exp(x^2)))
g(x) = gamma(exp(exp(x)))
g(x) = gamma(1e300 x)
g(x) = sum(x^k, k, 1, floor(exp(exp(9))))
g(x) = integral(floor(exp(exp(t))), t, 0, x)
g(x) = f'(exp(exp(x)))
g(x) = (x^2-2)^60 (x-10^200)^60
g(x) = x^120 - 3^1000 x + 10^8000
g(x) = x^120 - 3^1000 x + 10^800010^-9000
""".strip().splitlines()


def mutations(count: int, seed: int) -> Iterator[str]:
    """Yield the lines themselves, then mutations of them."""
    drawn = random.Random(seed)  # noqa: S311 - a fixed seed is wanted
    yield from LINES[:count]
    for _ in range(count - len(LINES)):
        text = drawn.choice(LINES)
        if drawn.random() < 0.7:
            at = drawn.randrange(text.find("=") + 1, len(text) + 1)
            until = min(at + drawn.randrange(0, 4), len(text))
            text = text[:at] + drawn.choice(_GROWING) + text[until:]
        else:
            text = changed(text, drawn)
        yield text


def use(text: str) -> None:
    """Do with a line all that the Bench does.

    Raises:
        Exception: anything but an error in words; that is what this looks for.
    """
    study = Study()
    study.define("f(x) = x^2 - a")
    study.set("a", "2.5", low=0, high=5, step="0.1")
    study.write(study.snapshot.next_id(), text)
    made = study.definitions()[-1]
    tasks = [
        lambda: study.scene(WINDOW, reading_x=1.0),
        lambda: study.evaluate(text.split("=", 1)[-1]).decimal(20),
        lambda: study.solve(text.split("=", 1)[-1] + " = 3"),
    ]
    if made.kind is Kind.FUNCTION and made.name and made.problem is None:
        name = made.name
        tasks += [
            lambda: study.zeros(name),
            lambda: study.extrema(name),
            lambda: study.breaks(name),
            lambda: study.intersections("f", name),
            lambda: study.values([name], start=-2, stop=2, step=1),
            lambda: answer(study.snapshot, SavedQuery(1, line=made.id)),
        ]
    deadline = Deadline(time.monotonic, step_s=STOPPED_S / 4, total_s=STOPPED_S)
    with deadline_scope(deadline):
        for task in tasks:
            try:
                task()  # type: ignore[no-untyped-call]
            except MathError:
                continue


def run_batch(texts: list[str]) -> int:
    """Use some lines in a process of its own; return its status, 0 if nothing happened."""
    process = os.fork()
    if process == 0:
        resource.setrlimit(resource.RLIMIT_AS, (_MEMORY, _MEMORY))
        status, text = 0, ""
        try:
            for text in texts:
                signal.alarm(KILLED_S)
                use(text)
        except BaseException:  # noqa: BLE001 - it is printed, with the line
            print(f"  {text[:120]!r}\n{traceback.format_exc(limit=-2)}", flush=True)
            status = 3
        os._exit(status)
    return os.waitpid(process, 0)[1]


def main() -> None:
    """Use so many lines, and print those that ended or froze a process."""
    count = int(sys.argv[1]) if len(sys.argv) > 1 else 1_000
    seed = int(sys.argv[2]) if len(sys.argv) > 2 else 1
    texts = list(mutations(count, seed))
    # What is compiled here need not be compiled by each batch. Exact forms are found in children.
    warm_up()
    run_exact_work_with(run_forked)
    began, deaths = time.monotonic(), 0
    for first in range(0, count, _BATCH):
        if first % _TELL_EVERY == 0:
            print(f"  {first:,} after {time.monotonic() - began:.0f} s", flush=True)
        batch = texts[first : first + _BATCH]
        if run_batch(batch):
            for text in batch:
                if status := run_batch([text]):
                    deaths += 1
                    print(f"{status:6} {text[:160]!r}", flush=True)
    print(f"{count:,} lines, {deaths} ended their process, {time.monotonic() - began:.0f} s")


if __name__ == "__main__":
    main()
