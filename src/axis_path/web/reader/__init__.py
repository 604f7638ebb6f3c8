"""The reader of a page: the language and the decimal sign that were chosen."""
