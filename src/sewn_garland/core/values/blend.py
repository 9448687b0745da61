"""The ways of laying colours on what lies below them: the sixteen of W3C Compositing and Blending 1, by the names it gives them."""

from typing import Literal, get_args

Blend = Literal[
    "normal", "multiply", "screen", "overlay", "darken", "lighten", "color-dodge", "color-burn",
    "hard-light", "soft-light", "difference", "exclusion", "hue", "saturation", "color", "luminosity",
]  # fmt: skip
BLENDS: tuple[Blend, ...] = get_args(Blend)
