"""The processes of a running site: ``python -m axis_path.serving --listen-fd N``.

``site.py`` loads everything once and forks the others from itself: the web server (``web.py``), the
worker of the queue, and the workers that compute. What ends is started again at once.
"""
