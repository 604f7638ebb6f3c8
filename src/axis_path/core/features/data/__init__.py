"""Columns of data, filters, points and fits."""
