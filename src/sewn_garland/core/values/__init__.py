"""What travels between the stages. Immutable; arrays are read-only."""
