"""Addresses of the Bench."""

from flask import Blueprint

from axis_path.web.bench import views

blueprint = Blueprint(
    "bench", __name__, template_folder="templates", url_prefix="/studies/<uuid:study_id>"
)
blueprint.add_url_rule("", "show", views.show)
for _name in (
    "commands",
    "scene",
    "reading",
    "history",
    "view",
    "preview",
    "window",
    "findings",
    "table",
    "exact",
    "working",
):
    blueprint.add_url_rule(f"/{_name}", _name, getattr(views, _name), methods=["POST"])
