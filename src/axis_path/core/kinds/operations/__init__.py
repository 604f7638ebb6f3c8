"""Functions of lists and matrices, such as ``h(M) = M^T M``."""
