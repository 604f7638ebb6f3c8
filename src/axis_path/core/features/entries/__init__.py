"""Entries of lists and matrices that are written out in a line: read and changed cell by cell."""
