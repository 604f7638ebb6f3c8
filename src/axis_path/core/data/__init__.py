"""Columns of data, what they look like, and curves fitted to them."""

from axis_path.core.data.column import Column, number_of_cell
from axis_path.core.data.fit import Fit, Prediction
from axis_path.core.data.linear_fit import fit_linear
from axis_path.core.data.models import MODELS, Model, ModelName
from axis_path.core.data.nonlinear_fit import fit_nonlinear
from axis_path.core.data.reading import BadCell, ReadColumns, read_columns
from axis_path.core.data.summary import Summary, summarise

__all__ = [
    "MODELS",
    "BadCell",
    "Column",
    "Fit",
    "Model",
    "ModelName",
    "Prediction",
    "ReadColumns",
    "Summary",
    "fit_linear",
    "fit_nonlinear",
    "number_of_cell",
    "read_columns",
    "summarise",
]
