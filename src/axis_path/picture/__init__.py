"""A scene as a picture: SVG, PNG and PDF, each carrying the study that it was made from.

``svg.py`` draws, ``formats.py`` turns the drawing into files and finds the study in them again. It
uses the core's scene as plain data and knows nothing of pages or of the database.
"""

from axis_path.picture.formats import Format, PictureError, make_picture, study_in
from axis_path.picture.svg import Look, draw_svg

__all__ = ["Format", "Look", "PictureError", "draw_svg", "make_picture", "study_in"]
