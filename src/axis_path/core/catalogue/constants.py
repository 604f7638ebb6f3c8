"""The constants, and what the Reference says of sums, products and integrals."""

import math

from axis_path.core.arithmetic import ball
from axis_path.core.catalogue.entry import Argument, ConstantEntry, Group, SummaryEntry

#: One degree in radians. It has no typed name: it comes from ``°`` and from studies in degrees.
DEGREE = "°"

CONSTANTS: dict[str, ConstantEntry] = {
    entry.name: entry
    for entry in (
        ConstantEntry(
            name="pi",
            spellings=("π",),
            meaning="half a turn in radians, 3.14159…",
            example="2pi",
            low=math.pi,
            high=math.nextafter(math.pi, 4),
            proving=ball.pi,
            exact="pi",
        ),
        ConstantEntry(
            name="e",
            meaning="the base of the natural logarithm, 2.71828…",
            example="e^x",
            low=math.e,
            high=math.nextafter(math.e, 4),
            proving=ball.euler,
            exact="E",
        ),
        ConstantEntry(
            name=DEGREE,
            meaning="one degree in radians",
            example="sin(30°)",
            low=math.nextafter(math.pi / 180, 0),
            high=math.nextafter(math.pi / 180, 1),
            proving=ball.degree,
        ),
    )
}

_RANGE = (
    Argument("k", "its own variable"),
    Argument("from", "the first value, a whole number"),
    Argument("to", "the last value, a whole number"),
)

#: Sums, products and integrals; they bring a variable of their own.
SUMMARY_ENTRIES = (
    SummaryEntry(
        name="sum",
        arguments=(Argument("term", "an expression with k"), *_RANGE),
        meaning="the sum of a term over whole numbers",
        defined="for whole ends; 0 if the last is before the first",
        returns="a number",
        example="sum(k^2, k, 1, 10)",
    ),
    SummaryEntry(
        name="product",
        arguments=(Argument("factor", "an expression with k"), *_RANGE),
        meaning="the product of a factor over whole numbers",
        defined="for whole ends; 1 if the last is before the first",
        returns="a number",
        example="product(k, k, 1, 5)",
    ),
    SummaryEntry(
        name="integral",
        arguments=(
            Argument("f", "a function, or an expression with x"),
            Argument("x", "its variable, not needed for a function"),
            Argument("from", "where it begins"),
            Argument("to", "where it ends"),
        ),
        meaning="the integral of a function over an interval",
        defined="where the area converges; beside a pole and without end too",
        returns="a number",
        example="integral(x^2, x, 0, 2)",
    ),
    SummaryEntry(
        name="list",
        arguments=(Argument("term", "an expression with k"), *_RANGE),
        meaning="the list of what a term gives for whole numbers",
        defined="for whole ends",
        returns="a list; of lists a matrix",
        example="list(k^2, k, 1, 10)",
        group=Group.LISTS,
    ),
    SummaryEntry(
        name="matrix",
        arguments=(
            Argument("term", "an expression with i and j"),
            Argument("i", "the variable of the rows"),
            Argument("from", "the first row, a whole number"),
            Argument("to", "the last row"),
            Argument("j", "the variable of the columns"),
            Argument("from", "the first column, a whole number"),
            Argument("to", "the last column"),
        ),
        meaning="the matrix of what a term gives for rows i and columns j",
        defined="for whole ends",
        returns="a matrix",
        example="matrix(1/(i + j), i, 1, 2, j, 1, 3)",
        group=Group.MATRICES,
    ),
)
