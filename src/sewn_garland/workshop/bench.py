"""The Repeat station's bench: draft settings on the flat run and the trial lines, and every brush on the shelf's swatch."""

from __future__ import annotations

import re
from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass, field
from functools import lru_cache

import numpy as np
from sqlmodel import Session, col, select

from ..core.making.brushes import hung_at
from ..core.maths.recent import Recent
from ..core.reading.brush_document import brush_of
from ..core.shaping.shaped import TOLERANCE_MM
from ..core.spacing.extents import repeat_extents
from ..core.values.brush import MOST_ARRANGEMENT, Brush, Role, Settings
from ..core.values.tracks import LineToLay
from ..store import tables
from ..store.database import Store
from .rows import all_ids, brush_from_row, laid_ids, measured_path, pieces_of
from .scenes import LaidScene, Overtaking, Scene, laid_anew, laid_scenes
from .trial_lines import TRIAL_BOX, TRIAL_LINES, points_of, reshaped, set_on_sheet, trial_width_mm

SWATCH_BOX = (100.0, 56.0)
SWATCH_PATH = "M7 42C20 4 34 4 44 26S62 48 72 16H93V48"
SHEET_DETAIL, LARGE_DETAIL = 1000, 2000  # chosen: of a trial line's width, a quarter of a pixel as it is shown among all and large
FLAT_TAPER = 0.3  # chosen: of the flat run, a longer taper is shown on so much, so that pieces of full width lie between
_swatches: Recent[LaidScene] = Recent(512)


DEALS = 12  # seen side by side
DEAL_PITCHES = 9  # along one of them; chosen: pieces are large enough to be judged
DEAL_BOX, DEAL_PATH = (100, 42), "M6 21C26 5 38 5 50 21S74 37 94 21"
STRAIGHT_PATH = "M0 21H100"


@dataclass(frozen=True)
class Draft:
    """Draft settings for motifs, by their ids, and the lines they are tried on.

    ``pitch_mm`` moves the joints of a jointed brush so far apart. ``shaped`` gives points of trial lines that were dragged, in
    the sheet's own 100 × 70; ``pinned`` are lines of pages shown beside them; ``large`` is the one whose joins and points
    are wanted; ``aside`` are settings to lay on the same lines for comparison.
    """

    ids: dict[Role, list[int]]
    settings: Settings
    flat_mm: float
    pitch_mm: float | None = None
    trial_mm: float | None = None
    trial_step: int = 0
    trials: bool = True
    shaped: Mapping[str, Sequence[Sequence[float]]] = field(default_factory=dict)
    pinned: Sequence[int] = ()
    large: str | None = None
    aside: Settings | None = None


@dataclass(frozen=True, eq=False)
class LaidBench:
    """The flat run and the trial lines, laid; figures in mm of the brush on a straight line, ``above_mm`` how far it reaches above it."""

    scenes: list[LaidScene]
    trial_mm: float
    piece_mm: float
    gap_mm: float
    pitch_mm: float
    height_mm: float
    above_mm: float
    spread_mm: float


def laid_bench(store: Store, draft: Draft, *, cures: bool, overtaken: Overtaking) -> LaidBench:
    """Lay a draft; raises Overtaken as soon as a newer question is known."""
    pieces = store.remembered(("pieces", *laid_ids(draft.ids)), lambda session: pieces_of(session, draft.ids))
    brush = brush_of("the brush", pieces, draft.settings)
    if draft.pitch_mm is not None and brush.travel.jointed:
        brush = hung_at(brush, draft.pitch_mm)
    extents, (above, below) = repeat_extents(brush), _reaches_of(brush)
    height = above + below
    trial_mm = draft.trial_mm or trial_width_mm(extents.mean_pitch, height=height, step=draft.trial_step)
    scenes = [_flat_run(brush, draft.flat_mm)]
    if draft.trials:
        sheets = [*_standing(draft, trial_mm / TRIAL_BOX[0]), *map(_pinned, _lines(store, draft.pinned))]
        aside = draft.aside and brush_of("the brush kept aside", pieces, draft.aside)
        scenes += [each.scene("", brush) for each in sheets]
        scenes += [each.scene("aside ", aside) for each in sheets] if aside else []
    tolerance = max(TOLERANCE_MM, trial_mm / (LARGE_DETAIL if draft.large else SHEET_DETAIL))
    laid = laid_scenes(scenes, cures=cures, of_brush_only=True, overtaken=overtaken, tolerance=tolerance)
    return LaidBench(laid, trial_mm, float(extents.length[0]), float(extents.gap[0]), extents.mean_pitch, height, above, _spread_of(brush))


def laid_deals(
    store: Store, ids: dict[Role, list[int]], settings: Settings, first: int, *, straight: bool, overtaken: Overtaking
) -> list[LaidScene]:
    """Lay a draft on a gentle wave in twelve arrangements, from the first on, or ``straight`` in the first alone.

    Raises Overtaken as soon as a newer question is known.
    """
    pieces = store.remembered(("pieces", *laid_ids(ids)), lambda session: pieces_of(session, ids))
    brush = brush_of("the brush", pieces, settings)
    width = max(DEAL_PITCHES * repeat_extents(brush).mean_pitch, 2.4 * (sum(_reaches_of(brush)) + _spread_of(brush)))
    scale = width / DEAL_BOX[0]
    line = LineToLay(measured_path(scaled_path(STRAIGHT_PATH if straight else DEAL_PATH, scale)), 1)
    box = [width, DEAL_BOX[1] * scale]
    scenes = [
        Scene(f"deal {n}", brush.changed({"variants": {"arrangement": n}}), line, {"name": str(n), "box": box}, passing=True)
        for n in range(first, first + (1 if straight else DEALS)) if n <= MOST_ARRANGEMENT
    ]  # fmt: skip
    return laid_scenes(scenes, overtaken=overtaken, tolerance=max(TOLERANCE_MM, width / SHEET_DETAIL))


def _reaches_of(brush: Brush) -> tuple[float, float]:
    """Return how far repeats reach above and below the line by their frames, mm; turned ones as far as half their height."""
    above = max(m.base_line for m in brush.pieces.repeat) * brush.spacing.size
    below = max(m.height - m.base_line for m in brush.pieces.repeat) * brush.spacing.size
    if brush.travel.turn_deg:
        return (above + below) / 2, (above + below) / 2
    return (below, above) if brush.travel.mirror == "up_down" else (above, below)


def _spread_of(brush: Brush) -> float:
    """Return by how many mm pieces vary across the line at most, from side to side."""
    longest = float(repeat_extents(brush).length.max())
    return longest / 100 * 2 * sum(max(map(abs, variation.between)) for variation in brush.varying("across"))


def _flat_run(brush: Brush, flat_mm: float) -> Scene:
    """Return a straight line on which nothing is left over, rows, tapers, thick and thin and all."""
    hand, most = brush.hand, FLAT_TAPER * flat_mm
    tapers = {key: min(getattr(hand, key), most) for key in ("taper_start_mm", "taper_end_mm")}
    about = {"name": "Flat run", "tapers_within_mm": most if max(hand.taper_start_mm, hand.taper_end_mm) > most else None}
    return Scene("flat", brush.changed({"hand": tapers}), LineToLay(measured_path(f"M0 0H{flat_mm!r}"), unended=True), about)


@dataclass(frozen=True)
class _Sheet:
    """A trial line: its key, the number chance knows it by, its size, and what the browser needs to know."""

    key: str
    seed: int
    size: float
    path: str
    about: dict

    def scene(self, prefix: str, brush: Brush) -> Scene:
        sized = brush if self.size == 1 else brush.at_size(self.size)
        return Scene(prefix + self.key, sized, LineToLay(measured_path(self.path), self.seed), self.about, aside=bool(prefix))


def _lines(store: Store, ids: Sequence[int]) -> list[tables.Line]:
    """Return those lines of pages that are there still."""
    if not ids:
        return []
    found = store.remembered(("lines", *ids), lambda session: [session.get(tables.Line, i) for i in ids])
    return [row for row in found if row is not None]


def _standing(draft: Draft, scale: float) -> Iterator[_Sheet]:
    """Yield the trial lines; the large one with its points."""
    for seed, trial in enumerate(TRIAL_LINES):
        moved = draft.shaped.get(trial.key)
        if moved is not None and np.array_equal(moved, points_of(trial.path)):
            moved = None  # let go where it was
        path = trial.path if moved is None else reshaped(trial.path, np.array(moved))
        about = {"name": trial.name, "path": scaled_path(path, scale), "moved": moved is not None}
        if trial.key == draft.large:
            about["points"] = points_of(path).tolist()
        yield _Sheet(trial.key, seed, 1.0, about["path"], about)


def _pinned(row: tables.Line) -> _Sheet:
    """Return a page's line among the trial lines, at its own size."""
    path, box = set_on_sheet(row.path)
    about = {"name": row.name, "path": path, "box": list(box), "pinned": row.id}
    return _Sheet(f"pinned {row.id}", row.seed, row.size_pct / 100, path, about)


def laid_shelf(session: Session, *, overtaken: Overtaking) -> list[LaidScene]:
    """Lay every brush on the standard swatch; one that was laid before is not laid again."""
    rows = session.exec(select(tables.Brush).order_by(col(tables.Brush.id))).all()
    return laid_anew([_swatch(session, row) for row in rows], _swatches, overtaken=overtaken)


def _swatch(session: Session, row: tables.Brush) -> Scene:
    brush = brush_from_row(session, row)
    pitch = repeat_extents(brush).mean_pitch
    width = trial_width_mm(pitch, height=sum(_reaches_of(brush)))
    scale = width / SWATCH_BOX[0]
    about = {"brush_id": row.id, "motif_ids": all_ids(row), "wished_pitch_mm": pitch, "box": [width, SWATCH_BOX[1] * scale]}
    return Scene(f"brush-{row.id}", brush, LineToLay(measured_path(scaled_path(SWATCH_PATH, scale))), about)


@lru_cache(maxsize=512)
def scaled_path(path: str, scale: float) -> str:
    """Scale path data; arc flags stay, for the numbers of an arc are told apart by their place."""

    def command(found: re.Match) -> str:
        letter, numbers = found.group(1), re.findall(r"-?[\d.]+", found.group(2))
        kept = {2, 3, 4} if letter in "Aa" else set()
        size = 7 if letter in "Aa" else max(1, len(numbers))
        return letter + " ".join(n if i % size in kept else repr(round(float(n) * scale, 6)) for i, n in enumerate(numbers))

    return re.sub(r"([A-Za-z])([^A-Za-z]*)", command, path)
