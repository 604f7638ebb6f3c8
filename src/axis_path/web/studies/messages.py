"""What the `studies` says to the reader."""

from axis_path.core.wording import Text

UNTITLED_STUDY = Text("Untitled study")
FILE_COULD_NOT_OPENED = Text("The file could not be opened. {reason}")
FILE_COULD_NOT_OPENED_NEEDS = Text(
    "The file could not be opened: it needs too much time or memory."
)
STUDY_NEEDS_TITLE = Text("A study needs a title.")
TITLE_CAN_HAVE_UP = Text("A title can have up to {most} characters.")
TITLE_COPY = Text("{title} (copy)")
CREATED_TITLE = Text("Created “{title}”.")
TITLE_WAS_DELETED = Text("“{title}” was deleted.")
TITLE_BACK = Text("“{title}” is back.")
