"""Addresses of the Bench."""

from flask import Blueprint

from axis_path.web.bench import sweeps, views, wire
from axis_path.web.bench.pictures import picture
from axis_path.web.patience import with_patience

blueprint = Blueprint(
    "bench", __name__, template_folder="templates", url_prefix="/studies/<uuid:study_id>"
)
blueprint.add_url_rule("", "show", views.show)
#: What keeps something is carried out to its end, even if nobody waits for it any more.
for _name in ("commands", "history", "view"):
    blueprint.add_url_rule(f"/{_name}", _name, getattr(views, _name), methods=["POST"])
for _name in (
    "scene", "reading", "preview", "window", "findings", "table", "exact", "working", "trail",
    "data", "read_data", "exact_cells",
):  # fmt: skip
    _view = with_patience(getattr(views, _name))
    blueprint.add_url_rule(f"/{_name}", _name, _view, methods=["POST"])
wire.register(blueprint)
#: A long file is sent as it is made, for as long as that takes.
blueprint.add_url_rule("/table.csv", "table_file", views.table_file, methods=["POST"])
blueprint.add_url_rule("/table.xlsx", "table_workbook", views.table_workbook, methods=["POST"])
blueprint.add_url_rule("/picture", "picture", with_patience(picture), methods=["POST"])
blueprint.add_url_rule("/sweeps", "begin_sweep", sweeps.begin, methods=["POST"])
blueprint.add_url_rule("/sweeps/<uuid:sweep_id>", "look_at_sweep", sweeps.look)
blueprint.add_url_rule(
    "/sweeps/<uuid:sweep_id>/cancel", "cancel_sweep", sweeps.cancel, methods=["POST"]
)
