"""Addresses of the list of studies."""

from flask import Blueprint

from axis_path.web.studies import views

blueprint = Blueprint("studies", __name__, template_folder="templates")
blueprint.add_url_rule("/studies", "index", views.index)
blueprint.add_url_rule("/studies", "create", views.create, methods=["POST"])
blueprint.add_url_rule("/studies/open", "open_file", views.open_file, methods=["POST"])
blueprint.add_url_rule("/studies/<uuid:study_id>/rename", "rename", views.rename, methods=["POST"])
blueprint.add_url_rule(
    "/studies/<uuid:study_id>/duplicate", "duplicate", views.duplicate, methods=["POST"]
)
blueprint.add_url_rule("/studies/<uuid:study_id>/delete", "delete", views.delete, methods=["POST"])
blueprint.add_url_rule(
    "/studies/<uuid:study_id>/restore", "restore", views.restore, methods=["POST"]
)
