"""Exact algebra: polynomials, quotients, surds, and forms whose zeros are known."""
