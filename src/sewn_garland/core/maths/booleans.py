"""Join, cut out, overlap and exclude outlines, and turn strokes into outlines; curves stay curves."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Literal

import numpy as np
import pathops

from ..errors import InputError
from .bounds import CAPS, JOINS
from .outlines import Outline, engine_path, outline_from_engine, working_scale

Way = Literal["join", "cut_out", "overlap", "exclude"]
OPERATIONS = {
    "join": pathops.PathOp.UNION, "cut_out": pathops.PathOp.DIFFERENCE,
    "overlap": pathops.PathOp.INTERSECTION,
}  # fmt: skip


def combined(outlines: Sequence[tuple[str, np.ndarray, str]], way: Way) -> Outline:
    """Combine outlines (commands, points (k, 2), fill rule), the first with each further one.

    The result is clean: its contours do not cross, holes run against their outline (non-zero).
    Nothing left gives an empty outline. Raises InputError where the engine finds no answer.
    """
    scale = working_scale(*(points for _, points, _ in outlines))
    paths = [engine_path(commands, points, scale=scale, fill_rule=rule) for commands, points, rule in outlines]
    try:
        result = paths[0]
        for path in paths[1:]:
            result = _excluded(result, path) if way == "exclude" else pathops.op(result, path, OPERATIONS[way], fix_winding=True)
        if len(paths) == 1:
            result.simplify(fix_winding=True)
    except pathops.PathOpsError:
        raise InputError("these outlines cannot be combined; thin or move one a little and try again") from None
    return outline_from_engine(result, scale=scale)


def _excluded(one: pathops.Path, two: pathops.Path) -> pathops.Path:
    """Return what one of two paths covers alone: the two differences side by side, since the engine's own XOR may wind a hole wrongly."""
    left, right = (pathops.op(a, b, pathops.PathOp.DIFFERENCE, fix_winding=True) for a, b in ((one, two), (two, one)))
    left.addPath(right)
    return left


def stroke_outline(
    commands: str, points: np.ndarray, *, width: float, cap: str = "butt", join: str = "miter", miter_limit: float = 4.0,
    dashes: tuple[float, ...] = (), dash_offset: float = 0.0,
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
