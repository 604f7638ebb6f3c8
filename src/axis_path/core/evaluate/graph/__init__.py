"""The graph of operations, its programs, and what can be read off its form."""
