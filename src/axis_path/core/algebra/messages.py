"""Messages about row operations."""

from axis_path.core.wording import Text

OR = Text("`R1 <-> R2`, `R2 <- 1/3 R2` or `R2 <- R2 - 4 R1`")
THERE_NO_ROW_ROW = Text("There is no row {row}. The rows are numbered 1 to {count}.")
SWAP_ROW_ANOTHER_ROW = Text("Swap the row with another row.")
MULTIPLYING_ROW_BY_WOULD = Text("Multiplying a row by 0 would delete it.")
ADD_MULTIPLE_ANOTHER_ROW = Text("Add a multiple of another row, not of the row itself.")
OPERATION_ADDS_MULTIPLE_ONE = Text(
    "An operation adds a multiple of one other row to the row itself, as in `R2 <- R2 - 4 R1`."
)
WRITE_ROW_OPERATION_EXAMPLES = Text("Write a row operation as {examples}.")
