"""Write the list of pieces (CSV) and the report (JSON)."""

from __future__ import annotations

import csv
import io
from collections.abc import Sequence
from dataclasses import asdict

import numpy as np

from ..values.laid import LaidLine

COLUMNS = (
    "line",
    "run",
    "index",
    "role",
    "variant",
    "s_mm",
    "x_mm",
    "y_mm",
    "turn_deg",
    "scale_x",
    "scale_y",
    "stop",
    "slot",
    "opacity",
    "ink",
)


def pieces_csv(laid: Sequence[LaidLine], inks: Sequence[Sequence[str]], covers: Sequence[float]) -> str:
    """Write a row a piece, numbers in their shortest round-trip form; no pieces give the head alone.

    ``inks`` are the colours of each line's pieces, ``covers`` how much of what lies below they cover, what
    varies aside.
    """
    out = io.StringIO()
    writer = csv.writer(out, lineterminator="\n")
    writer.writerow(COLUMNS)
    for number, line in enumerate(laid):
        p = line.pieces
        opacity = covers[number] * (np.ones(len(p.s)) if p.opacity is None else p.opacity)
        columns = (p.run, np.arange(len(p.s)), p.roles, p.variant, p.s, p.where[:, 0], p.where[:, 1],
                   turn_deg_of(p.turn), p.scale[:, 0], p.scale[:, 1], p.stop, p.slot, opacity)  # fmt: skip
        lists = [c.tolist() if c.dtype.kind == "U" else (c + 0).tolist() for c in columns]
        writer.writerows(zip([number] * len(p.s), *lists, inks[number], strict=True))
    return out.getvalue()


def turn_deg_of(turn: np.ndarray) -> np.ndarray:
    """Return angles in degrees within (−180, 180]."""
    degrees = -((-np.degrees(turn) + 180.0) % 360.0 - 180.0)
    return np.where(np.abs(degrees) < 1e-12, 0.0, degrees)


def report(laid: Sequence[LaidLine], seconds: float) -> dict:
    """Return the report: figures, joins and findings with cures, a line each."""
    return {"lines": [_line_report(line) for line in laid], "seconds": seconds}


def _line_report(line: LaidLine) -> dict:
    joins = line.joins
    return {
        "length_mm": line.length, "closed": line.closed, "runs": line.runs, "pieces": len(line.pieces.s),
        "pitch_mm": line.pitch, "eased_pct": line.eased * 100,
        "tightest_radius_mm": line.tightest_radius, "safe_radius_mm": line.safe_radius,
        "joins": {
            "count": len(joins.gap), "gap_max_mm": _largest(joins.gap), "overlap_max_mm": _largest(-joins.gap),
            "step_max_mm": _largest(joins.step), "kink_max_deg": _largest(np.degrees(joins.kink)),
        },
        "findings": [finding_report(f) for f in line.findings],
    }  # fmt: skip


def finding_report(finding) -> dict:
    """Return one finding as the report shows it."""
    return {
        "kind": finding.kind, "at_mm": finding.at_mm, "amount": finding.amount, "unit": finding.unit,
        "message": finding.message, "limit": finding.limit, "untried": finding.untried,
        "cures": [{**asdict(cure), "clears": list(cure.clears)} for cure in finding.cures],
    }  # fmt: skip


def _largest(values: np.ndarray) -> float | None:
    """Return the largest deviation, at least 0; None where there is no join to measure."""
    return max(0.0, float(values.max())) if len(values) else None
