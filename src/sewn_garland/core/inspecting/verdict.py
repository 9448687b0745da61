"""Say in a few words how a laid line stands."""

from __future__ import annotations

import numpy as np

from ..values.findings import Finding
from ..values.laid import LaidLine

ORDER = (
    "leftover",
    "crowded corner",
    "over-stretched",
    "fold",
    "kink",
    "gap",
    "overlap",
    "step",
    "tight bend",
    "broken order",
    "tone",
    "crowded",
    "stacking breaks",
)


def verdict(laid: LaidLine) -> str:
    """Return the verdict: how closely joins keep the wish, or the worst that was found."""
    if not laid.findings:
        if not len(laid.joins.gap):
            return "one piece, no joins" if len(laid.pieces.s) < 2 else f"{len(laid.pieces.s)} pieces, laid loosely"
        closes = ", closes whole" if laid.closed else ""
        return f"joins within {max(np.abs(laid.joins.gap).max(), 0.005):.2f} mm{closes}"
    by_kind = {kind: [f for f in laid.findings if f.kind == kind] for kind in ORDER}
    words = [_words(kind, found) for kind, found in by_kind.items() if found]
    return words[0] if words[0].startswith("too short") else ", ".join(words[:2])


def _words(kind: str, found: list[Finding]) -> str:
    count = sum(f.count for f in found)
    largest = max(f.amount for f in found)
    if kind == "leftover":
        return found[0].message.split(" mm", 1)[0] + " mm left over" if "left over" in found[0].message else "too short for a piece"
    if kind == "tight bend":
        return f"bend of {min(f.amount for f in found):.1f} mm"
    if kind == "broken order":
        return "variants do not close"
    if kind == "over-stretched":
        return f"stretched {largest:.1f} times"
    if kind == "crowded":
        return "1 piece left out" if count == 1 else f"{count} pieces left out"
    if kind == "crowded corner":
        return "crowded corner" if count == 1 else f"{count} crowded corners"
    if kind == "tone":
        return f"colours differ by ΔE {largest:.1f} at joins"
    amount = f"{largest:.0f}°" if kind == "kink" else f"{largest:.2f} mm"
    return f"{kind} {amount}" if count == 1 else f"{count} {kind}s, up to {amount}"
