"""Addresses of what a reader chooses."""

from flask import Blueprint

from axis_path.web.reader import views

blueprint = Blueprint("reader", __name__)
blueprint.add_url_rule("/reader", "choose", views.choose, methods=["POST"])
