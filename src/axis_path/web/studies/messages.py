"""Messages of the list of studies."""

from axis_path.core.wording import Text

UNTITLED_STUDY = Text("Untitled study")
FILE_COULD_NOT_BE_OPENED = Text("The file could not be opened. {reason}")
FILE_NEEDS_TOO_MUCH = Text("The file could not be opened: it needs too much time or memory.")
STUDY_NEEDS_TITLE = Text("A study needs a title.")
TITLE_TOO_LONG = Text("A title can have up to {most} characters.")
TITLE_COPY = Text("{title} (copy)")
CREATED = Text("Created “{title}”.")
TITLE_WAS_DELETED = Text("“{title}” was deleted.")
TITLE_IS_BACK = Text("“{title}” is back.")
