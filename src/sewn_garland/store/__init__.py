"""Keeps motifs, brushes, pages, lines and every step of their making in one SQLite file."""
