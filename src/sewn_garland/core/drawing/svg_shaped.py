"""Draw bent pieces: every piece a group of its own paths, with the paints of its motif's shapes."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import replace
from functools import cache
from typing import Any, NamedTuple

import numpy as np

from ..maths.affine import compose
from ..maths.ragged import run_heads
from ..values.drawing import PaintedPieces
from ..values.motif import Motif, Shape, painted_by, stroke_as_fill
from ..values.outlines import ShapedOutlines
from .digits import filled
from .svg_paths import Paths, paths_of
from .svg_servers import cover

WHOLE, FILL, STROKE, STAMPED, NOTHING_LEFT = range(5)  # kinds of rows
MATRIX = " ".join(["%.5f"] * 6) + "\n"

Attributes = Callable[[Shape, float], str]
PictureOnMesh = Callable[[Shape, np.ndarray, str | None], str]
Stamped = Callable[[Motif], tuple[str, str]]
"""Takes a motif, returns what is written of a piece of it before the numbers of its matrix, and behind what it covers."""


def shaped_markup(
    item: PaintedPieces,
    outlines: ShapedOutlines,
    attributes: Attributes,
    picture: PictureOnMesh,
    stamped: Stamped,
) -> str:
    """Write the pieces in order, shaped ones each as a ``g``, the others as ``stamped`` says with what they cover.

    ``attributes`` writes a shape's paints at a scale, ``picture`` a picture on its mesh
    (rows + 1, columns + 1, 2), seen within path data where it is cut. Gradients turn with the piece as a whole, as its matrix
    (a, b, c, d, e, f) about its base line's middle says.
    """
    of_their_own = any(shape.picture is not None or _has_gradients(shape) for motif in item.artwork for shape in motif.shapes)
    return _one_by_one(item, outlines, attributes, picture, stamped) if of_their_own else _all_at_once(item, outlines, attributes, stamped)


class _Row(NamedTuple):
    """What decides what stands about a path, a stamped piece, or a shaped one of which nothing is left; as columns, of n of them."""

    kind: Any
    shape: Any
    motif: Any
    scale: Any
    covers: Any
    begins_piece: Any
    ends_piece: Any


def _all_at_once(item: PaintedPieces, outlines: ShapedOutlines, attributes: Attributes, stamped: Stamped) -> str:
    """Write pieces whose paints do not turn with them: all numbers in one go, and what stands about them once for all alike."""
    paths = paths_of(outlines)
    alone = np.setdiff1d(np.arange(len(item.motif)), paths.piece)
    scales, scale = np.unique(np.round(item.scales, 9), return_inverse=True)
    covers, covering = np.unique(item.covers, return_inverse=True)
    rows, order = _rows_of(item, outlines.outlined, paths, alone, scale, covering)
    code, first = _numbered(rows)

    @cache
    def paints(kind: int, number: int, v: int, scale: int) -> str:
        own = item.artwork[v].shapes[number]
        drawn = stroke_as_fill(own) if kind == STROKE else replace(own, stroke=None) if kind == FILL else own
        return attributes(drawn, float(scales[scale]))

    def about(row: _Row) -> tuple[str, str]:
        covered = cover(float(covers[row.covers]), item.blend)
        if row.kind == NOTHING_LEFT:
            return f"<g{covered}>", "</g>\n"
        if row.kind == STAMPED:
            head, tail = stamped(item.artwork[row.motif])
            return head, f')"{covered}{tail}'
        begin, end = f"<g{covered}>" if row.begins_piece else "", "</g>\n" if row.ends_piece else ""
        return f'{begin}<path d="', f'"{paints(row.kind, row.shape, row.motif, row.scale)}/>{end}'

    pairs = [about(_Row(*row)) for row in zip(*(column[first].tolist() for column in rows), strict=True)]
    texts = [*paths.texts, *_where_stamped(item, alone)]
    written = zip(code.tolist(), order.tolist(), strict=True)
    return "".join([part for k, row in written for part in (pairs[k][0], texts[row], pairs[k][1])])


def _rows_of(
    item: PaintedPieces, outlined: np.ndarray, paths: Paths, alone: np.ndarray, scale: np.ndarray, covering: np.ndarray
) -> tuple[_Row, np.ndarray]:
    """Return the columns of the rows of paths and of the pieces without any, in the order in which they are written, and that order."""
    has_stroke = np.zeros((len(item.artwork), 1 + max((len(motif.shapes) for motif in item.artwork), default=0)), bool)
    for v, motif in enumerate(item.artwork):
        has_stroke[v, : len(motif.shapes)] = [shape.stroke is not None for shape in motif.shapes]
    is_outlined = np.zeros(len(item.motif), bool)
    is_outlined[outlined] = True
    of_path = np.where(is_outlined[paths.piece], np.where(paths.stroked, STROKE, FILL), WHOLE)
    kind = np.append(of_path, np.where(item.shaped[alone], NOTHING_LEFT, STAMPED))
    piece, shape = np.append(paths.piece, alone), np.append(paths.shape, 0 * alone)
    order = np.argsort(piece, kind="stable")
    piece, kind, shape = piece[order], kind[order], shape[order]
    begins = np.zeros(len(piece), bool)
    begins[run_heads(piece)] = True
    motif = item.motif[piece]
    sized = np.where((kind == WHOLE) & has_stroke[motif, shape], scale[piece], 0)  # all else is painted alike at any scale
    return _Row(kind, shape, motif, sized, covering[piece], begins, np.append(begins[1:], True)[: len(begins)]), order


def _numbered(columns: Sequence[np.ndarray]) -> tuple[np.ndarray, np.ndarray]:
    """Return a number (n,) for each row of whole numbers, equal ones alike, and the first row of each number."""
    code = np.zeros(len(columns[0]), np.int64)
    for column in columns:
        code = np.unique(code * (int(column.max(initial=0)) + 1) + column, return_inverse=True)[1]
    return code, np.unique(code, return_index=True)[1]


def _where_stamped(item: PaintedPieces, pieces: np.ndarray) -> list[str]:
    """Write the matrices of stamped pieces among some, and nothing for those of which nothing is left."""
    written = iter(filled(MATRIX, item.matrices[pieces[~item.shaped[pieces]]]).splitlines())
    return ["" if shaped else next(written) for shaped in item.shaped[pieces].tolist()]


def _one_by_one(
    item: PaintedPieces,
    outlines: ShapedOutlines,
    attributes: Attributes,
    picture: PictureOnMesh,
    stamped: Stamped,
) -> str:
    """Write pieces with pictures or gradients, each of which has its own."""
    paths, meshes = _paths_by_key(outlines), _meshes_of(outlines)
    placed = filled(MATRIX, item.matrices).splitlines()
    motifs, matrices, shaped = item.artwork, item.matrices, item.shaped
    outlined, cut = np.zeros((2, len(item.motif)), bool)
    outlined[outlines.outlined] = cut[outlines.cut] = True
    covering = [cover(opacity, item.blend) for opacity in item.covers.tolist()]
    written: dict[tuple[int, int, str, float], str] = {}
    out = []
    for i, (v, scale) in enumerate(zip(item.motif.tolist(), item.scales.tolist(), strict=True)):
        if not shaped[i]:
            head, tail = stamped(motifs[v])
            out.append(f'{head}{placed[i]})"{covering[i]}{tail}')
            continue
        parts = []
        for number, shape in enumerate(motifs[v].shapes):
            seen = paths.get((i, number, False))
            if shape.picture is not None:
                if seen or not cut[i]:
                    mesh = meshes.get((i, number), _as_stamped(motifs[v], shape, matrices[i]))
                    parts.append(picture(shape, mesh, seen or "" if cut[i] else None))
                continue
            own = _own_paints(shape, motifs[v], matrices[i])
            for what, path, drawn in _painted(own, seen, paths.get((i, number, True)), outlined=outlined[i]):
                key = (v, number, what, round(scale, 9))
                if own is not shape or key not in written:
                    written[key] = attributes(drawn, scale)
                parts.append(f'<path d="{path}"{written[key]}/>')
        out.append(f"<g{covering[i]}>{''.join(parts)}</g>\n")
    return "".join(out)


def _paths_by_key(outlines: ShapedOutlines) -> dict[tuple[int, int, bool], str]:
    """Return the path data of each (piece, shape, is it a stroke outlined)."""
    paths = paths_of(outlines)
    keys = zip(paths.piece.tolist(), paths.shape.tolist(), paths.stroked.tolist(), strict=True)
    return dict(zip(keys, paths.texts, strict=True))


def _meshes_of(outlines: ShapedOutlines) -> dict[tuple[int, int], np.ndarray]:
    """Return the mesh (rows + 1, columns + 1, 2) of each (piece, shape) that is a picture."""
    return {(int(p), int(s)): grid for mesh in outlines.meshes for p, s, grid in zip(mesh.piece, mesh.shape, mesh.points, strict=True)}


def _painted(shape: Shape, filling: str | None, stroked: str | None, *, outlined: bool) -> list[tuple[str, str, Shape]]:
    """Return what is drawn of a shape: a name for it, its path data, and a shape with their paints.

    Of one whose stroke is outlined, fill and stroke have paths of their own.
    """
    if not outlined:
        return [("whole", filling, shape)] if filling else []
    out = [("fill", filling, replace(shape, stroke=None))] if filling else []
    return [*out, ("stroke", stroked, stroke_as_fill(shape))] if stroked else out


def _as_stamped(motif: Motif, shape: Shape, matrix: np.ndarray) -> np.ndarray:
    """Return a picture's four corners on the page as a mesh (2, 2, 2), where its piece is stamped."""
    about = shape.points[[0, 1, 3, 2]] - (motif.width / 2, motif.base_line)
    return (about @ matrix[:4].reshape(2, 2) + matrix[4:]).reshape(2, 2, 2)


def _has_gradients(shape: Shape) -> bool:
    paints = (shape.fill, shape.stroke and shape.stroke.paint)
    return any(paint is not None and paint.gradient is not None for paint in paints)


def _own_paints(shape: Shape, motif: Motif, matrix: np.ndarray) -> Shape:
    """Return a shape whose gradients lie where its piece does; one without gradients as it is."""
    if not _has_gradients(shape):
        return shape
    a, b, c, d, e, f = matrix
    anchor = np.array([[1.0, 0.0, -motif.width / 2], [0.0, 1.0, -motif.base_line]])
    return painted_by(shape, compose(np.array([[a, c, e], [b, d, f]]), anchor))
