"""Integrals in definitions: with kinks, jumps and ends at infinity."""
