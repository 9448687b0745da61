"""Join, cut out, overlap and exclude outlines, and turn strokes into outlines; curves stay curves."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Literal

import numpy as np
import pathops

from ..errors import InputError
from .bounds import CAPS, JOINS
from .coverage import mismatch, wound
from .outlines import Outline, engine_path, outline_from_engine, working_scale

Way = Literal["join", "cut_out", "overlap", "exclude"]
OPERATIONS = {
    "join": pathops.PathOp.UNION, "cut_out": pathops.PathOp.DIFFERENCE,
    "overlap": pathops.PathOp.INTERSECTION, "exclude": pathops.PathOp.XOR,
}  # fmt: skip
COVERS = {
    "join": lambda covers: covers.any(axis=1), "overlap": lambda covers: covers.all(axis=1),
    "cut_out": lambda covers: covers[:, 0] & ~covers[:, 1:].any(axis=1), "exclude": lambda covers: covers.sum(axis=1) % 2 == 1,
}  # fmt: skip
TURNS = (0.0, 0.71, 1.37, 2.17, 2.89, 1.0, 2.4, 0.35, 1.8, 2.6, 0.2, 1.2)  # radians, chosen: the first as given, then well spread
MISMATCH_REL_TOL = 1e-4  # of the extent squared, chosen: above what the sections themselves miss


def combined(outlines: Sequence[tuple[str, np.ndarray, str]], way: Way) -> Outline:
    """Combine outlines (commands, points (k, 2), fill rule), the first with each further one.

    The result is clean: its contours do not cross, holes run against their outline (non-zero).
    Nothing left gives an empty outline. The engine now and then loses its way among crossings, so
    what it gives is compared with sections of the outlines, and they are turned and tried again
    where it differs. Raises InputError where no turn gives an answer.
    """
    for turn in TURNS:
        try:
            result = _combined(outlines, way, turn)
        except pathops.PathOpsError:
            continue
        if mismatch(outlines, result, COVERS[way]) <= MISMATCH_REL_TOL:
            return result
    raise InputError("these outlines cannot be combined; thin or move one a little and try again")


def _combined(outlines: Sequence[tuple[str, np.ndarray, str]], way: Way, turn: float) -> Outline:
    """Return what the engine gives for outlines turned by some radians, turned back."""
    scale = working_scale(*(points for _, points, _ in outlines))
    there = np.array([[np.cos(turn), np.sin(turn)], [-np.sin(turn), np.cos(turn)]])
    paths = [engine_path(commands, points @ there if turn else points, scale=scale, fill_rule=rule) for commands, points, rule in outlines]
    result = paths[0]
    for path in paths[1:]:
        result = pathops.op(result, path, OPERATIONS[way], fix_winding=False)
    if len(paths) == 1:
        result.simplify(fix_winding=False)
    commands, points = wound(*outline_from_engine(result, scale=scale))
    return commands, points @ there.T if turn else points


def stroke_outline(
    commands: str,
    points: np.ndarray,
    *,
    width: float,
    cap: str = "butt",
    join: str = "miter",
    miter_limit: float = 4.0,
    dashes: tuple[float, ...] = (),
    dash_offset: float = 0.0,
) -> Outline:
    """Return the clean outline of what a stroke covers; empty where it covers nothing."""
    scale = working_scale(points, np.array([[width, width]]))
    path = engine_path(commands, points, scale=scale)
    path.stroke(width * scale, CAPS[cap], JOINS[join], miter_limit, [d * scale for d in dashes] or None, dash_offset * scale)
    path.convertConicsToQuads(tolerance=0.02)
    try:
        path.simplify(fix_winding=True)
    except pathops.PathOpsError:
        raise InputError("this stroke cannot be turned into a shape; make it thinner and try again") from None
    return outline_from_engine(path, scale=scale)


def rectangle(left: float, top: float, right: float, bottom: float) -> Outline:
    """Return a rectangle's outline, clockwise on screen from its top left."""
    return "MLLLZ", np.array([[left, top], [right, top], [right, bottom], [left, bottom]], float)
