"""Sewn Garland: brushes that repeat a motif along a line so that the repeats join cleanly."""

import os

os.environ.setdefault("OPENBLAS_NUM_THREADS", "1")  # its threads wait for one another longer than our thin matrices take

__version__ = "0.1.0"
