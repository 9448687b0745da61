"""Starters against closed forms, and each one's own seam."""

from __future__ import annotations

import numpy as np
import pytest

from sewn_garland.core.artwork.box import ink_box
from sewn_garland.core.artwork.sections import seam_of
from sewn_garland.core.errors import InputError
from sewn_garland.core.making.starters import STARTERS, motif_from_starter
from sewn_garland.core.maths.outlines import area_of

LEANS_OUT = {"rope-strand", "knot"}
# elementary geometry: areas by hand
AREAS = {
    "pill": 6 * 2 + np.pi, "ring": np.pi * (25 - 3.4**2), "link": (7 * 9 + np.pi * 4.5**2) - (7 * 5 + np.pi * 2.5**2), "bar": 25,
    "ellipse": np.pi * 4 * 2.5, "polygon": 1.5 * np.sqrt(3) * 4.5**2, "scallop": 12 * 1.5 + np.pi * 6 * 6 / 2, "wave": 16 * 1.6,
    "star": 5 * 5 * 2.1 * np.sin(np.pi / 5), "zigzag": 8 * 1.4 * np.sqrt(2), "rope-strand": 4 * 8,
}  # fmt: skip


@pytest.mark.parametrize("name", STARTERS)
def test_a_starter_fills_its_frame_and_nothing_else(name):
    motif = motif_from_starter(name)
    left, top, right, bottom = ink_box(motif)
    if name not in LEANS_OUT:
        assert left == pytest.approx(0, abs=0.06)
        assert right == pytest.approx(motif.width, abs=0.06)
    assert top >= -0.01
    assert bottom == pytest.approx(motif.height, abs=0.01)
    assert motif.recipes[0].figure("starter") == name


@pytest.mark.parametrize("name", AREAS)
def test_areas_are_those_of_the_figures(name):
    plain = {"edge": 0} if any(f.name == "edge" for f in STARTERS[name].figures) else {}
    area = sum(abs(area_of(s.commands, s.points)) for s in motif_from_starter(name, plain).shapes)
    assert area == pytest.approx(AREAS[name], rel=1e-4)


@pytest.mark.parametrize("name", ["bar", "wave", "spiral", "scallop", "zigzag", "rope-strand", "knot"])
def test_starters_for_borders_meet_their_own_next_one(name):
    seam = seam_of(motif_from_starter(name))
    assert seam.mismatch_mm < 0.01
    assert seam.slope_deg < 2.5
    edged = any(f.name == "edge" for f in STARTERS[name].figures)  # the section is taken beside the seam, where an edge lies a little lower
    assert seam.delta_e < 0.01 if edged else seam.delta_e == 0


def test_figures_beyond_their_limits_are_refused_in_words():
    with pytest.raises(InputError, match=r"turns of a spiral must be from 1 to 8"):
        motif_from_starter("spiral", {"turns": 9})
    with pytest.raises(InputError, match=r"the wire of a ring must be less than half its diameter"):
        motif_from_starter("ring", {"wire": 6})
    with pytest.raises(InputError, match=r"there is no starter “hexagram”"):
        motif_from_starter("hexagram")
    with pytest.raises(InputError, match=r"Pill has no figure “girth”"):
        motif_from_starter("pill", {"girth": 1})


@pytest.mark.parametrize("name", STARTERS)
@pytest.mark.parametrize("end", ["least", "most"])
def test_figures_at_their_ends_draw_or_say_why_not(name, end):
    for figure in STARTERS[name].figures:
        try:
            motif = motif_from_starter(name, {figure.name: getattr(figure, end)})
        except InputError as error:
            assert len(str(error)) > 20
        else:
            assert all(np.isfinite(s.points).all() for s in motif.shapes)
