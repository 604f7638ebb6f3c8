"""What-if tables: other values of a name, and what they would make of the rest of a study."""
