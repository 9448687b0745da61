"""See-through soft edges as Chromium's canvas draws them, layer on layer in 8 bits."""

from __future__ import annotations

from dataclasses import replace

import numpy as np
import pytest

from sewn_garland.core.making.soft_edge import graded
from sewn_garland.core.making.starters import motif_from_starter
from sewn_garland.core.maths.colour import delta_e_2000, lab_from_srgb, rgb_from_hex
from sewn_garland.core.values.motif import Paint, mapped

pytestmark = pytest.mark.browser
DRAWN = """([ground, layers]) => {
    const ctx = Object.assign(document.createElement("canvas"), { width: 8, height: 8 }).getContext("2d");
    ctx.fillStyle = ground;
    ctx.fillRect(0, 0, 8, 8);
    return layers.map(([fill, opacity]) => {
        ctx.globalAlpha = opacity;
        ctx.fillStyle = fill;
        ctx.fillRect(-4, -4, 20, 20);
        return [...ctx.getImageData(3, 3, 1, 1).data].slice(0, 3);
    });
}"""


@pytest.mark.parametrize(("outer", "inner", "largest"), [
    (("#203050", 0.0), ("#203050", 0.5), 1.25), (("#000000", 0.0), ("#000000", 0.4), 1.0),
    (("#d0a020", 0.0), ("#d0a020", 0.3), 2.0), (("#1d5d4a", 0.1), ("#203050", 0.8), 1.0), (("#203050", 1.0), ("#9db4d0", 1.0), 1.0),
])  # fmt: skip
def test_the_fewest_steps_are_not_seen_and_keep_their_hue_on_a_real_canvas(browser, outer, inner, largest):
    """On white under dark colours, on black under light ones: where no count of whole levels gives 1, the least there is; a faint light one is worst."""
    ellipse = motif_from_starter("ellipse").shapes[0]
    shapes = [
        replace(mapped(ellipse, np.array([[scale, 0.0, 0.0], [0.0, scale, 0.0]])), fill=Paint(*paint))
        for scale, paint in ((6.0, outer), (1.0, inner))
    ]
    found = graded(shapes, steps=None)
    ground = 255.0 if lab_from_srgb(rgb_from_hex(inner[0]))[0] < 60 else 0.0
    layers = [[outer[0], found.own_covers[0]], *([s.fill.colour, s.fill.opacity] for s in found.shapes)]
    page = browser.new_page()
    drawn = np.array(page.evaluate(DRAWN, ["#ffffff" if ground else "#000000", layers]), float)
    page.close()
    share = np.arange(len(drawn))[:, None] / len(drawn)
    (c0, a0), (c1, a1) = ((rgb_from_hex(c) * 255, o) for c, o in (outer, inner))
    wanted = c0 * a0 + (c1 * a1 - c0 * a0) * share + ground * (1 - (a0 + (a1 - a0) * share))
    lab, ideal = (lab_from_srgb(c / 255) for c in (drawn, wanted))
    assert delta_e_2000(lab, ideal).max() < 1.5 * max(largest, 1)
    assert delta_e_2000(lab[1:], lab[:-1]).max() <= found.largest_difference + 1e-9
    assert found.largest_difference <= largest
