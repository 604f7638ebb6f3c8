"""The kinds of lines: how each is realised, drawn and listed in its row."""
