"""What the `core` says to the reader."""

from axis_path.core.wording import Text

USE_SUGGESTION = Text("Use {suggestion}")
NAME_HAS_NO_VALUE = Text("`{name}` has no value. Add a slider, or did you mean `{small}`?")
NAME_HAS_NO_VALUE_ADD = Text("`{name}` has no value. Add a slider?")
WAS_STOPPED = Text("This was stopped.")
TAKES_LONGER_THAN_SECONDS = Text(
    "This takes longer than {seconds:g} s, so it was stopped. Use fewer terms, a narrower "
    "domain or simpler numbers."
)
