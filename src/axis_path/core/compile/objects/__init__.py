"""Values in which lists and matrices take part as wholes, and their results."""
