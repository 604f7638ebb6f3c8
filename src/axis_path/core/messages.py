"""Messages of all parts of the core."""

from axis_path.core.wording import Text

USE_SUGGESTION = Text("Use {suggestion}")
NO_VALUE_OR_SMALL_LETTER = Text("`{name}` has no value. Add a slider, or did you mean `{small}`?")
NO_VALUE = Text("`{name}` has no value. Add a slider?")
STOPPED = Text("This was stopped.")
TAKES_TOO_LONG = Text(
    "This takes longer than {seconds:g} s, so it was stopped. Use fewer terms, a narrower "
    "domain or simpler numbers."
)
