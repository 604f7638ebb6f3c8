"""Addresses of the Reference."""

from flask import Blueprint

from axis_path.web.reference import views

blueprint = Blueprint("reference", __name__, url_prefix="/reference")
blueprint.add_url_rule("", "show", views.show)
