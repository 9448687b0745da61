"""Draw bent pieces: every piece a group of its own paths, with the paints of its motif's shapes."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import replace

import numpy as np

from ..maths.affine import compose
from ..values.drawing import PaintedPieces
from ..values.motif import Motif, Shape, painted_by, stroke_as_fill
from ..values.outlines import ShapedOutlines
from .svg_servers import cover

Attributes = Callable[[Shape, float], str]


def shaped_markup(
    item: PaintedPieces,
    outlines: ShapedOutlines,
    attributes: Attributes,
    picture: Callable[[Shape, np.ndarray, str | None], str],
    stamped: Callable[[Motif, np.ndarray, str], str],
) -> str:
    """Write the pieces in order, shaped ones each as a ``g``, the others as ``stamped`` writes them with what they cover.

    ``attributes`` writes a shape's paints at a scale, ``picture`` a picture on its mesh
    (rows + 1, columns + 1, 2), seen within path data where it is cut. Gradients turn with the piece as a whole, as its matrix
    (a, b, c, d, e, f) about its base line's middle says.
    """
    paths, meshes = _paths_of(outlines), _meshes_of(outlines)
    motifs, matrices, shaped = item.artwork, item.matrices, item.shaped
    outlined, cut = np.zeros((2, len(item.motif)), bool)
    outlined[outlines.outlined] = cut[outlines.cut] = True
    covering = [cover(opacity, item.blend) for opacity in item.covers.tolist()]
    written: dict[tuple[int, int, str, float], str] = {}
    out = []
    for i, (v, scale) in enumerate(zip(item.motif.tolist(), item.scales.tolist(), strict=True)):
        if not shaped[i]:
            out.append(stamped(motifs[v], matrices[i], covering[i]))
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


def _own_paints(shape: Shape, motif: Motif, matrix: np.ndarray) -> Shape:
    """Return a shape whose gradients lie where its piece does; one without gradients as it is."""
    paints = [shape.fill, shape.stroke and shape.stroke.paint]
    if not any(p is not None and p.gradient is not None for p in paints):
        return shape
    a, b, c, d, e, f = matrix
    anchor = np.array([[1.0, 0.0, -motif.width / 2], [0.0, 1.0, -motif.base_line]])
    return painted_by(shape, compose(np.array([[a, c, e], [b, d, f]]), anchor))


def _contour_texts(outlines: ShapedOutlines) -> list[str]:
    """Write every contour as path data to a micrometre, all numbers in one go."""
    cubics = (np.diff(outlines.starts) - 1) // 3
    templates = {(n, z): "M%.3f %.3f" + "C%.3f %.3f %.3f %.3f %.3f %.3f" * n + ("Z" if z else "")
                 for n, z in set(zip(cubics.tolist(), outlines.closed.tolist(), strict=True))}  # fmt: skip
    whole = "\n".join(templates[key] for key in zip(cubics.tolist(), outlines.closed.tolist(), strict=True))
    text = whole % tuple(outlines.points.ravel().tolist())
    return list(text.split("\n")) if len(cubics) else []
