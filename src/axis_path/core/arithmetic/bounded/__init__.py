"""Many real numbers at once, as floats with proved error bounds.

Large lists and matrices are computed so: each entry has a float, its middle, and a radius that
bounds how far the exact number is from it. ``entries.py`` holds them, ``entrywise.py`` computes
entry by entry, ``totals.py`` sums and sorts, ``linear.py`` multiplies, inverts and solves.

Source: Rump, *Verification methods*, Acta Numerica 19 (2010), 287-449; Higham, *Accuracy and
Stability of Numerical Algorithms*, chapters 2 and 3.
"""
