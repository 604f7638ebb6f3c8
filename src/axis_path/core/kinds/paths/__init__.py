"""Paths and curves by an angle."""
