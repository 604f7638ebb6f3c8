"""Numbers that know how far they are sure.

Two kinds: ``Enclosure``, intervals over whole NumPy arrays, for pictures; ``Ball``, one number or
interval at any precision, for proofs and for digits. Nothing here knows of names, trees or text.
Read ``enclosure.py`` first.
"""

from axis_path.core.arithmetic.ball import Ball, Defined
from axis_path.core.arithmetic.enclosure import Enclosure
from axis_path.core.arithmetic.precision import precision

__all__ = ["Ball", "Defined", "Enclosure", "precision"]
