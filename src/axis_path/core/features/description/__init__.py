"""The plane in words: what can be seen of each line, for those who do not see it."""

from axis_path.core.features.description.description import LineInWords, describe, window_in_words

__all__ = ["LineInWords", "describe", "window_in_words"]
