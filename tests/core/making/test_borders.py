"""The seven border arrangements, each with the symmetries that define its frieze group and no other."""

import numpy as np
import pytest

from making import bar, svg
from sewn_garland.core.making.borders import COPIES, arrangement_of, in_arrangement
from sewn_garland.core.making.starters import motif_from_starter
from sewn_garland.core.reading.svg_motif import motif_from_svg

# no symmetry of its own: an asymmetric hook off its base line
HOOK = motif_from_svg(svg('<path d="M1 1H9V3H4V6H1Z" fill="#2c4a84"/><circle cx="8" cy="6" r="1" fill="#a63a2f"/>', 10, 8), base_line_mm=5)

# which of: mirror across an upright line, mirror along, half turn, glide (International Tables, volume E, from memory)
GROUPS = {
    "slide": (False, False, False, False), "glide": (False, False, False, True), "upright": (True, False, False, False),
    "along": (False, True, False, True), "half_turn": (False, False, True, False), "half_turn_glide": (True, False, True, True),
    "all": (True, True, True, True),
}  # fmt: skip


def points_of(variants):
    """Return the on-curve points of a strip's period about the base line, with their colour, and its length."""
    out, at = [], 0.0
    for motif in variants:
        for shape in motif.shapes:
            out += [(x + at, y - motif.base_line, shape.fill.colour) for x, y in shape.points]
        at += motif.width
    return out, at


def same(points, image, length):
    key = lambda p: (round(p[0] % length, 4) % length, round(p[1], 4), p[2])  # noqa: E731
    return {key(p) for p in points} == {key(p) for p in image}


def slid(points, length, move):
    """Tell whether some slide of an image of the points gives the points."""
    xs = {round(p[0], 4) for p in points}
    first = min((move(p) for p in points), key=lambda p: (p[1], p[2], p[0]))
    return any(same(points, [(x + dx, y, c) for x, y, c in map(move, points)], length) for dx in {x - first[0] for x in xs})


@pytest.mark.parametrize("name", sorted(GROUPS))
def test_each_arrangement_has_the_symmetries_of_its_group_and_no_more(name):
    points, length = points_of(in_arrangement(HOOK, name))
    upright, along, half_turn, glide = GROUPS[name]
    assert slid(points, length, lambda p: (-p[0], p[1], p[2])) == upright
    assert same(points, [(x, -y, c) for x, y, c in points], length) == along
    assert slid(points, length, lambda p: (-p[0], -p[1], p[2])) == half_turn
    assert slid(points, length, lambda p: (p[0], -p[1], p[2])) == glide


@pytest.mark.thorough
@pytest.mark.parametrize("name", sorted(GROUPS))
def test_each_is_recognised_from_its_looks(name):
    assert arrangement_of(in_arrangement(HOOK, name)) == name
    assert arrangement_of([m for m in in_arrangement(HOOK, name) for _ in (0,)] * 2) == name  # laid twice it is the same


def test_a_motif_s_own_symmetry_counts():
    assert arrangement_of([bar(10, 4)]) == "all"
    assert arrangement_of([motif_from_starter("leaf")]) in ("along", "slide")
    assert arrangement_of([motif_from_starter("heart")]) == "upright"


def test_frames_are_made_as_high_on_both_sides_and_lengths_stay():
    for name, copies in COPIES.items():
        made = in_arrangement(HOOK, name)
        assert len(made) == len(copies)
        half = 7 if name in ("along", "all") else 5  # the hook crosses its base line, so it is mirrored on its foot
        assert {(m.width, m.height, m.base_line) for m in made} == {(10, 2 * half, half)}
        assert all(np.isfinite(s.points).all() for m in made for s in m.shapes)
