"""Integrals and lengths over parts, slivers and intervals without end."""
