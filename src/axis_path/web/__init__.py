"""Pages and JSON: what the browser talks to.

Every feature has a folder with ``routes.py`` (addresses), ``views.py`` (what happens) and its
templates. Views read what came in, ask the core and the store, and answer; they compute nothing.
Read ``app.py`` first.
"""

from axis_path.web.app import create_app
from axis_path.web.settings import Settings

__all__ = ["Settings", "create_app"]
