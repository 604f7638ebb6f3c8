"""Messages of the web."""

from axis_path.core.wording import Text

REQUEST_UNREADABLE = Text("The request could not be read.")
NOTHING_AT_THIS_ADDRESS = Text("There is nothing at this address.")
ADDRESS_DOES_NOT_ACCEPT = Text("This address does not accept that kind of request.")
TOO_MUCH_AT_ONCE = Text("This is too much to send at once.")
DATABASE_DOES_NOT_ANSWER = Text(
    "The database does not answer. Your work is safe. Axis Path goes on as soon as it answers."
)
DISK_IS_FULL = Text(
    "The disk of the server is full, so nothing can be saved. Free some space and try again."
)
AXIS_PATH_NOT_AVAILABLE = Text("Axis Path is not available at this address.")
SOMETHING_WENT_WRONG = Text("Something went wrong.")
OUR_FAULT_RECORDED = Text("Something went wrong on our side. It is recorded as {number}.")
STUDY_DOES_NOT_EXIST = Text("This study does not exist. It may have been deleted.")
STUDY_CHANGED_ELSEWHERE = Text(
    "This study was changed in another window. Reload to see the changes."
)
LINE_TURNED_OFF = Text("A line could not be computed, so it was turned off. The page reloads.")
PAGE_HAS_EXPIRED = Text("This page has expired. Reload it to continue.")
