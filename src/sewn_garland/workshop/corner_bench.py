"""One corner of a brush, laid at an angle to be looked at while its corner piece is made."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from sqlmodel import Session

from ..core.making.corners import SIDE_OF, vertex_of
from ..core.reading.brush_document import brush_of
from ..core.spacing.extents import repeat_extents
from ..core.values.brush import Brush, Role
from ..core.values.joins import Joins
from ..core.values.tracks import LineToLay
from ..store.database import Store
from ..store.history import NotFound
from .rows import ids_by_role, known_by, measured_path, of_one_width, pieces_of, row_of, settings_of
from .scenes import LaidScene, Overtaking, Scene, laid_scenes

LEAST_DEG, MOST_DEG = 60, 150  # between the legs: within these a corner piece still follows both
SEEN_REPEATS, RUN_REACHES = 2.5, 2.5  # chosen: what is looked at of a run, and how far that goes on, beyond the edge of what is seen


@dataclass(frozen=True)
class CornerJoin:
    """How a run meets its corner piece, beside what is wished: mm, and the angle in degrees."""

    gap_mm: float
    step_mm: float
    kink_deg: float


@dataclass(frozen=True, eq=False)
class LaidCorner:
    """A corner with both runs, its vertex at (0, 0), and how far about it one looks, mm; joins where they were measured."""

    scene: LaidScene
    reach_mm: float
    enters: CornerJoin | None
    leaves: CornerJoin | None


def laid_corner(store: Store, brush_id: int, role: Role, angle_deg: float, *, overtaken: Overtaking) -> LaidCorner:
    """Lay the piece of a corner between two runs that stand at an angle.

    Raises NotFound where the brush has no such piece, Overtaken as soon as a newer question is known.
    """
    brush, about = store.remembered(("corner", brush_id, role), lambda session: _of_corner(session, brush_id, role))
    side, size = SIDE_OF[role], brush.spacing.size
    corner = getattr(brush.pieces, role)
    near = float(vertex_of(corner, side)[0]) * size
    extents = repeat_extents(brush)
    reach = near + SEEN_REPEATS * extents.mean_pitch + brush.pieces.repeat[0].height * size
    round_pitch = extents.mean_pitch * len(brush.pieces.repeat)
    run = float(np.ceil(RUN_REACHES * reach / round_pitch)) * round_pitch - float(extents.gap[0])
    turn = np.pi - np.radians(angle_deg)
    leg = run + near * float(np.tan(turn / 2))
    out = leg * np.array([np.cos(turn), np.sin(turn) * (1 if side == "outside" else -1)])
    path = f"M{-leg!r} 0H0L{out[0].item()!r} {out[1].item()!r}"
    scene = Scene("corner", brush, LineToLay(measured_path(path), 1), about | {"path": path}, passing=True)
    (laid,) = laid_scenes([scene], overtaken=overtaken)
    return LaidCorner(laid, reach, *_joins_of(laid))


def _of_corner(session: Session, brush_id: int, role: Role) -> tuple[Brush, dict[str, list[int]]]:
    """Return a brush with its repeat and its piece for a corner alone, and what the browser knows their motifs by, in order."""
    row = row_of(session, "brush", brush_id)
    ids = ids_by_role(row)
    if role not in ids:
        raise NotFound(f"piece for {role.replace('_', ' ')}")
    settings = settings_of(row)
    ends = settings.ends.model_copy(update={"outside_corner": "through", "inside_corner": "through", role: "piece", "corner_from_deg": 10})
    kept: dict[Role, list[int]] = {"repeat": ids["repeat"], role: ids[role]}
    brush = brush_of(row.name, pieces_of(session, kept), settings.model_copy(update={"ends": ends}), where=row.name)
    return of_one_width(brush), known_by(session, [*ids["repeat"], *ids[role]])


def _joins_of(scene: LaidScene) -> tuple[CornerJoin | None, CornerJoin | None]:
    """Return the joins of the corner piece with the run that enters and the one that leaves."""
    if scene.laid is None:
        return None, None
    at_corner = scene.laid.pieces.at_corner
    enters, leaves = (np.flatnonzero(at_corner[which]) for which in (scene.laid.joins.second, scene.laid.joins.first))
    return _figures(scene.laid.joins, enters), _figures(scene.laid.joins, leaves)


def _figures(joins: Joins, found: np.ndarray) -> CornerJoin | None:
    if not len(found):
        return None
    at = int(found[0])
    return CornerJoin(float(joins.gap[at]), float(joins.step[at]), float(np.degrees(joins.kink[at])))
