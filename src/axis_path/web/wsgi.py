"""What gunicorn loads."""

from axis_path.web import create_app
from axis_path.web.settings import read_settings

app = create_app(read_settings())
