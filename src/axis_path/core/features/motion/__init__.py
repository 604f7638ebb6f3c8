"""Runners and trails."""
