"""Axis Path: a workbench for functions, their graphs and what can be located on them."""
