"""The arithmetics in which a program is computed: floats, enclosures, balls, complex balls."""
