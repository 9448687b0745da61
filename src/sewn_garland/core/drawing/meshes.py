"""Draw a picture on a mesh: its pixels laid anew where the mesh bends them."""

from __future__ import annotations

from dataclasses import replace
from functools import lru_cache

import numpy as np
import scipy
from PIL import Image, ImageDraw

from ..maths.outlines import flattened
from ..maths.raster import png_from_rgba, rgba_from_png
from ..values.motif import Picture, Shape, picture_of

STRAIGHT_MM = 0.01  # a mesh that strays less is drawn by its corners
RIM_SAMPLES = 4  # along a side of a pixel
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
    where = _pixels_of((mesh - low) * density - 0.5, width, height)
    png = _sampled(own, where)
    right, below = low + np.array([width / density, 0.0]), low + np.array([0.0, height / density])
    picture = Picture(png, width, height, own.stencil)
    return replace(shape, points=np.array([low, right, right + below - low, below]), picture=picture)


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
    rows, columns = mesh.shape[0] - 1, mesh.shape[1] - 1
    out = np.zeros((height, width, 3))
    for row in range(rows):
        for column in range(columns):
            a, b, c, d = mesh[row, column], mesh[row, column + 1], mesh[row + 1, column], mesh[row + 1, column + 1]
            quad = np.array([a, b, c, d])
            x0, y0 = np.maximum(np.floor(quad.min(axis=0)).astype(int) - 1, 0)
            x1, y1 = np.minimum(np.ceil(quad.max(axis=0)).astype(int) + 2, (width, height))
            if x1 <= x0 or y1 <= y0:
                continue
            x, y = np.meshgrid(np.arange(x0, x1), np.arange(y0, y1))
            u, v = _inverse_bilinear(a, b, c, d, x, y)
            beyond_u = np.maximum(-u, u - 1) * np.hypot(*(b - a))
            beyond_v = np.maximum(-v, v - 1) * np.hypot(*(c - a))
            rim_u = np.where(u < 0.5, column == 0, column == columns - 1)
            rim_v = np.where(v < 0.5, row == 0, row == rows - 1)
            hit = (beyond_u <= np.where(rim_u, 1.0, 1e-6)) & (beyond_v <= np.where(rim_v, 1.0, 1e-6))
            cover = np.clip(1 - beyond_u, 0, 1) * np.clip(1 - beyond_v, 0, 1)
            own = out[y0:y1, x0:x1]
            hit &= cover >= own[..., 2]
            own[hit] = np.stack([(column + u[hit]) / columns, (row + v[hit]) / rows, cover[hit]], axis=-1)
    return out


def _inverse_bilinear(a, b, c, d, x: np.ndarray, y: np.ndarray) -> tuple[np.ndarray, np.ndarray]:
    """Return the shares (u, v) at which a + u(b − a) + v(c − a) + uv(d − b − c + a) is (x, y)."""
    u, v = np.full(x.shape, 0.5), np.full(x.shape, 0.5)
    e, f, g = b - a, c - a, d - b - c + a
    for _ in range(4):
        px = a[0] + u * e[0] + v * f[0] + u * v * g[0] - x
        py = a[1] + u * e[1] + v * f[1] + u * v * g[1] - y
        ux, uy, vx, vy = e[0] + v * g[0], e[1] + v * g[1], f[0] + u * g[0], f[1] + u * g[1]
        det = ux * vy - uy * vx
        det = np.where(np.abs(det) < 1e-12, 1e-12, det)
        u, v = u - (px * vy - py * vx) / det, v - (py * ux - px * uy) / det
    return u, v


def _sampled(picture: Picture, where: np.ndarray) -> bytes:
    """Return a PNG of the picture's pixels at shares of its sides, each covered so far: (height, width, 3)."""
    pixels = _premultiplied(picture.png)
    at = where[..., :2] * (picture.width_px, picture.height_px) - 0.5
    places = [at[..., 1], at[..., 0]]
    layers = [scipy.ndimage.map_coordinates(pixels[..., k], places, order=1, mode="nearest") * where[..., 2] for k in range(4)]
    alpha = layers[3]
    colour = [np.where(alpha > 0, layer / np.maximum(alpha, 1e-6), 0.0) for layer in layers[:3]]
    out = np.clip(np.rint(np.stack([*(255 * c for c in colour), 255 * alpha], axis=-1)), 0, 255).astype(np.uint8)
    return png_from_rgba(out)


@lru_cache(maxsize=8)
def _premultiplied(png: bytes) -> np.ndarray:
    """Return a picture's pixels (height, width, 4) from 0 to 1, colours times coverage."""
    pixels = rgba_from_png(png).astype(np.float32) / 255
    return np.concatenate([pixels[..., :3] * pixels[..., 3:], pixels[..., 3:]], axis=-1)
