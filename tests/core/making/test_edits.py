"""Changes to a motif, by their names."""

from __future__ import annotations

from dataclasses import replace

import numpy as np
import pytest

from sewn_garland.core.artwork.box import ink_box
from sewn_garland.core.drawing.svg import motif_svg
from sewn_garland.core.errors import InputError
from sewn_garland.core.making.edits import EDITS, edited
from sewn_garland.core.making.live import grading_of
from sewn_garland.core.making.soft_edge import graded
from sewn_garland.core.making.starters import motif_from_starter
from sewn_garland.core.making.weight import weight_of
from sewn_garland.core.maths.colour import delta_e_2000, lab_from_srgb, rgb_from_hex
from sewn_garland.core.maths.outlines import area_of
from sewn_garland.core.reading.svg_motif import motif_from_svg
from sewn_garland.core.values.motif import Paint, mapped


def areas(motif):
    return [abs(area_of(s.commands, s.points)) for s in motif.shapes]


def nested():
    outer = motif_from_starter("ellipse", {"length": 20, "height": 14})
    inner = replace(mapped(outer.shapes[0], np.array([[0.3, 0, 11.5], [0, 0.3, 2.0]])), fill=Paint("#e8b89a"), group=0)
    return replace(outer, shapes=(replace(outer.shapes[0], group=0), inner), recipes=())


def test_parts_are_moved_scaled_turned_mirrored_and_copied():
    bar = motif_from_starter("bar")
    assert ink_box(edited(bar, "move", {"parts": [0], "dx_mm": 2, "dy_mm": -1})) == pytest.approx((2, -1, 12, 1.5))
    assert ink_box(edited(bar, "transform", {"parts": [0], "turn_deg": 90, "about_mm": [0, 0]})) == pytest.approx((-2.5, 0, 0, 10))
    assert areas(edited(bar, "transform", {"parts": [0], "scale_x": -2, "scale_y": 0.5})) == pytest.approx([25])
    five = edited(bar, "duplicate", {"parts": [0], "copies": 4, "turn_deg": 72, "about_mm": [0, 0]})
    assert len(five.shapes) == 5
    assert areas(five) == pytest.approx([25] * 5)
    assert five.recipes  # copying leaves the original's figures alone
    assert not edited(bar, "transform", {"parts": [0], "scale_x": 2}).recipes  # figures no longer say what it is


def test_order_align_group_and_delete():
    two = edited(motif_from_starter("bar"), "duplicate", {"parts": [0], "dx_mm": 3, "dy_mm": 5})
    assert ink_box(
        replace(edited(two, "order", {"parts": [1], "to": "back"}), shapes=edited(two, "order", {"parts": [1], "to": "back"}).shapes[:1])
    )[1] == pytest.approx(5)
    aligned = edited(two, "align", {"parts": [0, 1], "to": "left"})
    assert aligned.shapes[1].points[:, 0].min() == pytest.approx(0)
    centred = edited(two, "align", {"parts": [0, 1], "to": "on_base_line"})
    box = ink_box(centred)
    assert (box[1] + box[3]) / 2 == pytest.approx(two.base_line)
    grouped = edited(two, "group", {"parts": [0, 1]})
    assert len({s.group for s in grouped.shapes}) == 1
    assert {s.group for s in edited(grouped, "ungroup", {"parts": [0]}).shapes} == {0}
    assert len(edited(two, "remove", {"parts": [0]}).shapes) == 1
    with pytest.raises(InputError, match="keeps at least one part"):
        edited(two, "remove", {"parts": [0, 1]})
    with pytest.raises(InputError, match="there is no part 7"):
        edited(two, "move", {"parts": [7], "dx_mm": 0, "dy_mm": 0})


def test_combining_keeps_the_lowest_parts_paint():
    two = edited(motif_from_starter("bar"), "duplicate", {"parts": [0], "dx_mm": 5})
    assert areas(edited(two, "combine", {"parts": [0, 1], "way": "join"})) == pytest.approx([15 * 2.5])
    assert areas(edited(two, "combine", {"parts": [0, 1], "way": "cut_out"})) == pytest.approx([5 * 2.5])
    assert areas(edited(two, "combine", {"parts": [0, 1], "way": "overlap"})) == pytest.approx([5 * 2.5])
    assert areas(edited(two, "combine", {"parts": [0, 1], "way": "exclude"})) == pytest.approx([10 * 2.5])
    apart = edited(two, "move", {"parts": [1], "dx_mm": 50, "dy_mm": 0})
    with pytest.raises(InputError, match="nothing would be left"):
        edited(apart, "combine", {"parts": [0, 1], "way": "overlap"})


def test_points_are_moved_added_removed_and_made_to_flow():
    bar = motif_from_starter("bar")
    wide = edited(bar, "move_nodes", {"part": 0, "contour": 0, "nodes": [1, 2], "dx_mm": 4, "dy_mm": 0})
    assert areas(wide) == pytest.approx([14 * 2.5])
    more = edited(bar, "add_node", {"part": 0, "contour": 0, "side": 0, "at": 0.5})
    assert areas(more) == pytest.approx([25])
    assert more.points == 5
    flowing = edited(more, "flow", {"part": 0, "contour": 0, "nodes": [1], "flowing": True})
    assert "C" in flowing.shapes[0].commands
    pulled = edited(flowing, "handle", {"part": 0, "contour": 0, "node": 1, "side": "out", "x_mm": 5, "y_mm": 3})
    from sewn_garland.core.making.nodes import contours_of

    node = contours_of(pulled.shapes[0].commands, pulled.shapes[0].points)[0]
    assert node.flowing[1]  # the other handle turned along
    assert areas(edited(more, "remove_nodes", {"part": 0, "contour": 0, "nodes": [1]})) == pytest.approx([25])
    flat = edited(bar, "squash", {"part": 0, "contour": 0, "nodes": [0, 1, 2, 3], "along_pct": 100, "across_pct": 50})
    assert areas(flat) == pytest.approx([12.5])
    with pytest.raises(InputError, match="there is no point 9"):
        edited(bar, "move_nodes", {"part": 0, "contour": 0, "nodes": [9], "dx_mm": 1, "dy_mm": 0})


def test_a_mirrored_half_follows_its_original():
    half = edited(motif_from_starter("bar"), "transform", {"parts": [0], "turn_deg": 30})
    whole = edited(half, "mirror", {"parts": [0], "side": "left_right"})
    assert [s.derived for s in whole.shapes] == [False, True]
    moved = edited(whole, "move", {"parts": [0], "dx_mm": 2, "dy_mm": 0})
    a, b = (s.points[:, 0] for s in moved.shapes)
    assert a.max() + b.min() == pytest.approx(moved.width)
    assert len(edited(whole, "remove", {"parts": [1]}).shapes) == 2  # what is derived comes back with its group
    assert [s.derived for s in edited(whole, "ungroup", {"parts": [0]}).shapes] == [False, False]


def test_figures_redraw_a_starter_in_its_place_and_with_its_paint():
    ring = edited(motif_from_starter("ring", {"edge": 0}), "paint", {"parts": [0], "fill": "#123456"})
    thin = edited(ring, "figures", {"group": 1, "figures": {"wire": 0.5, "diameter": 12.0}})
    assert thin.width == 12
    assert thin.shapes[0].fill.colour == "#123456"
    assert areas(thin) == pytest.approx([np.pi * (36 - 5.5**2)], rel=1e-4)


def test_graded_steps_change_by_less_than_can_be_seen_and_no_fewer_would_do():
    """The differences are measured here anew, by ΔE2000 between opaque neighbours."""
    motif = nested()
    found = graded(list(motif.shapes), steps=None)

    def largest(steps):
        made = graded(list(motif.shapes), steps=steps).shapes
        colours = [motif.shapes[0].fill.colour, *(s.fill.colour for s in made), motif.shapes[1].fill.colour]
        lab = lab_from_srgb(np.array([rgb_from_hex(c) for c in colours]))
        return delta_e_2000(lab[:-1], lab[1:]).max()

    assert largest(found.steps) <= 1
    assert largest(found.steps - 1) > 1
    assert found.points == sum(len(s.commands) - s.commands.count("Z") for s in found.shapes)


def test_copies_shrink_one_after_the_other_about_their_centre():
    three = edited(motif_from_starter("ellipse"), "duplicate", {"parts": [0], "copies": 2, "scale": 0.5})
    whole, half, quarter = (s.points for s in three.shapes)
    assert np.ptp(half, axis=0) == pytest.approx(np.ptp(whole, axis=0) / 2)
    assert np.ptp(quarter, axis=0) == pytest.approx(np.ptp(whole, axis=0) / 4)
    assert half.min(axis=0) + half.max(axis=0) == pytest.approx(whole.min(axis=0) + whole.max(axis=0))
    with pytest.raises(InputError, match="the last of 11 copies would be more than a thousand times smaller; make fewer"):
        edited(three, "duplicate", {"parts": [0], "copies": 11, "scale": 0.5})


def test_a_part_that_covers_nothing_stays_to_be_the_rim_of_a_soft_edge():
    clear = edited(nested(), "paint", {"parts": [0], "fill_opacity": 0.0})
    kept = motif_from_svg(motif_svg(clear))
    assert [s.fill for s in kept.shapes] == [s.fill for s in clear.shapes]
    assert kept.shapes[0].fill.opacity == 0
    foreign = motif_svg(clear).replace(' data-clear="1"', "")
    assert len(motif_from_svg(foreign).shapes) == 1


def test_see_through_steps_add_up_to_the_wanted_cover():
    motif = nested()
    outer, inner = (replace(s, fill=replace(s.fill, opacity=o)) for s, o in zip(motif.shapes, (0.1, 0.8), strict=True))
    found = graded([outer, inner], steps=9)
    covers = [found.own_covers[0], *(s.fill.opacity for s in found.shapes), found.own_covers[1]]
    assert 1 - np.cumprod([1 - c for c in covers]) == pytest.approx(np.linspace(0.1, 0.8, 11), abs=1 / 255)  # whole levels of 8 bits
    with pytest.raises(InputError, match="covers must rise toward the inside"):
        graded([inner, outer], steps=3)


def test_a_soft_edge_is_graded_anew_when_its_inner_shape_moves():
    soft = edited(nested(), "soft_edge", {"parts": [0, 1], "steps": 6})
    assert sum(s.derived for s in soft.shapes) == 6
    moved = edited(soft, "move", {"parts": [7], "dx_mm": 3, "dy_mm": 3})
    middle = [s.points.mean(axis=0) for s in (soft.shapes[3], moved.shapes[3])]
    assert middle[1] - middle[0] == pytest.approx(3 * 3 / 7, abs=0.05)
    assert grading_of(moved, moved.shapes[0].group).steps == 6
    more = edited(moved, "figures", {"group": moved.shapes[0].group, "figures": {"steps": 12}})
    assert sum(s.derived for s in more.shapes) == 12


def test_light_falls_on_the_same_side_of_every_ring():
    rings = edited(motif_from_starter("ring", {"edge": 0}), "duplicate", {"parts": [0], "dx_mm": 12, "turn_deg": 120})
    lit = edited(
        rings,
        "light",
        {"parts": [0, 1], "kind": "highlight", "from_deg": -90, "width_mm": 0.5, "colour": "#ffffff", "opacity": 0.6, "inset_mm": 0},
    )
    assert len(lit.shapes) == 4
    for ring, light in ((0, 1), (2, 3)):
        outside = lit.shapes[light].points[:, 1].min()
        assert outside == pytest.approx(lit.shapes[ring].points[:, 1].min(), abs=0.01)
    shade = edited(
        rings,
        "light",
        {"parts": [0], "kind": "shadow", "from_deg": -90, "width_mm": 0.5, "colour": "#000000", "opacity": 0.3, "inset_mm": 0},
    )
    assert shade.shapes[1].points[:, 1].max() == pytest.approx(10, abs=0.01)
    # a ring lit from one side: each rim's crescent, r² − overlap of two circles moved by d (closed form), inner one reversed
    assert area_of(lit.shapes[1].commands, lit.shapes[1].points) == pytest.approx(2 * 0.5 * (5 + 3.4), rel=0.02)


def test_a_back_fills_the_hole_and_grows():
    backed = edited(
        motif_from_starter("ring", {"edge": 0}), "back", {"parts": [0], "colour": "#ffffff", "grow_mm": 0.5, "fill_holes": True}
    )
    assert areas(backed)[0] == pytest.approx(np.pi * 5.5**2, rel=1e-3)
    assert backed.shapes[0].name == "Back"


def test_gradients_run_as_asked_and_survive_keeping():
    filled = edited(
        motif_from_starter("bar"),
        "gradient",
        {
            "parts": [0],
            "kind": "linear",
            "angle_deg": 0,
            "stops": [{"offset": 0, "colour": "#000000"}, {"offset": 1, "colour": "#ffffff", "opacity": 0.5}],
        },
    )
    kept = motif_from_svg(motif_svg(filled)).shapes[0].fill.gradient
    assert kept.matrix == pytest.approx((10, 0, 0, 10, 0, 1.25))
    assert [(s.colour, s.opacity) for s in kept.stops] == [("#000000", 1), ("#ffffff", 0.5)]


def test_recipes_survive_keeping():
    soft = edited(nested(), "soft_edge", {"parts": [0, 1], "steps": 3})
    kept = motif_from_svg(motif_svg(soft))
    assert kept.recipes == soft.recipes
    assert [s.derived for s in kept.shapes] == [s.derived for s in soft.shapes]


def test_resizing_says_what_becomes_of_strokes():
    stroked = edited(motif_from_starter("bar"), "paint", {"parts": [0], "stroke": "#000000", "stroke_width_mm": 0.4})
    small = edited(stroked, "resize", {"width_mm": 2})
    assert small.shapes[0].stroke.width == pytest.approx(0.08)
    assert "Strokes of 0.40 mm become 0.08 mm." in small.left_out
    assert any("below 0.1 mm" in s for s in small.left_out)


@pytest.mark.thorough
def test_a_heavy_motif_is_told_with_a_cure_that_makes_it_lighter():
    ring = motif_from_starter("ring", {"edge": 0})
    frayed = edited(ring, "fray", {"parts": [0], "depth_mm": 0.05, "tufts_per_cm": 300, "snapped": False, "seed": 1})
    weight = weight_of(frayed)
    assert weight.word == "heavy"
    assert "make pages slow" in weight.warning
    lighter = edited(frayed, "thin", {"parts": [0], "tolerance_mm": weight.thin_mm})
    assert lighter.points == weight.thin_points < frayed.points
    assert weight_of(ring).word == "light"


@pytest.mark.parametrize("name", EDITS)
def test_every_change_refuses_parts_that_are_not_there_or_needs_none(name):
    import inspect

    change = inspect.signature(EDITS[name].change)
    if "parts" in change.parameters or name in ("thin", "fray"):
        with pytest.raises((InputError, TypeError)):
            edited(motif_from_starter("bar"), name, {"parts": [99]})
