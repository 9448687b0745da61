"""Sewn Garland: brushes that repeat a motif along a line so that the repeats join cleanly."""

__version__ = "0.1.0"
