"""From the text of a line to its tokens, with the names of the study known."""
