"""Equations, inequalities and level curves in x and y."""
