"""Messages of the store."""

from axis_path.core.wording import Text

TOO_MANY_STUDIES = Text("There are {most:,} studies, which is the limit. Delete some first.")
