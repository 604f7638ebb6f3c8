"""Sliders: their values, their ranges, and how they play."""
