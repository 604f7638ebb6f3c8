"""From the reductions of the grammar to nodes of the tree."""
