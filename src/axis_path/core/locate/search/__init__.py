"""Zeros of one function, with proof: its smooth parts, pruning, halving, the verdict."""
