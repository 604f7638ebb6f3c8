"""Functions of one variable: their drawing, lane, marks and reasons."""
