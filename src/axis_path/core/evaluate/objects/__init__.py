"""Values that are no plain numbers: matrices, parts of lists, points; and what is done with them.

``Interpreter`` walks a tree with values of any arithmetic. ``StepAlgebra`` makes steps of a graph
of them, ``ProvedAlgebra`` proved numbers. Read ``values.py`` first.
"""
