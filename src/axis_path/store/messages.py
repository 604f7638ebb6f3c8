"""What the `store` says to the reader."""

from axis_path.core.wording import Text

THERE_MOST_STUDIES_WHICH = Text(
    "There are {most:,} studies, which is the limit. Delete some first."
)
