"""Lists and matrices: what they are, and what is done with them in any arithmetic.

Read ``array.py`` first. ``combine``, ``parts`` and ``sums`` need only a field: they serve the steps
of a graph and proved numbers alike. ``elimination``, ``ordering`` and ``eigenvalues`` look at the
numbers themselves.
"""
