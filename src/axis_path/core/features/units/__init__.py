"""Units: in which of them values and axes are shown, and which letters are meant as units."""
