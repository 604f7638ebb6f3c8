"""Every limit of the core, with its unit and what it is for, in one table."""

from dataclasses import dataclass


@dataclass(frozen=True, slots=True)
class Limit:
    """One bound on the size of the work.

    Attributes:
        value: the greatest allowed size.
        unit: what is counted.
        meaning: one sentence for the documentation.
    """

    value: int
    unit: str
    meaning: str


LINE_LENGTH = Limit(2_000, "characters", "The length of one line.")
NESTING = Limit(100, "levels", "Brackets within brackets.")
TREE_DEPTH = Limit(150, "levels", "Operations within operations, after reading.")
NESTED_DEFINITIONS = Limit(
    220, "levels", "Operations within operations, with those of the definitions they use."
)
DERIVATIVE_ORDER = Limit(8, "times", "How often a function may be derived in one step.")
LIST_LENGTH = Limit(1_000_000, "elements", "The elements of one list.")
MATRIX_SIDE = Limit(1_000, "rows", "The rows of one matrix, and its columns.")
EXACT_SIDE = Limit(60, "rows", "The rows of a matrix in exact work, and its columns.")
NUMERIC_SIDE = Limit(
    200, "rows", "The rows of a matrix that is inverted or solved with balls, and its columns."
)
BALL_ENTRIES = Limit(
    40_000,
    "entries",
    "The entries of a list or a matrix that is computed with any number of digits; larger ones are "
    "computed in floats with proved error bounds.",
)
EIGEN_SIDE = Limit(
    60, "rows", "The rows of a matrix whose eigenvalues are computed with any number of digits."
)
MATRIX_POWER = Limit(10_000, "times", "How often a matrix is multiplied by itself in a power.")
PRIME_DIGITS = Limit(1_000, "digits", "The digits of a number that is tested for being prime.")
FACTORED_DIGITS = Limit(40, "digits", "The digits of a number whose divisors are listed.")
DIVISORS = Limit(10_000, "divisors", "The divisors of one number that are listed.")
REDUCED_SIDE = Limit(12, "rows", "The rows and columns of a matrix whose reduction is shown.")
SUM_TERMS = Limit(100_000, "terms", "The terms of one sum or product.")
INTEGER_DIGITS = Limit(100_000, "digits", "The figures of one whole number.")
CALCULATION_TIME = Limit(2_000, "ms", "The time for one value, curve, search or table.")
ALL_TIME = Limit(6_000, "ms", "The time for all that is shown at once, together.")
FOLLOWING_TIME = Limit(
    18, "ms", "The time for a picture and the findings that follow a pointer with it; others wait."
)
PREFETCH_TIME = Limit(
    30, "ms", "The time until the last is begun of the states that a pointer will probably reach."
)
GRACE_TIME = Limit(
    4_000, "ms", "How much later a process is ended that has not stopped at its time."
)
FILE_TIME = Limit(60_000, "ms", "The time for a file: a table, a picture.")
COMMAND_TIME = Limit(10_000, "ms", "The time for a change and what is shown after it, together.")
WORKER_MEMORY = Limit(1_536, "MB", "The memory that one process may take for its calculations.")
WORKER_GROWTH = Limit(160, "MB", "A process that has grown by more is replaced by a new one.")
EXACT_TIME = Limit(2_000, "ms", "The time for finding an exact form.")
EXACT_MEMORY = Limit(1_024, "MB", "The memory for finding an exact form.")
LINES = Limit(500, "lines", "The lines of one study.")
STEPS = Limit(20_000, "steps", "The steps of one compiled expression, with all it uses.")
DIGITS = Limit(1_000, "digits", "The digits of one decimal.")
NUMBER_EXPONENT = Limit(10_000, "digits", "The size of a typed power of ten.")
TABLE_ROWS = Limit(1_000_000, "rows", "The rows of one table of values.")
CURVE_POINTS = Limit(60_000, "points", "The points that one drawn curve may take.")
LOCATE_CELLS = Limit(6_000, "cells", "The intervals that one search may look at.")
MARK_CELLS = Limit(40, "cells", "The same for each interval that is searched for marks.")
LARGEST_MARKS = Limit(60, "intervals", "The intervals with zeros that are marked on one lane.")
CHECK_POINTS = Limit(2_000, "points", "The points of one sampling check.")
TRAIL_POINTS = Limit(2_000, "positions", "The positions that one trail keeps.")
FAMILY_CURVES = Limit(24, "curves", "The curves of one family.")
SWEEP_VALUES = Limit(1_001, "values", "The values of a slider in one sweep.")
MOST_FINDINGS = Limit(2_000, "findings", "The findings of one search.")
PLANE_BOXES = Limit(400_000, "boxes", "The boxes that one search in the plane may look at.")
WHAT_IF_ROWS = Limit(500, "rows", "The rows of one what-if table.")
WHAT_IF_COLUMNS = Limit(12, "columns", "The columns of one what-if table.")
SET_EQUATIONS = Limit(60, "equations", "The equations of one set.")
SET_BOXES = Limit(400_000, "boxes", "The boxes that the search of a set of equations looks at.")
SINGULAR_POINTS = Limit(
    400, "points", "The breaks and kinks of one function that one search looks at."
)
FITS = Limit(40, "fits", "The fits, and the pairs of columns drawn, of one study.")
LISTED_ROWS = Limit(100_000, "rows", "The values of x that a list gives to a table.")
SUMMED_ROWS = Limit(20_000, "rows", "The rows of a table whose running sum is made.")
EXACT_CELLS = Limit(1_000, "cells", "The cells of a table that are saved with exact forms.")
SHEET_ROWS = Limit(1_048_576, "rows", "The rows of a sheet in a workbook.")
TABLE_COLUMNS = Limit(40, "columns", "The columns that are added to a table of values.")
STUDY_DIGITS = Limit(20, "digits", "The digits with which a study shows its findings.")
TABLE_DIGITS = Limit(15, "digits", "The digits of the numbers in a table of values.")
COLUMNS = Limit(60, "columns", "The columns of data of one study.")
COLUMN_CELLS = Limit(100_000, "cells", "The cells of one column of data.")
CALCULATED_ROWS = Limit(20_000, "rows", "The rows of columns that are calculated or filtered.")
FIT_DEGREE = Limit(20, "powers", "The degree of a polynomial that is fitted.")
FINDING_LABELS = Limit(200, "labels", "The labels that one finding has on the plane.")
FINDINGS = Limit(100, "entries", "The entries of the Findings panel of one study.")

#: A count beyond this is no longer written out.
_LARGEST_WRITTEN = 10**15


def written_count(count: int) -> str:
    """Write how many there would be, for the sentence of a limit."""
    return f"{count:,}" if count <= _LARGEST_WRITTEN else f"more than {_LARGEST_WRITTEN:,}"


ALL: dict[str, Limit] = {
    name: value for name, value in globals().items() if isinstance(value, Limit)
}
