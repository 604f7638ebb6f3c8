"""What ``./axispath`` does: set-up, start, test. Only Python's own library is used here.

``packages`` installs from Debian, ``environment`` makes the virtual environment, ``cluster`` runs
PostgreSQL, ``server`` runs the application, ``checks`` runs the tests.
"""
