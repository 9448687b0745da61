"""Take what is painted as artwork again: pieces as shapes of their own, a region as a motif."""

from __future__ import annotations

import math
from collections.abc import Iterable, Iterator, Sequence
from dataclasses import replace

import numpy as np

from ..artwork.fading import faded
from ..artwork.fills import without_strokes
from ..artwork.paints import in_own_colours
from ..errors import InputError, LimitError
from ..maths.affine import compose
from ..maths.ragged import owners
from ..values.drawing import Drawing, Group, PaintedPieces
from ..values.motif import Motif, Shape, mapped, painted_by, stroke_as_fill
from ..values.outlines import ShapedOutlines
from .meshes import picture_on_mesh, picture_within

Box = tuple[float, float, float, float]


def shapes_of(item: PaintedPieces, pieces: Iterable[int]) -> list[Shape]:
    """Return the shapes of some pieces as they lie on the page, in mm, covering what the pieces do; they belong to no group."""
    out: list[Shape] = []
    item = in_own_colours(item)
    for i in pieces:
        motif = item.artwork[int(item.motif[i])]
        a, b, c, d, e, f = item.matrices[i]
        anchor = np.array([[1.0, 0.0, -motif.width / 2], [0.0, 1.0, -motif.base_line]])
        matrix = compose(np.array([[a, c, e], [b, d, f]]), anchor)
        if item.outlines is not None and item.shaped[i]:
            drawn = _shaped(motif, item.outlines, int(i), matrix)
        else:
            drawn = [mapped(s, matrix) for s in (motif if item.similar[i] else without_strokes(motif)).shapes]
        out += [replace(faded(shape, float(item.covers[i])), group=0, derived=False) for shape in drawn]
    return out


def motif_within(drawing: Drawing, box: Box, *, most: int) -> Motif:
    """Return what is drawn about a region (left, top, right, bottom in mm) as a motif with the region as its frame, not cut at it yet.

    What a motif cannot hold is told as left out: how pieces and lines are laid on what is below, masks, clips and filters.
    Raises InputError when no piece comes near it, LimitError when more than ``most`` do.
    """
    left, top, right, bottom = box
    all_near = [(item, groups, np.flatnonzero(_may_touch(item, box))) for item, groups in drawing.pieces()]
    near = [(item, groups, pieces) for item, groups, pieces in all_near if len(pieces)]
    count = sum(len(pieces) for _, _, pieces in near)
    if count > most:
        raise LimitError(f"{count} pieces lie in the region, more than the {most} parts a motif may have; take a smaller one")
    here = np.array([[1.0, 0.0, -left], [0.0, 1.0, -top]])
    shapes = [
        replace(mapped(faded(shape, math.prod(group.opacity for group in groups)), here), lies="over")
        for item, groups, pieces in near for shape in shapes_of(item, pieces)
    ]  # fmt: skip
    if not shapes:
        raise InputError("nothing is laid in this region; pull it over some pieces")
    told = tuple(_lost([item for item, _, _ in near], [group for _, groups, _ in near for group in groups]))
    return Motif(tuple(shapes), right - left, bottom - top, (bottom - top) / 2, left_out=told)


def _lost(seen: Sequence[PaintedPieces], groups: Sequence[Group]) -> Iterator[str]:
    """Yield what is told of a picked-up region where its pieces, or the groups that they lie in, do more than a motif's shapes can."""
    ways = sorted({each.blend for each in (*groups, *seen)} - {"normal"})
    if ways:
        yield f"the way it was laid on ({', '.join(ways)}) is left out: a motif lies normally until its brush says otherwise"
    if any(group.opacity < 1 for group in groups) or any((item.covers < 1).any() for item in seen):
        yield "pieces that were see-through as one are now so part by part: where parts overlap, both show"
    if any(group.clip or group.mask or group.filter for group in groups):
        yield "masks, clips and filters of the page are left out"


def _may_touch(item: PaintedPieces, box: Box) -> np.ndarray:
    matrices = item.matrices
    reach = max(np.hypot(m.width, m.height) for m in item.artwork) * max(np.hypot(matrices[:, 0], matrices[:, 1]).max(initial=0), 1e-9)
    x, y = matrices[:, 4], matrices[:, 5]
    near = (x > box[0] - reach) & (x < box[2] + reach) & (y > box[1] - reach) & (y < box[3] + reach)
    outlines, several = item.outlines, item.several
    if several is not None and outlines is not None:  # these lie wherever their outlines do
        inside = (outlines.points > box[:2]) & (outlines.points < box[2:])
        near[several] = np.isin(several, outlines.piece[owners(np.diff(outlines.starts))[inside.all(axis=1)]])
    return near


def _shaped(motif: Motif, outlines: ShapedOutlines, piece: int, matrix: np.ndarray) -> list[Shape]:
    """Return the shapes of a piece that is bent, clipped or fitted: its outlines, painted as the piece as a whole lies."""
    out: list[Shape] = []
    first, last = np.searchsorted(outlines.piece, (piece, piece + 1))
    outlined, cut = piece in outlines.outlined, piece in outlines.cut
    for number, shape in enumerate(motif.shapes):
        whole, stroked = (
            _outline_of(outlines, [k for k in range(first, last) if outlines.shape[k] == number and outlines.stroked[k] == of_stroke])
            for of_stroke in (False, True)
        )
        if shape.picture is not None:
            meshes = [grid for mesh in outlines.meshes
                      for grid in mesh.points[(mesh.piece == piece) & (mesh.shape == number)]]  # fmt: skip
            drawn = [picture_on_mesh(shape, grid) for grid in meshes] or [mapped(shape, matrix)]
            out += [picture_within(d, *whole) for d in drawn if whole[0]] if cut else drawn
            continue
        painted = painted_by(shape, matrix)
        if whole[0]:
            stroke = None if outlined else shape.stroke and mapped(shape, matrix).stroke
            out.append(replace(painted, commands=whole[0], points=whole[1], stroke=stroke))
        if stroked[0]:
            out.append(replace(stroke_as_fill(painted), commands=stroked[0], points=stroked[1]))
    return out


def _outline_of(outlines: ShapedOutlines, rows: list[int]) -> tuple[str, np.ndarray]:
    """Return some contours as one outline; none give an empty one."""
    cubics = [(outlines.starts[k + 1] - outlines.starts[k] - 1) // 3 for k in rows]
    commands = "".join("M" + "C" * int(n) + "Z" * bool(outlines.closed[k]) for n, k in zip(cubics, rows, strict=True))
    return commands, np.concatenate([np.zeros((0, 2)), *(outlines.points[outlines.starts[k] : outlines.starts[k + 1]] for k in rows)])
