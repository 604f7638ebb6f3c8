"""Exact forms of numbers, found in worker processes that may be ended."""
