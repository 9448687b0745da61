"""Colours as arrays: sRGB, OKLab, CIE Lab, and the difference that an eye sees.

Sources: CSS Color 4 for the conversions; Sharma, Wu and Dalal (2005) for ΔE2000.
"""

from __future__ import annotations

import numpy as np

# CSS Color 4: linear sRGB to XYZ (D65), XYZ D65 to D50 (Bradford), linear sRGB to LMS, LMS to OKLab
XYZ_FROM_RGB = np.array([
    [506752 / 1228815, 87881 / 245763, 12673 / 70218],
    [87098 / 409605, 175762 / 245763, 12673 / 175545],
    [7918 / 409605, 87881 / 737289, 1001167 / 1053270],
])  # fmt: skip
D50_FROM_D65 = np.array([
    [1.0479297925449969, 0.022946870601609652, -0.05019226628920524],
    [0.02962780877005599, 0.9904344267538799, -0.017073799063418826],
    [-0.009243040646204504, 0.015055191490298152, 0.7518742814281371],
])  # fmt: skip
D50_WHITE = np.array([0.3457 / 0.3585, 1.0, (1.0 - 0.3457 - 0.3585) / 0.3585])
EPSILON, KAPPA = 216 / 24389, 24389 / 27


def rgb_from_hex(colour: str) -> np.ndarray:
    """Return ``#rrggbb`` as three shares from 0 to 1."""
    return np.array([int(colour[i : i + 2], 16) for i in (1, 3, 5)]) / 255


def hex_from_rgb(rgb: np.ndarray) -> str:
    """Return three shares, clipped to 0 to 1, as ``#rrggbb``."""
    return "#" + "".join(f"{round(float(v) * 255):02x}" for v in np.clip(rgb, 0, 1))


def linear_from_srgb(rgb: np.ndarray) -> np.ndarray:
    """Undo the sRGB transfer curve (CSS Color 4), any shape."""
    rgb = np.asarray(rgb, float)
    return np.where(np.abs(rgb) <= 0.04045, rgb / 12.92, np.sign(rgb) * ((np.abs(rgb) + 0.055) / 1.055) ** 2.4)


def lab_from_srgb(rgb: np.ndarray) -> np.ndarray:
    """Return CIE Lab (D50, as CSS Color 4's lab()) of sRGB (..., 3) in shares."""
    xyz = linear_from_srgb(rgb) @ (D50_FROM_D65 @ XYZ_FROM_RGB).T / D50_WHITE
    f = np.where(xyz > EPSILON, np.cbrt(xyz), (KAPPA * xyz + 16) / 116)
    return np.stack([116 * f[..., 1] - 16, 500 * (f[..., 0] - f[..., 1]), 200 * (f[..., 1] - f[..., 2])], axis=-1)


def over_white(rgb: np.ndarray, alpha: np.ndarray) -> np.ndarray:
    """Composite sRGB (..., 3) of coverage (...) over white."""
    return rgb * alpha[..., None] + 1 - alpha[..., None]


def delta_e_2000(one: np.ndarray, two: np.ndarray) -> np.ndarray:
    """Return CIEDE2000 differences (...) of Lab colours (..., 3); Sharma, Wu and Dalal's formulation."""
    l1, a1, b1 = np.moveaxis(np.asarray(one, float), -1, 0)
    l2, a2, b2 = np.moveaxis(np.asarray(two, float), -1, 0)
    mean_c = (np.hypot(a1, b1) + np.hypot(a2, b2)) / 2
    g = 0.5 * (1 - np.sqrt(mean_c**7 / (mean_c**7 + 25.0**7)))
    a1, a2 = a1 * (1 + g), a2 * (1 + g)
    c1, c2 = np.hypot(a1, b1), np.hypot(a2, b2)
    h1, h2 = np.degrees(np.arctan2(b1, a1)) % 360, np.degrees(np.arctan2(b2, a2)) % 360
    grey = c1 * c2 == 0
    dh = np.where(grey, 0.0, (h2 - h1 + 180) % 360 - 180)
    dh = np.where(~grey & (h2 - h1 == 180), 180.0, dh)
    big = 2 * np.sqrt(c1 * c2) * np.sin(np.radians(dh) / 2)
    mean_l, mean_c = (l1 + l2) / 2, (c1 + c2) / 2
    apart = np.abs(h1 - h2) > 180
    mean_h = np.where(grey, h1 + h2, (h1 + h2 + np.where(apart, np.where(h1 + h2 < 360, 360, -360), 0)) / 2)
    t = (1 - 0.17 * np.cos(np.radians(mean_h - 30)) + 0.24 * np.cos(np.radians(2 * mean_h))
         + 0.32 * np.cos(np.radians(3 * mean_h + 6)) - 0.20 * np.cos(np.radians(4 * mean_h - 63)))  # fmt: skip
    turn = np.radians(60) * np.exp(-(((mean_h - 275) / 25) ** 2))
    rc = 2 * np.sqrt(mean_c**7 / (mean_c**7 + 25.0**7))
    sl = 1 + 0.015 * (mean_l - 50) ** 2 / np.sqrt(20 + (mean_l - 50) ** 2)
    sc, sh = 1 + 0.045 * mean_c, 1 + 0.015 * mean_c * t
    dl, dc, dh = (l2 - l1) / sl, (c2 - c1) / sc, big / sh
    return np.sqrt(dl**2 + dc**2 + dh**2 - np.sin(turn) * rc * dc * dh)


# CSS Color 4: XYZ (D65) to LMS, cube roots of LMS to OKLab
LMS_FROM_XYZ = np.array([
    [0.8190224379967030, 0.3619062600528904, -0.1288737815209879],
    [0.0329836539323885, 0.9292868615863434, 0.0361446663506424],
    [0.0481771893596242, 0.2642395317527308, 0.6335478284694309],
])  # fmt: skip
OKLAB_FROM_ROOTS = np.array([
    [0.2104542683093140, 0.7936177747023054, -0.0040720430116193],
    [1.9779985324311684, -2.4285922420485799, 0.4505937096174110],
    [0.0259040424655478, 0.7827717124575296, -0.8086757549230774],
])  # fmt: skip
LMS_FROM_RGB = LMS_FROM_XYZ @ XYZ_FROM_RGB
RGB_FROM_LMS, ROOTS_FROM_OKLAB = np.linalg.inv(LMS_FROM_RGB), np.linalg.inv(OKLAB_FROM_ROOTS)
LUMINANCE = XYZ_FROM_RGB[1]
JUST_SEEN, CHROMA_EPSILON = 0.02, 1e-4  # of the gamut mapping: a difference in OKLab, and how closely chroma is sought
MOST_HALVINGS = 16  # of a chroma of at most some units down to that
IN_GAMUT = 1e-9  # chosen: far below a step of eight bits


def oklab_from_srgb(rgb: np.ndarray) -> np.ndarray:
    """Return OKLab (..., 3) of sRGB (..., 3) in shares."""
    return np.cbrt(linear_from_srgb(rgb) @ LMS_FROM_RGB.T) @ OKLAB_FROM_ROOTS.T


def srgb_from_oklab(lab: np.ndarray) -> np.ndarray:
    """Return sRGB (..., 3) of OKLab (..., 3); beyond 0 to 1 where sRGB has no such colour."""
    return srgb_from_linear((np.asarray(lab, float) @ ROOTS_FROM_OKLAB.T) ** 3 @ RGB_FROM_LMS.T)


def srgb_from_linear(linear: np.ndarray) -> np.ndarray:
    """Apply the sRGB transfer curve (CSS Color 4), any shape."""
    size = np.abs(linear)
    return np.where(size <= 0.0031308, 12.92 * linear, np.sign(linear) * (1.055 * size ** (1 / 2.4) - 0.055))


def luminance_of(rgb: np.ndarray) -> np.ndarray:
    """Return the relative luminance (...) of sRGB (..., 3), white 1."""
    return linear_from_srgb(rgb) @ LUMINANCE


def contrast_of(one: np.ndarray, two: np.ndarray) -> np.ndarray:
    """Return the contrast ratio (...) of two colours (..., 3), 1 to 21 (WCAG 2.2)."""
    a, b = luminance_of(one), luminance_of(two)
    return (np.maximum(a, b) + 0.05) / (np.minimum(a, b) + 0.05)


def srgb_within_gamut(lab: np.ndarray) -> np.ndarray:
    """Return sRGB (n, 3), each within 0 to 1, of OKLab (n, 3), by the gamut mapping of CSS Color 4.

    Chroma is taken off until clipping what is left is not seen.
    """
    lab = np.asarray(lab, float).reshape(-1, 3)
    rgb = srgb_from_oklab(lab)
    out = np.clip(rgb, 0.0, 1.0)
    light, dark = lab[:, 0] >= 1.0, lab[:, 0] <= 0.0
    out[light], out[dark] = 1.0, 0.0
    beyond = np.flatnonzero(((rgb < -IN_GAMUT) | (rgb > 1 + IN_GAMUT)).any(axis=1) & ~light & ~dark)
    if len(beyond):
        out[beyond] = _mapped(lab[beyond])
    return out


def _mapped(lab: np.ndarray) -> np.ndarray:
    """Map colours (m, 3) that sRGB has not: halve the range of chroma, where what is clipped is not seen to differ."""
    own, chroma = lab.copy(), np.hypot(lab[:, 1], lab[:, 2])
    way = lab[:, 1:] / np.maximum(chroma, 1e-12)[:, None]
    clipped = np.clip(srgb_from_oklab(own), 0.0, 1.0)
    done = _differs(clipped, own) < JUST_SEEN
    low, high = np.zeros(len(lab)), chroma
    low_within = np.ones(len(lab), bool)
    for _ in range(MOST_HALVINGS):
        open_ = ~done & (high - low > CHROMA_EPSILON)
        if not open_.any():
            break
        middle = (low + high) / 2
        own[:, 1:] = middle[:, None] * way
        rgb = srgb_from_oklab(own)
        within = ~((rgb < -IN_GAMUT) | (rgb > 1 + IN_GAMUT)).any(axis=1)
        new = np.clip(rgb, 0.0, 1.0)
        off = _differs(new, own)
        inside = open_ & low_within & within
        outside = open_ & ~inside
        unseen = outside & (off < JUST_SEEN)
        clipped[outside] = new[outside]
        found = unseen & (JUST_SEEN - off < CHROMA_EPSILON)
        done |= found
        low_within[unseen & ~found] = False
        low = np.where(inside | (unseen & ~found), middle, low)
        high = np.where(outside & ~unseen, middle, high)
        clipped[inside] = new[inside]
    return clipped


def _differs(rgb: np.ndarray, lab: np.ndarray) -> np.ndarray:
    return np.linalg.norm(oklab_from_srgb(rgb) - lab, axis=-1)
