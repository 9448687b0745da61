"""Draw bent pieces: every piece a group of its own paths, with the paints of its motif's shapes."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import replace
from functools import cache
from typing import Any, NamedTuple

import numpy as np

from ..maths.affine import compose
from ..maths.ragged import heads, owners, places, ranges, run_heads
from ..values.drawing import PaintedPieces
from ..values.motif import Motif, Shape, painted_by, stroke_as_fill
from ..values.outlines import ShapedOutlines
from .svg_servers import cover, literal

WHOLE, FILL, STROKE, STAMPED, NOTHING_LEFT = range(5)  # kinds of rows
STRAIGHT_MM = 1e-4  # chosen: a tenth of what is written
BLOCK = 50_000  # contours looked at in one go; chosen

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
    """What decides how a contour, a stamped piece, or a shaped one of which nothing is left is written; as columns, of n of them."""

    kind: Any
    shape: Any
    motif: Any
    scale: Any
    covers: Any
    closed: Any
    cubics: Any
    polygon: Any
    begins_path: Any
    ends_path: Any
    begins_piece: Any
    ends_piece: Any


def _all_at_once(item: PaintedPieces, outlines: ShapedOutlines, attributes: Attributes, stamped: Stamped) -> str:
    """Write pieces whose paints do not turn with them: a template for each kind of row, and all numbers in one go."""
    scales, scale = np.unique(np.round(item.scales, 9), return_inverse=True)
    covers, covering = np.unique(item.covers, return_inverse=True)
    polygon = _polygons(outlines)
    rows, order, alone = _rows_of(item, outlines, polygon, scale, covering)
    code, first = _numbered(rows)

    @cache
    def paints(kind: int, number: int, v: int, scale: int) -> str:
        own = item.artwork[v].shapes[number]
        drawn = stroke_as_fill(own) if kind == STROKE else replace(own, stroke=None) if kind == FILL else own
        return literal(attributes(drawn, float(scales[scale])))

    def template(row: _Row) -> str:
        covered = cover(float(covers[row.covers]), item.blend)
        if row.kind == NOTHING_LEFT:
            return f"<g{covered}></g>\n"
        if row.kind == STAMPED:
            head, tail = map(literal, stamped(item.artwork[row.motif]))
            return f'{head}{" ".join(["%.5f"] * 6)})"{covered}{tail}'
        begin = (f"<g{covered}>" if row.begins_piece else "") + ('<path d="' if row.begins_path else "")
        end = f'"{paints(row.kind, row.shape, row.motif, row.scale)}/>' if row.ends_path else ""
        return begin + _contour_template(row.cubics, bool(row.closed), bool(row.polygon)) + end + ("</g>\n" if row.ends_piece else "")

    templates = [template(_Row(*row)) for row in zip(*(column[first].tolist() for column in rows), strict=True)]
    return "".join([templates[number] for number in code.tolist()]) % tuple(_numbers_of(item, outlines, polygon, alone, order).tolist())


def _rows_of(
    item: PaintedPieces, outlines: ShapedOutlines, polygon: np.ndarray, scale: np.ndarray, covering: np.ndarray
) -> tuple[_Row, np.ndarray, np.ndarray]:
    """Return the columns of all rows in the order in which they are written, that order of the contours and then of the pieces
    without any, and these pieces.
    """
    outlined, seen = np.zeros((2, len(item.motif)), bool)
    outlined[outlines.outlined] = seen[outlines.piece] = True
    alone = np.flatnonzero(~seen)
    of_contour = np.where(outlined[outlines.piece], np.where(outlines.stroked, STROKE, FILL), WHOLE)
    kind = np.append(of_contour, np.where(item.shaped[alone], NOTHING_LEFT, STAMPED))
    piece, nothing = np.append(outlines.piece, alone), np.zeros(len(alone), int)
    cubics = (np.diff(outlines.starts) - 1) // 3
    shape, closed, cubics, polygon = (np.append(each, nothing) for each in (outlines.shape, outlines.closed, cubics, polygon))
    order = np.lexsort((kind, shape, piece))
    piece, kind, shape, closed, cubics, polygon = (column[order] for column in (piece, kind, shape, closed, cubics, polygon))
    new_piece, new_path = np.zeros((2, len(piece)), bool)
    new_piece[run_heads(piece)] = new_path[run_heads(piece, shape, kind)] = True
    ends_path, ends_piece = (np.append(new[1:], True)[: len(new)] for new in (new_path, new_piece))
    motif, scale, covering = (column[piece] for column in (item.motif, scale, covering))
    return _Row(kind, shape, motif, scale, covering, closed, cubics, polygon, new_path, ends_path, new_piece, ends_piece), order, alone


def _numbered(columns: Sequence[np.ndarray]) -> tuple[np.ndarray, np.ndarray]:
    """Return a number (n,) for each row of whole numbers, equal ones alike, and the first row of each number."""
    code = np.zeros(len(columns[0]), np.int64)
    for column in columns:
        code = np.unique(code * (int(column.max(initial=0)) + 1) + column, return_inverse=True)[1]
    return code, np.unique(code, return_index=True)[1]


def _numbers_of(item: PaintedPieces, outlines: ShapedOutlines, polygon: np.ndarray, alone: np.ndarray, order: np.ndarray) -> np.ndarray:
    """Return the numbers of all rows in their order: of contours their points, of stamped pieces among those ``alone`` their matrices."""
    of_piece = np.where(item.shaped[alone], 0, 6)
    points, kept = _written(outlines, polygon)
    counts = np.append(2 * kept, of_piece)
    numbers = np.append(points.ravel(), item.matrices[alone[of_piece > 0]].ravel())
    return numbers[ranges(heads(counts)[order], counts[order])]


def _one_by_one(
    item: PaintedPieces,
    outlines: ShapedOutlines,
    attributes: Attributes,
    picture: PictureOnMesh,
    stamped: Stamped,
) -> str:
    """Write pieces with pictures or gradients, each of which has its own."""
    paths, meshes = _paths_of(outlines), _meshes_of(outlines)
    motifs, matrices, shaped = item.artwork, item.matrices, item.shaped
    outlined, cut = np.zeros((2, len(item.motif)), bool)
    outlined[outlines.outlined] = cut[outlines.cut] = True
    covering = [cover(opacity, item.blend) for opacity in item.covers.tolist()]
    written: dict[tuple[int, int, str, float], str] = {}
    out = []
    for i, (v, scale) in enumerate(zip(item.motif.tolist(), item.scales.tolist(), strict=True)):
        if not shaped[i]:
            head, tail = stamped(motifs[v])
            out.append(f'{head}{" ".join(f"{number:.5f}" for number in matrices[i])})"{covering[i]}{tail}')
            continue
        parts = []
        for number, shape in enumerate(motifs[v].shapes):
            seen = paths.get((i, number, False))
            if shape.picture is not None:
                if seen or not cut[i]:
                    mesh = meshes.get((i, number), _as_stamped(motifs[v], shape, matrices[i]))
                    parts.append(picture(shape, mesh, "".join(seen or ()) if cut[i] else None))
                continue
            own = _own_paints(shape, motifs[v], matrices[i])
            for what, contours, drawn in _painted(own, seen, paths.get((i, number, True)), outlined=outlined[i]):
                key = (v, number, what, round(scale, 9))
                if own is not shape or key not in written:
                    written[key] = attributes(drawn, scale)
                parts.append(f'<path d="{"".join(contours)}"{written[key]}/>')
        out.append(f"<g{covering[i]}>{''.join(parts)}</g>\n")
    return "".join(out)


def _paths_of(outlines: ShapedOutlines) -> dict[tuple[int, int, bool], list[str]]:
    """Return path data, a text a contour, of each (piece, shape, is it a stroke outlined)."""
    paths: dict[tuple[int, int, bool], list[str]] = {}
    keys = zip(outlines.piece.tolist(), outlines.shape.tolist(), outlines.stroked.tolist(), strict=True)
    for key, text in zip(keys, _contour_texts(outlines), strict=True):
        paths.setdefault(key, []).append(text)
    return paths


def _meshes_of(outlines: ShapedOutlines) -> dict[tuple[int, int], np.ndarray]:
    """Return the mesh (rows + 1, columns + 1, 2) of each (piece, shape) that is a picture."""
    return {(int(p), int(s)): grid for mesh in outlines.meshes for p, s, grid in zip(mesh.piece, mesh.shape, mesh.points, strict=True)}


def _painted(shape: Shape, filled: list[str] | None, stroked: list[str] | None, *, outlined: bool) -> list[tuple[str, list[str], Shape]]:
    """Return what is drawn of a shape: a name for it, its contours, and a shape with their paints.

    Of one whose stroke is outlined, fill and stroke have contours of their own.
    """
    if not outlined:
        return [("whole", filled, shape)] if filled else []
    out = [("fill", filled, replace(shape, stroke=None))] if filled else []
    return [*out, ("stroke", stroked, stroke_as_fill(shape))] if stroked else out


def _as_stamped(motif: Motif, shape: Shape, matrix: np.ndarray) -> np.ndarray:
    """Return a picture's four corners on the page as a mesh (2, 2, 2), where its piece is stamped."""
    about = shape.points[[0, 1, 3, 2]] - (motif.width / 2, motif.base_line)
    return (about @ matrix[:4].reshape(2, 2) + matrix[4:]).reshape(2, 2, 2)


def _has_gradients(shape: Shape) -> bool:
    paints = (shape.fill, shape.stroke and shape.stroke.paint)
    return any(paint is not None and paint.gradient is not None for paint in paints)


def _polygons(outlines: ShapedOutlines) -> np.ndarray:
    """Tell of every contour (c,) whether all its cubics are straight sides, with handles at their thirds."""
    counts, starts, points = (np.diff(outlines.starts) - 1) // 3, outlines.starts[:-1], outlines.points
    out = counts > 0
    for first in range(0, len(counts), BLOCK):  # so that it takes little beside the outlines themselves
        count = counts[first : first + BLOCK]
        begin = np.repeat(starts[first : first + BLOCK], count) + 3 * places(count)
        a, b, c, d = (points[begin + k] for k in range(4))
        bent = (np.abs(3 * b - 2 * a - d) > STRAIGHT_MM).any(axis=1) | (np.abs(3 * c - a - 2 * d) > STRAIGHT_MM).any(axis=1)
        out[first : first + BLOCK] &= np.bincount(owners(count)[bent], minlength=len(count)) == 0
    return out


def _contour_template(cubics: int, closed: bool, polygon: bool = False) -> str:
    if polygon:
        return "M%.3f %.3f" + "L%.3f %.3f" * (cubics - closed) + ("Z" if closed else "")
    return "M%.3f %.3f" + "C%.3f %.3f %.3f %.3f %.3f %.3f" * cubics + ("Z" if closed else "")


def _own_paints(shape: Shape, motif: Motif, matrix: np.ndarray) -> Shape:
    """Return a shape whose gradients lie where its piece does; one without gradients as it is."""
    if not _has_gradients(shape):
        return shape
    a, b, c, d, e, f = matrix
    anchor = np.array([[1.0, 0.0, -motif.width / 2], [0.0, 1.0, -motif.base_line]])
    return painted_by(shape, compose(np.array([[a, c, e], [b, d, f]]), anchor))


def _written(outlines: ShapedOutlines, polygon: np.ndarray) -> tuple[np.ndarray, np.ndarray]:
    """Return the points (k, 2) that are written, of polygons their corners, and how many of each contour (c,) they are."""
    count = np.diff(outlines.starts)
    if not polygon.any():
        return outlines.points, count
    own = owners(count)
    at = np.arange(len(own)) - outlines.starts[own]
    last = outlines.closed[own] & (at == count[own] - 1)  # closing draws its side
    kept = ~polygon[own] | ((at % 3 == 0) & ~last)
    return outlines.points[kept], np.bincount(own[kept], minlength=len(count))


def _contour_texts(outlines: ShapedOutlines) -> list[str]:
    """Write every contour as path data to a micrometre, all numbers in one go."""
    cubics, polygon = (np.diff(outlines.starts) - 1) // 3, _polygons(outlines)
    keys = list(zip(cubics.tolist(), outlines.closed.tolist(), polygon.tolist(), strict=True))
    templates = {key: _contour_template(*key) for key in set(keys)}
    whole = "\n".join(templates[key] for key in keys)
    text = whole % tuple(_written(outlines, polygon)[0].ravel().tolist())
    return list(text.split("\n")) if len(cubics) else []
