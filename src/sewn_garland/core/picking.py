"""Take what is laid as artwork again: a region of a page as a motif, pieces as shapes of their own."""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from dataclasses import replace

import numpy as np

from .drawing.meshes import picture_on_mesh, picture_within
from .drawing.svg import Layer
from .errors import InputError, LimitError
from .making.cutting import clipped_to_box
from .making.parts import MOST_PARTS, checked_size
from .maths.affine import compose
from .placing.rigid import matrices_of
from .values.laid import LaidLine
from .values.motif import Motif, Shape, mapped, painted_by, stroke_as_fill
from .values.outlines import ShapedOutlines


def shapes_drawn(motifs: Sequence[Motif], laid: LaidLine, pieces: Iterable[int]) -> list[Shape]:
    """Return the shapes of some laid pieces as they lie on the page, in mm; they belong to no group."""
    matrices = matrices_of(laid.placements)
    shaped = set() if laid.outlines is None else set(laid.outlines.pieces.tolist())
    out: list[Shape] = []
    for i in pieces:
        motif = motifs[int(laid.placements.variant[i])]
        a, b, c, d, e, f = matrices[i]
        anchor = np.array([[1.0, 0.0, -motif.width / 2], [0.0, 1.0, -motif.base_line]])
        matrix = compose(np.array([[a, c, e], [b, d, f]]), anchor)
        drawn = _shaped(motif, laid, int(i), matrix) if i in shaped else [mapped(s, matrix) for s in motif.shapes]
        out += [replace(shape, group=0, derived=False) for shape in drawn]
    return out


def _shaped(motif: Motif, laid: LaidLine, piece: int, matrix: np.ndarray) -> list[Shape]:
    """Return the shapes of a piece that is bent, clipped or fitted: its outlines, painted as the piece as a whole lies."""
    outlines, out = laid.outlines, []
    first, last = np.searchsorted(outlines.piece, (piece, piece + 1))
    cut = piece in outlines.cut
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
            stroke = None if cut else shape.stroke and mapped(shape, matrix).stroke
            out.append(replace(painted, commands=whole[0], points=whole[1], stroke=stroke))
        if stroked[0]:
            out.append(replace(stroke_as_fill(painted), commands=stroked[0], points=stroked[1]))
    return out


def _outline_of(outlines: ShapedOutlines, rows: list[int]) -> tuple[str, np.ndarray]:
    """Return some contours as one outline; none give an empty one."""
    cubics = [(outlines.starts[k + 1] - outlines.starts[k] - 1) // 3 for k in rows]
    commands = "".join("M" + "C" * int(n) + "Z" * bool(outlines.closed[k]) for n, k in zip(cubics, rows, strict=True))
    return commands, np.concatenate([np.zeros((0, 2)), *(outlines.points[outlines.starts[k] : outlines.starts[k + 1]] for k in rows)])


def picked_up(layers: Sequence[Layer], box: tuple[float, float, float, float]) -> Motif:
    """Return what is laid within a region (left, top, right, bottom in mm) as a motif of its own, cut at the region's rim.

    Raises InputError when nothing lies there, LimitError when it is more than a motif may hold.
    """
    left, top, right, bottom = box
    shapes = []
    for layer in layers:
        matrices = matrices_of(layer.laid.placements)
        near = np.flatnonzero(_may_touch(layer, matrices, box))
        if len(near) > MOST_PARTS:
            raise LimitError(f"{len(near)} pieces lie in the region, more than the {MOST_PARTS} parts a motif may have; take a smaller one")
        here = np.array([[1.0, 0.0, -left], [0.0, 1.0, -top]])
        shapes += [mapped(shape, here) for shape in shapes_drawn(layer.motifs, layer.laid, near)]
    if not shapes:
        raise InputError("nothing is laid in this region; pull it over some pieces")
    whole = Motif(tuple(shapes), right - left, bottom - top, (bottom - top) / 2)
    return checked_size(clipped_to_box(whole))


def _may_touch(layer: Layer, matrices: np.ndarray, box: tuple[float, float, float, float]) -> np.ndarray:
    reach = max(np.hypot(m.width, m.height) for m in layer.motifs) * max(np.hypot(matrices[:, 0], matrices[:, 1]).max(initial=0), 1e-9)
    x, y = matrices[:, 4], matrices[:, 5]
    return (x > box[0] - reach) & (x < box[2] + reach) & (y > box[1] - reach) & (y < box[3] + reach)


