"""Random numbers: drawing them again."""
