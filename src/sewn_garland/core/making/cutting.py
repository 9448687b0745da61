"""Cut a drawing: at two lines, to a box, in three pieces; and darn a seam that does not meet."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import replace

import numpy as np

from ..artwork.box import box_of, ink_box
from ..artwork.fills import as_fills
from ..errors import InputError
from ..maths.booleans import combined, rectangle
from ..maths.raster import png_from_rgba, rgba_from_png
from ..values.motif import Motif, Picture, Shape, picture_of, shifted
from .nodes import contours_of, outline_from_contours


def clipped_to(motif: Motif, left: float, right: float) -> Motif:
    """Return what of a motif lies between two upright lines, as a motif of that frame; curves stay curves. Raises InputError when nothing
    does.
    """
    part = stretch_of(motif, left, right)
    if not part.shapes:
        raise InputError(f"nothing lies between {left:.2f} and {right:.2f} mm; move the cuts onto the drawing")
    return part


def stretch_of(motif: Motif, left: float, right: float) -> Motif:
    """Return what of a motif lies between two upright lines, which may be nothing, as a motif of that frame; curves stay curves."""
    _, top, _, bottom = ink_box(motif)
    shapes = _inside(motif.shapes, (left, min(0.0, top) - 10, right, max(motif.height, bottom) + 10))
    out = replace(motif, shapes=tuple(replace(s, derived=False) for s in shapes), cuts=None, joints=None, recipes=())
    return replace(shifted(out, -left, 0.0), width=right - left)


def clipped_to_box(motif: Motif) -> Motif:
    """Return what of a motif lies within its frame; raises InputError when nothing does."""
    shapes = _inside(motif.shapes, (0.0, 0.0, motif.width, motif.height))
    if not shapes:
        raise InputError("nothing lies within this frame; take a larger one")
    return replace(motif, shapes=tuple(shapes), recipes=())


def _inside(shapes: Sequence[Shape], box: tuple[float, float, float, float]) -> list[Shape]:
    """Cut shapes at a box; what lies wholly inside stays as it is, strokes that cross it become shapes."""
    left, top, right, bottom = box
    window = (*rectangle(*box), "nonzero")
    out: list[Shape] = []
    for shape in shapes:
        x0, y0, x1, y1 = box_of([shape])
        if x1 <= left + 1e-9 or x0 >= right - 1e-9 or y1 <= top + 1e-9 or y0 >= bottom - 1e-9:
            continue
        if x0 >= left - 1e-9 and x1 <= right + 1e-9 and y0 >= top - 1e-9 and y1 <= bottom + 1e-9:
            out.append(shape)
        elif shape.picture is not None:
            out += _cropped(shape, left, right)
        else:
            for part in as_fills(shape):
                commands, points = combined([(part.commands, part.points, part.fill_rule), window], "overlap")
                if commands:
                    out.append(replace(part, commands=commands, points=points, fill_rule="nonzero"))
    return out


def _cropped(shape: Shape, left: float, right: float) -> list[Shape]:
    """Cut a picture to whole pixels between two lines, each pixel that is mostly inside kept."""
    origin, across, _, below = shape.points
    if abs(across[1] - origin[1]) > 1e-6 or abs(below[0] - origin[0]) > 1e-6:
        raise InputError("a turned picture cannot be cut; turn it upright first")
    picture = picture_of(shape)
    rgba = rgba_from_png(picture.png)
    mm = (across[0] - origin[0]) / rgba.shape[1]
    a, b = (int(np.clip(round((v - origin[0]) / mm), 0, rgba.shape[1])) for v in (left, right))
    if b <= a:
        return []
    kept = rgba[:, a:b]
    x0, x1 = origin[0] + a * mm, origin[0] + b * mm
    corners = np.array([[x0, origin[1]], [x1, origin[1]], [x1, below[1]], [x0, below[1]]])
    return [replace(shape, points=corners, picture=Picture(png_from_rgba(kept), b - a, len(kept), picture.stencil))]


def cut_in_three(motif: Motif) -> tuple[Motif | None, Motif, Motif | None]:
    """Return the start, the repeat and the end piece of a motif with cuts; an outer part without ink is None."""
    if motif.cuts is None:
        raise InputError("there are no cuts yet; pull the two tapes onto the drawing first")
    left, right = motif.cuts
    if not left < right:
        raise InputError("the cuts are crossed over; the left one must lie left of the right one")

    def outer(a: float, b: float) -> Motif | None:
        try:
            return clipped_to(motif, a, b) if b - a > 0.01 else None
        except InputError:
            return None

    ink = box_of(motif.shapes)
    return outer(min(0.0, ink[0]), left), clipped_to(motif, left, right), outer(right, max(motif.width, ink[2]))


def darned(motif: Motif) -> Motif:
    """Return the repeat between the cuts with its edges made to meet: the few points on the edges move to the mean of both.

    Each point on the left edge is paired with one on the right edge in order from the top; both go
    to their mean height, and flowing handles there to their mean slope. Raises InputError where the
    edges do not have as many points.
    """
    left, right = motif.span
    own = clipped_to(motif, left, right)
    width, tol = own.width, 1e-3 * max(1.0, own.width / 10)
    places = []
    contours = [contours_of(s.commands, s.points) if s.picture is None else [] for s in own.shapes]
    for i, shape in enumerate(contours):
        for j, contour in enumerate(shape):
            for k, (x, y) in enumerate(contour.at):
                if abs(x) < tol or abs(x - width) < tol:
                    places.append((bool(abs(x) < tol), float(y), i, j, k))
    lefts, rights = (sorted((p for p in places if p[0] is side), key=lambda p: p[1]) for side in (True, False))
    if not lefts or len(lefts) != len(rights):
        raise InputError(f"{len(lefts)} points on the left edge and {len(rights)} on the right do not pair up; find the best cut first")
    for a, b in zip(lefts, rights, strict=True):
        _meet(contours, a, b, width)
    shapes = []
    for shape, own_contours in zip(own.shapes, contours, strict=True):
        if own_contours:
            commands, points = outline_from_contours(own_contours)
            shape = replace(shape, commands=commands, points=points)
        shapes.append(shape)
    return replace(own, shapes=tuple(shapes))


def _meet(contours: list, a: tuple, b: tuple, width: float) -> None:
    """Move two points, (is left, y, shape, contour, node), to their mean height, and their flowing handles to their mean slope."""
    mean = (a[1] + b[1]) / 2
    slopes = [_inner_slope(contours[p[2]][p[3]], p[4], width) for p in (a, b)]
    known = [slope for slope in slopes if slope is not None]
    for _, y, i, j, k in (a, b):
        c = contours[i][j]
        at, into, out = c.at.copy(), c.into.copy(), c.out.copy()
        for array in (at, into, out):
            array[k, 1] += mean - y
        if len(known) == 2:
            wanted = float(np.arctan(np.tan(known).sum() / 2))
            for array in (into, out):
                arm = array[k] - at[k]
                if abs(arm[0]) > 1e-6:
                    array[k] = at[k] + (arm[0], arm[0] * np.tan(wanted))
        contours[i][j] = replace(c, at=at, into=into, out=out)


def _inner_slope(contour, node: int, width: float) -> float | None:
    """Return the slope (radians) in which the outline leaves an edge point into the piece; None for an upright or straight one."""
    x = contour.at[node, 0]
    for arm in (contour.into[node] - contour.at[node], contour.out[node] - contour.at[node]):
        inward = arm[0] > 1e-6 if abs(x) < width / 2 else arm[0] < -1e-6
        if inward:
            return float(np.arctan(arm[1] / arm[0]))
    return None
