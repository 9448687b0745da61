"""Draw a picture on a mesh: its pixels laid anew where the mesh bends them."""

from __future__ import annotations

from dataclasses import replace
from functools import lru_cache

import numpy as np
import scipy
from PIL import Image, ImageDraw

from ..maths.curves import as_complex
from ..maths.outlines import flattened
from ..maths.raster import png_from_rgba, rgba_from_png
from ..values.motif import Picture, Shape, picture_of

STRAIGHT_MM = 0.01  # a mesh that strays less is drawn by its corners
RIM_SAMPLES = 4  # along a side of a pixel
NEWTON_ROUNDS, SETTLED = 4, 1e-5  # steps, in shares of a cell; the one after is far below a millionth
PIXELS_AT_ONCE = 1 << 18  # some 90 MB on the way; chosen
MOST_PX = 4_000_000  # of one bent picture; chosen: a 40 mm piece at 1 200 dpi


def picture_on_mesh(shape: Shape, mesh: np.ndarray) -> Shape:
    """Return a picture's shape where a mesh (rows + 1, columns + 1, 2) in mm puts it, bent pixel by pixel where it is not straight.

    The new picture is as fine as the old one along its finer side. Its outside is clear.
    """
    corners = np.array([mesh[0, 0], mesh[0, -1], mesh[-1, -1], mesh[-1, 0]])
    rows, columns = (np.linspace(0, 1, n)[:, None] for n in mesh.shape[:2])
    origin, right, _, below = corners
    flat = origin + columns.T[..., None] * (right - origin) + rows[..., None] * (below - origin)
    if np.hypot(*(mesh - flat).reshape(-1, 2).T).max() <= STRAIGHT_MM:
        return replace(shape, points=corners)
    along = np.hypot(*np.diff(mesh, axis=1).reshape(-1, 2).T).max() * (mesh.shape[1] - 1)
    across = np.hypot(*np.diff(mesh, axis=0).reshape(-1, 2).T).max() * (mesh.shape[0] - 1)
    own = picture_of(shape)
    density = max(own.width_px / along, own.height_px / across)
    low, high = mesh.reshape(-1, 2).min(axis=0), mesh.reshape(-1, 2).max(axis=0)
    density = min(density, np.sqrt(MOST_PX / max(np.prod(high - low), 1e-12)))
    width, height = (int(n) for n in np.ceil((high - low) * density) + 2)
    low = low - 1 / density
    where = _pixels_of((_coarser(mesh) - low) * density - 0.5, width, height)
    png = _sampled(own, where)
    right, below = low + np.array([width / density, 0.0]), low + np.array([0.0, height / density])
    picture = Picture(png, width, height, own.stencil)
    return replace(shape, points=np.array([low, right, right + below - low, below]), picture=picture)


def _coarser(mesh: np.ndarray) -> np.ndarray:
    """Return a mesh without the lines that lie half-way between their neighbours: meshes are as fine as the piece that bends most needs."""
    for axis in (0, 1):
        mesh = mesh.swapaxes(0, axis)
        while len(mesh) % 2 and len(mesh) > 2:
            off = mesh[1::2] - (mesh[:-1:2] + mesh[2::2]) / 2
            if np.hypot(off[..., 0], off[..., 1]).max() > STRAIGHT_MM:
                break
            mesh = mesh[::2]
        mesh = mesh.swapaxes(0, axis)
    return mesh


def picture_within(shape: Shape, commands: str, points: np.ndarray) -> Shape:
    """Return a picture's shape clear outside an outline in mm, pixels on its rim by what of them lies within."""
    origin, right, _, below = shape.points
    own = picture_of(shape)
    width, height = own.width_px, own.height_px
    to_px = np.linalg.inv(np.column_stack([(right - origin) / width, (below - origin) / height]))
    finer = RIM_SAMPLES if width * height <= MOST_PX else 1
    mask = Image.new("L", (width * finer, height * finer))
    for ring in flattened(commands, points, tolerance=STRAIGHT_MM):
        ImageDraw.Draw(mask).polygon([tuple(p) for p in ((ring - origin) @ to_px.T * finer - 0.5).tolist()], fill=255)
    cover = np.asarray(mask.reduce(finer) if finer > 1 else mask, float) / 255
    rgba = rgba_from_png(own.png).copy()
    rgba[..., 3] = np.rint(rgba[..., 3] * cover)
    return replace(shape, picture=replace(own, png=png_from_rgba(rgba)))


def _pixels_of(mesh: np.ndarray, width: int, height: int) -> np.ndarray:
    """Return for each pixel (height, width, 3) where in the picture it lies, as shares of its sides, and how far it is covered.

    ``mesh`` is in pixels. Within a cell the map from shares is bilinear and is solved by Newton. The
    rim fades out over the pixel beyond it, so that neighbours that meet leave no light between them.
    """
    cells = np.stack([mesh[:-1, :-1], mesh[:-1, 1:], mesh[1:, :-1], mesh[1:, 1:]], axis=2).reshape(-1, 4, 2)
    least = np.maximum(np.floor(cells.min(axis=1)).astype(int) - 1, 0)
    size = np.maximum(np.minimum(np.ceil(cells.max(axis=1)).astype(int) + 2, (width, height)) - least, 0)
    out = np.zeros((height * width, 3))
    counts = size.prod(axis=1)
    ends = np.cumsum(counts)  # of the pixels about each cell, one cell after another
    for begin in range(0, int(ends[-1]), PIXELS_AT_ONCE):
        numbers = np.arange(begin, min(begin + PIXELS_AT_ONCE, int(ends[-1])))
        cell = np.searchsorted(ends, numbers, side="right")
        place = numbers - (ends - counts)[cell]
        x, y = least[cell, 0] + place % size[cell, 0], least[cell, 1] + place // size[cell, 0]
        shares, cover = _within(as_complex(cells), cell, x + 1j * y, mesh.shape[0] - 1, mesh.shape[1] - 1)
        pixel = y * width + x
        hit = np.flatnonzero((cover >= 0) & (cover >= out[pixel, 2]))
        hit = hit[np.lexsort((cover[hit], pixel[hit]))]
        hit = hit[np.append(np.diff(pixel[hit]) != 0, True)[: len(hit)]]  # that covers most; of equals the last
        out[pixel[hit], :2], out[pixel[hit], 2] = shares[hit], cover[hit]
    return out.reshape(height, width, 3)


def _within(cells: np.ndarray, cell: np.ndarray, at: np.ndarray, rows: int, columns: int) -> tuple[np.ndarray, np.ndarray]:
    """Return, of places ``at`` (n,) about one of the ``cells`` (c, 4) each, row by row, where in the picture they lie (n, 2), and how
    far they are covered (n,), −1 for those that lie in another.
    """
    row, column = np.divmod(cell, columns)
    u, v = _inverse_bilinear(cells[cell].T, at)
    sides = np.abs(cells[:, 1:3] - cells[:, :1])[cell]
    beyond_u, beyond_v = np.maximum(-u, u - 1) * sides[:, 0], np.maximum(-v, v - 1) * sides[:, 1]
    rim_u = np.where(u < 0.5, column == 0, column == columns - 1)
    rim_v = np.where(v < 0.5, row == 0, row == rows - 1)
    hit = (beyond_u <= np.where(rim_u, 1.0, 1e-6)) & (beyond_v <= np.where(rim_v, 1.0, 1e-6))
    cover = np.clip(1 - beyond_u, 0, 1) * np.clip(1 - beyond_v, 0, 1)
    return np.stack([(column + u) / columns, (row + v) / rows], axis=1), np.where(hit, cover, -1.0)


def _inverse_bilinear(corners: np.ndarray, at: np.ndarray) -> tuple[np.ndarray, np.ndarray]:
    """Return the shares (u, v) at which a + u(b − a) + v(c − a) + uv(d − b − c + a) of ``corners`` (4, n) is ``at`` (n,), all complex."""
    a, b, c, d = corners
    e, f, g = b - a, c - a, d - b - c + a
    u, v = np.full(len(at), 0.5), np.full(len(at), 0.5)
    for _ in range(NEWTON_ROUNDS):
        miss = a + u * e + v * (f + u * g) - at
        by_u, by_v = e + v * g, f + u * g
        det = np.imag(by_u.conj() * by_v)
        det = np.where(np.abs(det) < 1e-12, 1e-12, det)
        du, dv = np.imag(miss.conj() * by_v) / det, np.imag(by_u.conj() * miss) / det
        u, v = u - du, v - dv
        if max(np.abs(du).max(initial=0.0), np.abs(dv).max(initial=0.0)) < SETTLED:
            break
    return u, v


def _sampled(picture: Picture, where: np.ndarray) -> bytes:
    """Return a PNG of the picture's pixels at shares of its sides, each covered so far: (height, width, 3)."""
    out = np.zeros((*where.shape[:2], 4), np.uint8)
    covered = where[..., 2] > 0
    *shares, cover = where[covered].T
    places = [shares[1] * picture.height_px - 0.5, shares[0] * picture.width_px - 0.5]
    layers = [scipy.ndimage.map_coordinates(layer, places, order=1, mode="nearest") for layer in _premultiplied(picture.png)]
    alpha = layers[3]
    colour = [np.where(alpha > 0, layer / np.maximum(alpha, 1e-6), 0.0) for layer in layers[:3]]
    out[covered] = np.clip(np.rint(np.stack([*(255 * c for c in colour), 255 * alpha * cover], axis=-1)), 0, 255)
    return png_from_rgba(out)


@lru_cache(maxsize=8)
def _premultiplied(png: bytes) -> np.ndarray:
    """Return a picture's pixels (4, height, width) from 0 to 1, colours times coverage."""
    pixels = rgba_from_png(png).astype(np.float32) / 255
    return np.ascontiguousarray(np.moveaxis(np.concatenate([pixels[..., :3] * pixels[..., 3:], pixels[..., 3:]], axis=-1), -1, 0))
