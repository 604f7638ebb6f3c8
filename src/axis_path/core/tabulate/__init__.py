"""Tables of values. Read ``values.py``."""

from axis_path.core.tabulate.values import Places, ValueTable, counted, listed, make_table, spaced

__all__ = ["Places", "ValueTable", "counted", "listed", "make_table", "spaced"]
