"""Row reduction: a matrix or a linear system reduced step by step."""
