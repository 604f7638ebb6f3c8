"""Messages about numbers, lists and matrices."""

from axis_path.core.wording import Text

LIST_COUNT = Text("a list of {count:,}")
LIST_COUNT_ELEMENTS_TOO = Text("A list of {count:,} elements is too long. The limit is {most:,}.")
WHAT_TOO_LARGE_LIMIT = Text("{what} is too large. The limit is {most:,} by {most_columns:,}.")
WHAT_ARRAY_WOULD_TAKE = Text(
    "{what} of {array} would take too long. The limit is {most:,} by {most_columns:,}. You can "
    "take a part with `A[1 to 9, 1 to 9]`."
)
LIST_NEEDS_AT_LEAST = Text("A list needs at least one entry.")
MATRIX_NEEDS_AT_LEAST = Text("A matrix needs at least one entry.")
ROWS_MATRIX_MUST_HAVE = Text(
    "The rows of a matrix must have equal lengths. Row 1 has {first}, and row {number} has {other}."
)
LISTS_COMPUTED_TOGETHER_MUST = Text(
    "Lists that are computed together must have the same length. These have {first:,} and "
    "{last:,} elements."
)
WHAT_NEEDS_SQUARE_MATRIX = Text("{what} needs a square matrix, but this is {array}.")
WHAT_NEEDS_MATRIX_BUT = Text("{what} needs a matrix, but this is {array}.")
WHAT_NEEDS_LIST_BUT = Text("{what} needs a list, but this is {array}.")
WHAT_NEEDS_TWO_EQUAL = Text("{what} needs two equal shapes, but these are {first} and {second}.")
FIRST_TIMES_SECOND_LIST = Text(
    "{first} times {second}: a list is a column here. To put it before a matrix, transpose it, "
    "as in `v^T A`."
)
POWER_MATRIX_GOES_UP = Text("The power of a matrix goes up to {most:,}.")
JOIN_THEM_SIDE_BY = Text(
    "To join them side by side, both need the same number of rows. These are {first} and {second}."
)
JOIN_THEM_ONE_ABOVE = Text(
    "To join them one above the other, both need the same number of columns. These are {first} "
    "and {second}."
)
DETERMINANT = Text("The determinant")
INVERSE = Text("The inverse")
TRACE = Text("The trace")
CROSS_PRODUCT_NEEDS_TWO = Text(
    "The cross product needs two lists of 3, but these are {first} and {second}."
)
DOT_PRODUCT_NEEDS_TWO = Text(
    "The dot product needs two lists of the same length, but these are {first} and {second}."
)
SYSTEM_EQUATIONS = Text("A system of equations")
FIRST_SECOND_DO_NOT = Text(
    "{first} and {second} do not make a system: both need the same number of rows."
)
SYSTEM_HAS_NO_SOLUTION = Text("The system has no solution: its equations contradict each other.")
EIGENVALUES_HAVE_NO_CLOSED = Text("The eigenvalues have no closed form here.")
EIGENVALUES = Text("The eigenvalues")
ROOT_HIGHER_DEGREE_HAS = Text("A root of a higher degree has no closed form here.")
REDUCED_FORM = Text("The reduced form")
RANK = Text("The rank")
NULL_SPACE = Text("The null space")
MATRIX_HAS_NO_INVERSE = Text("The matrix has no inverse: {reason}.")
SOLUTION = Text("The solution")
MATRIX_TOO_LARGE_REDUCED = Text("This matrix is too large to be reduced with its expressions.")
MATRIX_HAS_NO_INVERSE_DETERMINANT = Text("The matrix has no inverse: the determinant is 0.")
ENTRY_PLACE_ARRAY_HAS = Text("The entry {place} of {array} has no value: {reason}.")
MORE_THAN_MOST_ENTRIES = Text("With more than {most:,} entries no number may be above 10^308.")
ENTRY_RESULT_TOO_LARGE = Text("An entry of the result is too large.")
SYSTEM_SO_MANY_ENTRIES = Text("A system with so many entries")
DOT_PRODUCT = Text("The dot product")
CORRELATION = Text("The correlation")
WHAT_NEEDS_TWO_LISTS = Text(
    "{what} needs two lists of the same length, but these are {first} and {second}."
)
PRODUCT_ENTRY_BY_ENTRY = Text(
    "The product entry by entry needs two equal shapes, but these are {first} and {second}."
)
MINIMUM = Text("The minimum")
MAXIMUM = Text("The maximum")
DIGITS_COULD_NOT_DECIDED = Text(
    "With 16 digits it could not be decided how many rows of {array} are independent."
)
DIGITS_EIGENVALUES_ARRAY_COULD = Text(
    "With 16 digits the eigenvalues of {array} could not be told apart."
)
WHAT_NEEDS_REAL_NUMBERS = Text("{what} needs real numbers: complex numbers have no order.")
QUANTILE = Text("The quantile")
PART_QUANTILE_MUST_BETWEEN = Text("The part of a quantile must be between 0 and 1.")
MEDIAN = Text("The median")
FROM_FIRST_LAST_THERE = Text("From {first} to {last} there is nothing.")
TWO_INDICES = Text("two indices, as in `A[2, 3]`")
ONE_INDEX = Text("one index, as in `L[3]`")
ARRAY_HAS_SHOWN = Text("{array} has {shown}.")
ONE_NUMBER = Text("one number")
HERE_WANTED_REPLACED_BUT = Text("Here {wanted} is replaced, but the new part is {given}.")
VARIANCE = Text("The variance")
VARIANCE_SAMPLE_NEEDS_AT = Text("The variance of a sample needs at least two entries.")
CORRELATION_NEEDS_TWO_LISTS = Text(
    "The correlation needs two lists of the same length, but these are {first} and {second}."
)
RUNNING_SUM = Text("The running sum")
DIFFERENCES = Text("The differences")
DIFFERENCES_NEED_AT_LEAST = Text("Differences need at least two entries.")
DIVISION_BY_ZERO = Text("a division by zero")
SQRT_NEGATIVE_NUMBER = Text("sqrt of a negative number")
EVEN_ROOT_NEGATIVE_NUMBER = Text("an even root of a negative number")
POWER_NEGATIVE_NUMBER = Text("a power of a negative number")
UNKNOWN_POWER = Text("0 to an unknown power")
TAN_AT_ODD_MULTIPLE = Text("tan at an odd multiple of 90°")
NAME_NUMBER_OUTSIDE = Text("{name} of a number outside −1 to 1")
ACOSH_NUMBER_BELOW = Text("acosh of a number below 1")
ATANH_NUMBER_OUTSIDE = Text("atanh of a number outside −1 to 1")
ANGLE = Text("the angle of (0, 0)")
GAMMA_WHOLE_NUMBER_NOT = Text("gamma of a whole number that is not positive")
DIGAMMA_WHOLE_NUMBER_NOT = Text("digamma of a whole number that is not positive")
NAME_NUMBER_NOT_WHOLE = Text("{name} of a number that is not whole")
FACTORIAL_NEGATIVE_NUMBER = Text("factorial of a negative number")
BINOMIAL_NEGATIVE_NUMBER = Text("binomial of a negative number")
ENTRY_TOO_LARGE_FLOAT = Text("an entry is too large for a float")
ONLY_FRACTIONS_HAVE_EXACT = Text("only fractions have an exact sum")
NUMBER_THINGS_NEGATIVE = Text("the number of things is negative")
UNDECIDED = Text("it could not be decided")
INVERSE_UNDECIDED = Text(
    "With 16 digits it could not be decided whether {array} has an inverse: its determinant is "
    "0, or nearly 0."
)
MATRIX_SHAPE = Text("a {rows:,} by {columns:,} matrix")
MATRIX_SHAPE_AN = Text("an {rows:,} by {columns:,} matrix")
ENTRIES = Text("{count:,} entry", "{count:,} entries")
COLUMNS_AND_ROWS_DIFFER = Text(
    "{first} times {second}: the first needs as many columns as the second has rows."
)
COLUMNS_AND_ENTRIES_DIFFER = Text(
    "{first} times {second}: the first needs as many columns as the second has entries."
)
FREE_UNKNOWNS = Text(
    "The system has more than one solution: {count} unknown is free. `rref` shows them all.",
    "The system has more than one solution: {count} unknowns are free. `rref` shows them all.",
)
ROW_OF_ZEROS = Text("row {number} has only zeros, so the determinant is 0")
COLUMN_OF_ZEROS = Text("column {number} has only zeros, so the determinant is 0")
EQUAL_ROWS = Text("row {number} is equal to row {before}, so the determinant is 0")
EQUAL_COLUMNS = Text("column {number} is equal to column {before}, so the determinant is 0")
MULTIPLE_ROWS = Text("row {number} is {factor} times row {before}, so the determinant is 0")
MULTIPLE_COLUMNS = Text(
    "column {number} is {factor} times column {before}, so the determinant is 0"
)
DETERMINANT_IS_0 = Text("the determinant is 0")
NO_SUCH_ROW = Text("There is no row {number:,}: the rows are numbered 1 to {count:,}.")
NO_SUCH_COLUMN = Text("There is no column {number:,}: the columns are numbered 1 to {count:,}.")
NO_SUCH_ENTRY = Text("There is no entry {number:,}: the entries are numbered 1 to {count:,}.")
ONLY_ONE_ROW = Text("There is no row {number:,}: there is only one.")
ONLY_ONE_COLUMN = Text("There is no column {number:,}: there is only one.")
ONLY_ONE_ENTRY = Text("There is no entry {number:,}: there is only one.")
LN_OF_0 = Text("ln of 0")
LN_OF_A_NEGATIVE_NUMBER = Text("ln of a negative number")
LN_OF_NOT_POSITIVE = Text("ln of a number that is not positive")
LOG_OF_0 = Text("log of 0")
LOG_OF_A_NEGATIVE_NUMBER = Text("log of a negative number")
LOG_OF_NOT_POSITIVE = Text("log of a number that is not positive")
