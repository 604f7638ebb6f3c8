"""Messages about pictures and files."""

from axis_path.core.wording import Text

PICTURE_WOULD_TOO_LARGE = Text("This picture would be too large. Choose a smaller size.")
PDF_DAMAGED = Text("the PDF is damaged")
NO_STUDY = Text("no study")
FILE_TOO_LARGE_STUDY = Text("This file is too large to be a study or a picture of one.")
THERE_NO_STUDY_FILE = Text("There is no study in this file.")
ELEMENTS_NESTED_TOO_DEEP = Text("the elements are nested too deep")
