"""Limits and growth: what a function does beside a place and far out."""
