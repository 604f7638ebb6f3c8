"""What gunicorn loads."""

from threading import Thread

from axis_path.core.warm import warm_up
from axis_path.web import create_app
from axis_path.web.settings import read_settings

app = create_app(read_settings())
# The first picture should not wait until the compiled arithmetic is loaded.
Thread(target=warm_up, daemon=True).start()
