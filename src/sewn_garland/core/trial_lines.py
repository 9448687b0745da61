"""The standing trial lines, drawn in a box of 100 × 70 and scaled to the brush."""

from __future__ import annotations

from dataclasses import dataclass

TRIAL_BOX = (100.0, 70.0)
STEPS_MM = (10, 20, 30, 45, 60, 90, 120, 180, 240, 360, 480, 720, 1000, 1500, 2000, 3000, 5000, 10_000)


@dataclass(frozen=True)
class TrialLine:
    key: str
    name: str
    path: str


TRIAL_LINES = (
    TrialLine("straight", "Straight", "M8 35H92"),
    TrialLine("wave", "Wave", "M6 35C20 26 36 26 50 35S80 44 94 35"),
    TrialLine("hairpin", "Hairpin", "M10 22H72A13 13 0 0 1 72 48H10"),
    TrialLine("corners", "Square corners", "M8 55H30V15H70V55H92"),
    TrialLine("point", "Sharp point", "M14 60L50 10L86 60"),
    TrialLine("circle", "Circle", "M78 35A28 28 0 0 1 50 63A28 28 0 0 1 22 35A28 28 0 0 1 50 7A28 28 0 0 1 78 35Z"),
    TrialLine(
        "loop", "Wavy loop",
        "M50 10C58 10 60 16 68 14S88 18 86 30S92 44 86 50S70 58 62 56S44 66 36 58S20 56 18 48S8 36 14 28S18 12 28 14S42 10 50 10Z",
    ),
    TrialLine("letter", "Letter", "M67 20C64 11 55 8 49 8C40 8 33 13 33 21C33 41 68 29 68 48C68 57 60 62 50 62C42 62 35 58 32 49"),
)  # fmt: skip


def trial_width_mm(pitch: float, *, height: float = 0.0, step: int = 0) -> float:
    """Return how wide the trial sheet's box is for a brush of this pitch: about fourteen repeats, in round steps.

    Pieces much higher than their pitch, such as rope strands, get a wider sheet.
    ``step`` goes that many round steps further (or closer, below 0), as far as there are any.
    """
    usual = next((i for i, width in enumerate(STEPS_MM) if width >= 14 * max(pitch, 0.9 * height)), len(STEPS_MM) - 1)
    return float(STEPS_MM[min(max(usual + step, 0), len(STEPS_MM) - 1)])
