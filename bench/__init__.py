"""Benchmarks; their last figures stand in docs/performance.md."""
