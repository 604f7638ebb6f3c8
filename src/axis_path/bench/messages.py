"""Messages of the Bench."""

from axis_path.core.wording import Text

OUT_OF_MEMORY = Text("This needs more memory than there is. Use fewer points or simpler numbers.")
OUR_FAULT_RECORDED = Text("Something went wrong on our side. It is recorded as {number}.")
REQUEST_COULD_NOT_READ = Text("The request could not be read.")
LINE_NOT_SET_EQUATIONS = Text("This line is not a set of equations.")
THERE_NO_SUCH_COMMAND = Text("There is no such command to name the change after.")
READING_LINE_NOT_SET = Text("The reading line is not set.")
LINE_HAS_NO_TRAIL = Text("This line has no trail.")
EXACT_FORMS_WRITTEN_UP = Text(
    "Exact forms are written for up to {most:,} cells, but this table has {count:,}."
)
SHEET_HAS_MOST_ROWS = Text("A sheet has {most:,} rows. Save this table as CSV.")
ROWS_ARE_MISSING = Text("The rows to show are missing.")
BOUNDS_ARE_MISSING = Text("The bounds of the window are missing.")
ENTER_NUMBER_READING_LINE = Text("Enter a number for the reading line.")
TEXT_HAS_NO_VALUE = Text("`{text}` has no value: {reason}.")
ENTER_NUMBER_EACH_BOUND = Text("Enter a number for each bound of the window.")
NOT_WORKBOOK_XLSX_CAN = Text(
    "This is not a workbook (XLSX) that can be read. Save it again, or paste the cells."
)
THERE_NO_SHEET_NAME = Text("There is no sheet `{name}`.")
HAS_NO_SHEET_CELLS = Text("It has no sheet with cells.")
WORKBOOK_TOO_LARGE_READ = Text(
    "This workbook is too large to read. Paste the columns that you need."
)
WORKING_SHOWS_MOST_DIGITS = Text("Working shows 1 to {most:,} digits.")
LINE_WORKING_HAS_BEEN = Text("This line of Working has been removed.")
REDUCED_FORM = Text("This is the reduced form.")
AS_CLOSE_AS_BEFORE = Text("You are as close as before.")
FARTHER_AWAY = Text("You are farther away.")
ALL_ROWS = Text("All rows are 0.")
THERE_EXACTLY_ONE_SOLUTION = Text("There is exactly one solution.")
THERE_NO_SOLUTION_ROW = Text("There is no solution: row {row} says that 0 is another number.")
THERE_INFINITELY_MANY_SOLUTIONS = Text(
    "There are infinitely many solutions: {names} can be any number."
)
NO_SINGLE_NUMBER = Text("it is not a single number")
NEARER = Text("You are nearer.")
