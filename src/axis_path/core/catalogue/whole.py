"""Functions of whole numbers, and special functions."""

from axis_path.core.arithmetic import analytic, ball_special, enclosure_special, floats
from axis_path.core.arithmetic.arrays import sums
from axis_path.core.catalogue.entry import Argument, Backends, FunctionEntry, Group, Parity
from axis_path.core.catalogue.lists import of_list

_NUMBER = (Argument("x", "a number"),)
_WHOLE = (Argument("n", "a whole number"),)
_WHOLES = (Argument("m", "a whole number"), Argument("n", "a whole number, and more if wanted"))

WHOLE = (
    FunctionEntry(
        name="factorial",
        group=Group.WHOLE,
        arguments=_WHOLE,
        meaning="1 · 2 · 3 ⋯ n; also written n!",
        defined="for whole n ≥ 0",
        returns="a whole number",
        example="factorial(5)",
        backends=Backends(
            floats.factorial, enclosure_special.factorial, ball_special.factorial, "factorial"
        ),
        rough=None,
    ),
    FunctionEntry(
        name="binomial",
        group=Group.WHOLE,
        arguments=(Argument("n", "how many there are"), Argument("k", "how many are taken")),
        meaning="in how many ways k of n things can be taken",
        defined="for whole n ≥ 0 and whole k",
        returns="a whole number",
        example="binomial(5, 2)",
        backends=Backends(
            floats.binomial, enclosure_special.binomial, ball_special.binomial, "binomial"
        ),
        rough=None,
    ),
    FunctionEntry(
        name="gcd",
        group=Group.WHOLE,
        arguments=_WHOLES,
        meaning="the greatest common divisor",
        defined="for whole numbers",
        returns="a whole number ≥ 0",
        example="gcd(12, 18)",
        backends=Backends(
            floats.common_divisor,
            enclosure_special.common_divisor,
            ball_special.common_divisor,
            "gcd",
        ),
        repeats=True,
        arrays=of_list("gcd", lambda a: sums.fold(a, ball_special.common_divisor)),
        rough=None,
    ),
    FunctionEntry(
        name="lcm",
        group=Group.WHOLE,
        arguments=_WHOLES,
        meaning="the least common multiple",
        defined="for whole numbers",
        returns="a whole number ≥ 0",
        example="lcm(4, 6)",
        backends=Backends(
            floats.common_multiple,
            enclosure_special.common_multiple,
            ball_special.common_multiple,
            "lcm",
        ),
        repeats=True,
        arrays=of_list("lcm", lambda a: sums.fold(a, ball_special.common_multiple)),
        rough=None,
    ),
)

SPECIAL = (
    FunctionEntry(
        name="gamma",
        group=Group.SPECIAL,
        arguments=_NUMBER,
        meaning="the gamma function, which continues the factorial: gamma(n + 1) = n!",
        defined="except at 0, −1, −2, …",
        returns="any number but 0",
        example="gamma(x + 1)",
        backends=Backends(
            floats.gamma, enclosure_special.gamma, ball_special.gamma, "gamma", analytic.gamma
        ),
        derivative=("gamma(u) digamma(u)",),
        rough=("sin(pi u)",),
        has_gaps=True,
    ),
    FunctionEntry(
        name="digamma",
        group=Group.SPECIAL,
        arguments=_NUMBER,
        meaning="the slope of ln gamma",
        defined="except at 0, −1, −2, …",
        returns="any number",
        example="digamma(x)",
        backends=Backends(
            floats.digamma,
            enclosure_special.digamma,
            ball_special.digamma,
            "digamma",
            analytic.digamma,
        ),
        rough=("sin(pi u)",),
        has_gaps=True,
    ),
    FunctionEntry(
        name="erf",
        group=Group.SPECIAL,
        arguments=_NUMBER,
        meaning="the error function: how much of a bell curve lies between −x and x",
        defined="for every number",
        returns="a number between −1 and 1",
        example="erf(x/sqrt(2))",
        backends=Backends(
            floats.error_function,
            enclosure_special.error_function,
            ball_special.error_function,
            "erf",
            analytic.error_function,
        ),
        derivative=("2/sqrt(pi) exp(-u^2)",),
        parity=Parity.ODD,
    ),
)
