"""Draw laid pieces as SVG: compact (each motif once, placed by reference) or plain (own shapes)."""

from __future__ import annotations

import base64
import json
import re
from collections.abc import Callable, Iterable, Iterator, Sequence
from dataclasses import replace
from xml.sax.saxutils import quoteattr

import numpy as np

from ..artwork.fills import without_strokes
from ..artwork.paints import in_own_colours, paints_of
from ..values.drawing import Colours, Drawing, Flat, Group, Item, PagePicture, PaintedPieces
from ..values.motif import Motif, Paint, Shape, Stroke, mapped, picture_of
from ..values.outlines import ShapedOutlines
from .digits import about_numbers, filled, filled_rows
from .meshes import picture_on_mesh
from .svg_servers import Servers, blending, cover, group_markup, literal, short
from .svg_shaped import shaped_markup

BLOCK_PIECES = 20_000  # written in one go: their numbers take some 40 MB on the way; chosen
MOST_COLOURINGS = 64  # of a line's motifs, up to which each is defined once; chosen
COLOUR_OF_USE = ' color="#%06x"'
LETTERS = "abcdefghijklmnopqrstuvwxyz"
TRAILING_ZEROS = re.compile(r"(\.\d*?)0+(?=[^\d]|$)")


def compact_svg(drawing: Drawing) -> str:
    """Draw each artwork once in ``defs`` and each piece as a ``use`` of at most 90 bytes."""
    return "".join(compact_parts(drawing))


def compact_parts(drawing: Drawing) -> Iterator[str]:
    """Yield what ``compact_svg`` writes, part by part; each is given up once it is yielded, so that it lies in memory once."""
    ids: dict[str, str] = {}
    servers = Servers()

    def pieces(item: PaintedPieces) -> str:
        if item.outlines is not None:
            return _shaped(in_own_colours(item), item.outlines, servers, ids)
        own = _own_colours_of(item)
        item = item if own is not None else in_own_colours(item)
        artwork = item.artwork if own is None or item.colours is None else [_in_current_colour(m, item.colours) for m in item.artwork]
        markup = [_shapes_markup(m, servers) for m in artwork]
        numbers = f'%.5f %.5f %.5f %.5f %.3f %.3f)"{_own_cover(item)}{"" if own is None else COLOUR_OF_USE}'
        if len(markup) > MOST_COLOURINGS:
            templates = [f'<g{_all_cover(item)} transform="matrix({numbers}>{literal(shapes)}</g>\n' for shapes in markup]
        else:
            names = [ids.setdefault(f"{_all_cover(item)}>{shapes}", _short_name(len(ids))) for shapes in markup]
            templates = [f'<use href="#{name}" transform="matrix({numbers}/>\n' for name in names]
        columns = [item.matrices, *([] if item.all_cover is not None else [item.covers]), *([] if own is None else [own])]
        table = np.column_stack(columns)
        return _filled(templates, item.motif, lambda index, v: table[index])

    body = _body(drawing.items, pieces, servers)
    defs = servers.markup() + "".join(f'<g id="{name}"{markup}</g>\n' for markup, name in ids.items())
    yield from _document(drawing.width_mm, drawing.height_mm, defs, body, drawing.ground)


def _own_colours_of(item: PaintedPieces) -> np.ndarray | None:
    """Return the one colour (n,) of each piece, 0xRRGGBB, where it is written beside its place; None where pieces have more of them, or
    none of their own.
    """
    if item.colours is None or len(item.colours.table) <= MOST_COLOURINGS:
        return None
    table = item.colours.table
    if any(len(paints_of(motif)) != 1 for motif in item.artwork) or len(np.unique(table[:, 0] & 255)) > 1:
        return None
    return table[item.colours.which, 0] >> 8


def _in_current_colour(motif: Motif, colours: Colours) -> Motif:
    """Return a motif of one paint in the colour that is said where it is placed; all cover alike."""
    opacity = float(colours.table[0, 0] & 255) / 255

    def current(paint: Paint) -> Paint:
        return replace(paint, colour="currentColor", opacity=opacity)

    return replace(motif, shapes=tuple(
        replace(s, fill=s.fill and current(s.fill), stroke=s.stroke and replace(s.stroke, paint=current(s.stroke.paint)))
        for s in motif.shapes
    ))  # fmt: skip


def plain_svg(drawing: Drawing) -> str:
    """Draw each piece as a group of its own shapes, for programs that do not resolve references."""
    servers = Servers()

    def pieces(item: PaintedPieces) -> str:
        item = in_own_colours(item)
        if item.outlines is not None:
            return _shaped(item, item.outlines, servers, None)
        artwork, which = _with_strokes_that_scale(item)
        anchored = [_anchored(m) for m in artwork]
        group = f"<g{_all_cover(item)}{_own_cover(item)}>"
        templates = [f"{group}{_piece_template(shapes, servers)}</g>\n" for shapes in anchored]

        def values(index: np.ndarray, v: int) -> np.ndarray:
            own = [_shape_values(s, item.matrices[index], item.scales[index]) for s in anchored[v]]
            return np.hstack([item.covers[index, None][:, : item.all_cover is None], *own])

        return _filled(templates, which, values)

    body = _body(drawing.items, pieces, servers)
    return "".join(_document(drawing.width_mm, drawing.height_mm, servers.markup(), body, drawing.ground))


def _body(items: Sequence[Item], pieces: Callable[[PaintedPieces], str], servers: Servers) -> list[str]:
    def inside(group: Group) -> tuple[str, str]:
        return "".join(_body(group.items, pieces, servers)), "".join(_body(group.mask, pieces, servers))

    def parts(item: Item) -> Iterable[str]:
        if isinstance(item, PaintedPieces):
            return map(pieces, item.blocks(BLOCK_PIECES))
        if isinstance(item, Group):
            return [group_markup(item, servers, inside)]
        return [_page_picture_markup(item) if isinstance(item, PagePicture) else _flat_markup(item)]

    return [part for item in items for part in parts(item)]


def _page_picture_markup(picture: PagePicture) -> str:
    """Write a picture in its box; one without fills the page pixel for pixel."""
    data = base64.b64encode(picture.png).decode()
    place = 'width="100%" height="100%" image-rendering="optimizeSpeed"'
    if picture.box is not None:
        place = 'x="{}" y="{}" width="{}" height="{}"'.format(*map(short, picture.box))
    return f'<image {place} preserveAspectRatio="none" href="data:image/png;base64,{data}"/>\n'


def _all_cover(item: PaintedPieces) -> str:
    """Write what every piece covers alike, as attributes of a group; nothing where they differ."""
    return "" if item.all_cover is None else cover(item.all_cover, item.blend)


def _own_cover(item: PaintedPieces) -> str:
    """Write the template of what each piece covers, where they differ; nothing where all do alike."""
    return f' opacity="%.3f"{blending(item.blend)}' if item.all_cover is None else ""


def _flat_markup(flat: Flat) -> str:
    return f"<path d={quoteattr(flat.d)} fill={quoteattr(flat.fill)}/>\n"


def _with_strokes_that_scale(item: PaintedPieces) -> tuple[tuple[Motif, ...], np.ndarray]:
    """Return artwork, and each piece's place (n,) in it, whose strokes one width can stand for: where it is stretched they are outlined."""
    if item.similar.all():
        return item.artwork, item.motif
    artwork = (*item.artwork, *map(without_strokes, item.artwork))
    return artwork, np.where(item.similar, item.motif, item.motif + len(item.artwork))


def _shaped(item: PaintedPieces, outlines: ShapedOutlines, servers: Servers, ids: dict[str, str] | None) -> str:
    """Write pieces some of which are shaped; stamped ones by reference to ``ids``, or as their own shapes without them."""

    def attributes(shape: Shape, scale: float) -> str:
        stroke = shape.stroke
        dashes = None if stroke is None else [short(d * scale) for d in _dash_numbers(stroke)]
        return _attributes(shape, servers, stroke_width=None if stroke is None else short(stroke.width * scale), dashes=dashes)

    def picture(shape: Shape, mesh: np.ndarray, seen: str | None) -> str:
        image = _shape_markup(picture_on_mesh(shape, mesh), servers)
        return image if seen is None else f'<g clip-path="url(#{servers.clip(seen)})">{image}</g>'

    def stamped(motif: Motif) -> tuple[str, str]:
        if motif not in markup:
            markup[motif] = _shapes_markup(motif, servers)
        if ids is None:
            return '<g transform="matrix(', f">{markup[motif]}</g>\n"
        name = ids.setdefault(f">{markup[motif]}", _short_name(len(ids)))
        return f'<use href="#{name}" transform="matrix(', "/>\n"

    markup: dict[Motif, str] = {}
    return shaped_markup(item, outlines, attributes, picture, stamped)


def motif_svg(motif: Motif) -> str:
    """Write a motif as an SVG file of its own; reading it back gives the same shapes, recipes and frame."""
    servers = Servers()
    shapes = "".join(_shape_markup(s, servers, kept=True) + "\n" for s in motif.shapes)
    recipes = [{"group": r.group, "kind": r.kind, "figures": dict(r.figures)} for r in motif.recipes]
    more = f" data-recipes={quoteattr(json.dumps(recipes))}" if recipes else ""
    return "".join(_document(motif.width, motif.height, servers.markup(), [shapes], None, more=more))


def path_data(commands: str, points: np.ndarray, *, decimals: int = 4) -> str:
    """Write an outline out of M L C Z as path data."""
    text = _path_template(commands, decimals) % tuple(points.ravel())
    return TRAILING_ZEROS.sub(lambda m: m.group(1).rstrip("."), text)


def shape_attributes(shape: Shape, servers: Servers) -> str:
    """Write a shape's paints as presentation attributes."""
    return _attributes(shape, servers, stroke_width=None if shape.stroke is None else short(shape.stroke.width),
                       dashes=None if shape.stroke is None else [short(d) for d in _dash_numbers(shape.stroke)])  # fmt: skip


def _document(width: float, height: float, defs: str, body: list[str], ground: str | None, *, more: str = "") -> Iterator[str]:
    """Yield a document part by part; ``body`` is used up."""
    w, h = short(width), short(height)
    rect = f'<rect width="{w}" height="{h}" fill={quoteattr(ground)}/>\n' if ground else ""
    defs = f"<defs>\n{defs}</defs>\n" if defs else ""
    yield f'<svg xmlns="http://www.w3.org/2000/svg" width="{w}mm" height="{h}mm" viewBox="0 0 {w} {h}"{more}>\n{defs}{rect}'
    body.reverse()
    while body:
        yield body.pop()
    yield "</svg>\n"


def _short_name(n: int) -> str:
    """Return the n-th name out of letters alone; those of gradients, clips and masks have figures."""
    name = ""
    while n >= 0:
        name, n = LETTERS[n % 26] + name, n // 26 - 1
    return name


def _filled(templates: list[str], which: np.ndarray, values: Callable[[np.ndarray, int], np.ndarray]) -> str:
    """Fill one template a piece, in order; ``which`` (n,) says each one's template, ``values`` gives some pieces' numbers for one.

    The numbers of templates that differ but in what stands about them are written together.
    """
    if not len(which):
        return ""
    if len(templates) == 1:
        return filled(templates[0], values(np.arange(len(which)), 0))
    heads, cores, tails = zip(*map(about_numbers, templates), strict=True)
    order = np.argsort(which, kind="stable")
    bounds = np.searchsorted(which[order], np.arange(len(templates) + 1)).tolist()
    by_core: dict[str, list[int]] = {}
    for v in np.unique(which).tolist():
        by_core.setdefault(cores[v], []).append(v)
    out = np.empty(len(which), object)
    for core, alike in by_core.items():
        own = [order[bounds[v] : bounds[v + 1]] for v in alike]
        out[np.concatenate(own)] = filled_rows(core, np.concatenate([values(index, v) for index, v in zip(own, alike, strict=True)]))
    return "".join([part for v, text in zip(which.tolist(), out.tolist(), strict=True) for part in (heads[v], text, tails[v])])


def _path_template(commands: str, decimals: int) -> str:
    pair = f"%.{decimals}f %.{decimals}f"
    parts = {"M": f"M{pair}", "L": f"L{pair}", "C": f"C{pair} {pair} {pair}", "Z": "Z"}
    return "".join(parts[c] for c in commands)


def _anchored(motif: Motif) -> list[Shape]:
    """Return the shapes about the base line's middle, where placements lay them."""
    shift = np.array([[1.0, 0.0, -motif.width / 2], [0.0, 1.0, -motif.base_line]])
    return [mapped(shape, shift) for shape in motif.shapes]


def _shapes_markup(motif: Motif, servers: Servers) -> str:
    return "".join(_shape_markup(shape, servers) for shape in _anchored(motif))


def _shape_markup(shape: Shape, servers: Servers, *, kept: bool = False) -> str:
    """Write one shape; ``kept`` adds what only our own files know of it."""
    own = _kept_attributes(shape) if kept else ""
    if shape.picture is not None:
        return f'<image transform="matrix({_matrix_text(_picture_matrix(shape))})" {_picture_attributes(shape)}{own}/>'
    return f'<path d="{path_data(shape.commands, shape.points)}"{shape_attributes(shape, servers)}{own}/>'


def _kept_attributes(shape: Shape) -> str:
    out = f" data-name={quoteattr(shape.name)}" if shape.name else ""
    out += f' data-group="{shape.group}"' if shape.group else ""
    out += ' data-derived="1"' if shape.derived else ""
    out += f' data-lies="{shape.lies}"' if shape.lies != "over" else ""
    paints = [paint for paint in (shape.fill, shape.stroke and shape.stroke.paint) if paint]
    return out + (' data-clear="1"' if any(p.opacity == 0 for p in paints) else "")


def _picture_attributes(shape: Shape) -> str:
    picture = picture_of(shape)
    stencil = ' data-stencil="1"' if picture.stencil else ""
    data = base64.b64encode(picture.png).decode()
    return (f'width="{picture.width_px}" height="{picture.height_px}" preserveAspectRatio="none"{stencil} '
            f'href="data:image/png;base64,{data}"')  # fmt: skip


def _picture_matrix(shape: Shape) -> np.ndarray:
    """Return the map (2, 3) from a picture's pixels to its rectangle's corners."""
    origin, right, _, below = shape.points
    picture = picture_of(shape)
    return np.column_stack([(right - origin) / picture.width_px, (below - origin) / picture.height_px, origin])


def _matrix_text(matrix: np.ndarray) -> str:
    return " ".join(f"{v:.8g}" for v in matrix.T.ravel())


def _stays_local(shape: Shape) -> bool:
    """Whether a piece's shape keeps its own coordinates under a transform: pictures and gradients do."""
    paints = [shape.fill, shape.stroke and shape.stroke.paint]
    return shape.picture is not None or any(p is not None and p.gradient is not None for p in paints)


def _piece_template(anchored: list[Shape], servers: Servers) -> str:
    shapes = []
    for shape in anchored:
        if _stays_local(shape):
            shapes.append(f'<g transform="matrix(%.6f %.6f %.6f %.6f %.4f %.4f)">{_shape_markup(shape, servers).replace("%", "%%")}</g>')
            continue
        dashes = None if shape.stroke is None else ["%.3f"] * len(_dash_numbers(shape.stroke))
        width = None if shape.stroke is None else "%.4f"
        attributes = _attributes(shape, servers, stroke_width=width, dashes=dashes)
        shapes.append(f'<path d="{_path_template(shape.commands, 3)}"{attributes}/>')
    return "".join(shapes)


def _shape_values(shape: Shape, matrices: np.ndarray, factor: np.ndarray) -> np.ndarray:
    """Return, a row a piece, the numbers of one shape in the order of its template."""
    if _stays_local(shape):
        return matrices
    linear = matrices[:, :4].reshape(-1, 2, 2)  # rows are the images of the axes
    moved = (shape.points @ linear + matrices[:, None, 4:]).reshape(len(matrices), -1)
    if shape.stroke is None:
        return moved
    return np.hstack([moved, np.outer(factor, [shape.stroke.width, *_dash_numbers(shape.stroke)])])


def _attributes(shape: Shape, servers: Servers, *, stroke_width: str | None, dashes: list[str] | None) -> str:
    out = _paint("fill", shape.fill, servers) if shape.fill else ' fill="none"'
    if shape.fill and shape.fill_rule == "evenodd":
        out += ' fill-rule="evenodd"'
    stroke = shape.stroke
    if stroke is None:
        return out
    out += _paint("stroke", stroke.paint, servers) + f' stroke-width="{stroke_width}"'
    if stroke.cap != "butt":
        out += f' stroke-linecap="{stroke.cap}"'
    if stroke.join != "miter":
        out += f' stroke-linejoin="{stroke.join}"'
    elif stroke.miter_limit != 4:
        out += f' stroke-miterlimit="{short(stroke.miter_limit)}"'
    if not dashes:
        return out
    count = len(stroke.dashes)
    offset = f' stroke-dashoffset="{dashes[count]}"' if dashes[count:] else ""
    return f'{out} stroke-dasharray="{" ".join(dashes[:count])}"{offset}'


def _dash_numbers(stroke: Stroke) -> list[float]:
    """Return a stroke's dashes, and where they begin where that is not at 0."""
    return [*stroke.dashes, stroke.dash_offset] if stroke.dashes and stroke.dash_offset else list(stroke.dashes)


def _paint(key: str, paint: Paint, servers: Servers) -> str:
    opacity = f' {key}-opacity="{short(paint.opacity)}"' if paint.opacity < 1 else ""
    value = paint.colour if paint.gradient is None else f"url(#{servers.id_of(paint.gradient)})"
    return f' {key}="{value}"{opacity}'
