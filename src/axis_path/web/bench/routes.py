"""Addresses of the Bench."""

from flask import Blueprint

from axis_path.web.bench import scene_socket, sweeps, views

blueprint = Blueprint(
    "bench", __name__, template_folder="templates", url_prefix="/studies/<uuid:study_id>"
)
blueprint.add_url_rule("", "show", views.show)
for _name in ("commands", "history", "view", "picture"):
    blueprint.add_url_rule(f"/{_name}", _name, getattr(views, _name), methods=["POST"])
for _name in (
    "scene", "reading", "preview", "window", "findings", "table", "exact", "working", "trail",
    "work_text", "work_cells", "work_sketch", "reduction",
    "equation_set", "what_if", "what_if_curves",
    "data", "description", "read_data", "read_workbook", "exact_cells",
):  # fmt: skip
    blueprint.add_url_rule(f"/{_name}", _name, views.task(_name), methods=["POST"])
for _name, _task in (("table.csv", "table_csv"), ("table.xlsx", "table_workbook"),
                     ("work.csv", "work_csv"), ("what_if.csv", "what_if_csv")):  # fmt: skip
    blueprint.add_url_rule(f"/{_name}", _task, views.file_task(_task), methods=["POST"])
scene_socket.register(blueprint)
blueprint.add_url_rule("/sweeps", "begin_sweep", sweeps.begin, methods=["POST"])
blueprint.add_url_rule("/sweeps/<uuid:sweep_id>", "look_at_sweep", sweeps.look)
blueprint.add_url_rule(
    "/sweeps/<uuid:sweep_id>/cancel", "cancel_sweep", sweeps.cancel, methods=["POST"]
)
