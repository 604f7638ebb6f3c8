"""The Findings panel: what is located, solved and measured, and how it is answered."""
