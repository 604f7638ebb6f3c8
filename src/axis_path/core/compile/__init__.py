"""What the lines of a study mean together, and everything that follows from a document.

``analysis.py`` reads and compiles the lines, ``snapshot.py`` holds what follows from them in one
position of the sliders. Questions are answered by queries: ``snapshot.query(Curves)``.
"""
