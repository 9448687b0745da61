"""Draw laid pieces as SVG: compact (each motif once, placed by reference) or plain (own shapes)."""

from __future__ import annotations

import re
from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from xml.sax.saxutils import quoteattr

import numpy as np

from ..placing.rigid import matrices_of
from ..values.laid import LaidLine
from ..values.motif import Motif, Paint, Shape

NEEDLESS_ZERO = re.compile(r"(?<![\d.])0(?=\.\d)")
Scenery = Sequence[tuple[str, str]]  # path data and colour
TRAILING_ZEROS = re.compile(r"(\.\d*?)0+(?=[^\d]|$)")


@dataclass(frozen=True, eq=False)
class Layer:
    """One laid line with the motifs, inked, of its brush."""

    motifs: tuple[Motif, ...]
    laid: LaidLine


def compact_svg(
    width_mm: float, height_mm: float, layers: Sequence[Layer], *, ground: str | None = None, scenery: Scenery = ()
) -> str:
    """Draw each motif once in ``defs`` and each piece as a ``use`` of at most 90 bytes.

    ``ground`` is a colour under everything, ``scenery`` flat shapes on it; neither is the default.
    """
    ids: dict[str, str] = {}
    body = []
    for layer in layers:
        names = [ids.setdefault(_shapes_markup(m), _short_name(len(ids))) for m in layer.motifs]
        templates = [f'<use href="#{name}" transform="matrix(%.5f %.5f %.5f %.5f %.3f %.3f)"/>\n' for name in names]
        matrices = matrices_of(layer.laid.placements)
        lines = _filled(templates, layer.laid.placements.variant, lambda i, m=matrices: m[i])
        body.append(NEEDLESS_ZERO.sub("", lines))
    defs = "".join(f'<g id="{name}">{markup}</g>\n' for markup, name in ids.items())
    return _document(width_mm, height_mm, f"<defs>\n{defs}</defs>\n" if defs else "", body, ground, scenery)


def plain_svg(
    width_mm: float, height_mm: float, layers: Sequence[Layer], *, ground: str | None = None, scenery: Scenery = ()
) -> str:
    """Draw each piece as a group of its own shapes, for programs that do not resolve references."""
    body = []
    for layer in layers:
        placements = layer.laid.placements
        matrices, factor = matrices_of(placements), np.abs(placements.scale[:, 0])
        templates = [_piece_template(m) for m in layer.motifs]
        anchored = [[_anchored(s, m) for s in m.shapes] for m in layer.motifs]

        def values(index, variant, matrices=matrices, factor=factor, anchored=anchored):
            return np.hstack([_shape_values(s, p, matrices[index], factor[index]) for s, p in anchored[variant]])

        lines = _filled(templates, placements.variant, values, by_variant=True)
        body.append(TRAILING_ZEROS.sub(lambda m: m.group(1).rstrip("."), lines))
    return _document(width_mm, height_mm, "", body, ground, scenery)


def motif_svg(motif: Motif) -> str:
    """Write a motif as an SVG file of its own; reading it back gives the same shapes and frame."""
    shapes = "".join(_shape_markup(s, s.points) for s in motif.shapes)
    return _document(motif.width, motif.height, "", [shapes + "\n"], None)


def path_data(commands: str, points: np.ndarray, *, decimals: int = 4) -> str:
    """Write an outline out of M L C Z as path data."""
    text = _path_template(commands, decimals) % tuple(points.ravel())
    return TRAILING_ZEROS.sub(lambda m: m.group(1).rstrip("."), text)


def shape_attributes(shape: Shape) -> str:
    """Write a shape's paints as presentation attributes."""
    return _attributes(shape, stroke_width=None if shape.stroke is None else _short(shape.stroke.width),
                       dashes=None if shape.stroke is None else [_short(d) for d in shape.stroke.dashes])  # fmt: skip


def _document(width: float, height: float, defs: str, body: Iterable[str], ground: str | None, scenery: Scenery = ()) -> str:
    w, h = _short(width), _short(height)
    rect = f'<rect width="{w}" height="{h}" fill={quoteattr(ground)}/>\n' if ground else ""
    flats = "".join(f"<path d={quoteattr(d)} fill={quoteattr(fill)}/>\n" for d, fill in scenery)
    return (f'<svg xmlns="http://www.w3.org/2000/svg" width="{w}mm" height="{h}mm" viewBox="0 0 {w} {h}">\n'
            f"{defs}{rect}{flats}{''.join(body)}</svg>\n")  # fmt: skip


def _short(value: float) -> str:
    return f"{value:.6f}".rstrip("0").rstrip(".")


def _short_name(n: int) -> str:
    letters = "abcdefghijklmnopqrstuvwxyz"
    return letters[n] if n < 26 else f"{letters[n % 26]}{n // 26}"


def _filled(templates: list[str], variant: np.ndarray, values, *, by_variant: bool = False) -> str:
    """Fill one template a piece, in order, without a loop over pieces."""
    if not len(variant):
        return ""
    out = np.empty(len(variant), object)
    for v, template in enumerate(templates):
        index = np.flatnonzero(variant == v)
        if len(index):
            table = values(index, v) if by_variant else values(index)
            text = (template * len(index)) % tuple(table.ravel().tolist())
            if len(templates) == 1:
                return text
            out[index] = text.splitlines(keepends=True)
    return "".join(out.tolist())


def _path_template(commands: str, decimals: int) -> str:
    pair = f"%.{decimals}f %.{decimals}f"
    parts = {"M": f"M{pair}", "L": f"L{pair}", "C": f"C{pair} {pair} {pair}", "Z": "Z"}
    return "".join(parts[c] for c in commands)


def _anchored(shape: Shape, motif: Motif) -> tuple[Shape, np.ndarray]:
    return shape, shape.points - (motif.width / 2, motif.base_line)


def _shapes_markup(motif: Motif) -> str:
    return "".join(_shape_markup(shape, points) for shape, points in (_anchored(s, motif) for s in motif.shapes))


def _shape_markup(shape: Shape, points: np.ndarray) -> str:
    return f'<path d="{path_data(shape.commands, points)}"{shape_attributes(shape)}/>'


def _piece_template(motif: Motif) -> str:
    shapes = []
    for shape in motif.shapes:
        dashes = None if shape.stroke is None else ["%.3f"] * len(shape.stroke.dashes)
        width = None if shape.stroke is None else "%.4f"
        attributes = _attributes(shape, stroke_width=width, dashes=dashes)
        shapes.append(f'<path d="{_path_template(shape.commands, 3)}"{attributes}/>')
    return f"<g>{''.join(shapes)}</g>\n"


def _shape_values(shape: Shape, points: np.ndarray, matrices: np.ndarray, factor: np.ndarray) -> np.ndarray:
    """Return, a row a piece, the numbers of one shape in the order of its template."""
    linear = matrices[:, :4].reshape(-1, 2, 2)  # rows are the images of the axes
    mapped = (points @ linear + matrices[:, None, 4:]).reshape(len(matrices), -1)
    if shape.stroke is None:
        return mapped
    return np.hstack([mapped, np.outer(factor, [shape.stroke.width, *shape.stroke.dashes])])


def _attributes(shape: Shape, *, stroke_width: str | None, dashes: list[str] | None) -> str:
    out = _paint("fill", shape.fill) if shape.fill else ' fill="none"'
    if shape.fill and shape.fill_rule == "evenodd":
        out += ' fill-rule="evenodd"'
    stroke = shape.stroke
    if stroke is None:
        return out
    out += _paint("stroke", stroke.paint) + f' stroke-width="{stroke_width}"'
    if stroke.cap != "butt":
        out += f' stroke-linecap="{stroke.cap}"'
    if stroke.join != "miter":
        out += f' stroke-linejoin="{stroke.join}"'
    elif stroke.miter_limit != 4:
        out += f' stroke-miterlimit="{_short(stroke.miter_limit)}"'
    return out + (f' stroke-dasharray="{" ".join(dashes)}"' if dashes else "")


def _paint(key: str, paint: Paint) -> str:
    opacity = f' {key}-opacity="{_short(paint.opacity)}"' if paint.opacity < 1 else ""
    return f' {key}="{paint.colour}"{opacity}'
