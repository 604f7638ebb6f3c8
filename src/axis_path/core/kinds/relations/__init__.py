"""Equations and inequalities in x and y."""
