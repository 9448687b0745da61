"""What polygons cover both, against GEOS (shapely), which cuts them."""

import numpy as np
import pathops
import pytest
import shapely

from sewn_garland.core.maths.covered import covered_by_both


def ring(points):
    return np.append(points, points[:1])


def sides(count):
    return np.arange(count), np.ones(count)


def wound(points):
    """Return what a ring winds about: of the faces that it shuts in those about a point of which it turns."""
    line, faces = shapely.node(shapely.LineString(np.c_[points.real, points.imag])), []
    for face in shapely.get_parts(shapely.polygonize(shapely.get_parts(line))):
        inside = shapely.point_on_surface(face)
        turned = np.angle((points[1:] - complex(inside.x, inside.y)) / (points[:-1] - complex(inside.x, inside.y))).sum()
        faces += [face] if round(turned / (2 * np.pi)) else []
    return shapely.union_all(faces)


@pytest.mark.parametrize("corners", [5, 60, 400])
def test_rings_that_cross_themselves_cover_what_they_wind_about(corners):
    """By faces of GEOS: wound about once or more, either way round."""
    rng = np.random.default_rng(corners)
    walks = np.cumsum(rng.normal(size=(8, corners)) + 1j * rng.normal(size=(8, corners)), axis=1)
    rings = np.array([ring(walk - walk.mean()) for walk in walks])
    shapes, extent = np.array([wound(points) for points in rings]), np.ptp(rings.real) * np.ptp(rings.imag)
    one, two = np.arange(8), np.append(np.arange(1, 8), 7)
    found = covered_by_both(rings[one], *sides(corners), rings[two], *sides(corners))
    assert found == pytest.approx(shapely.area(shapely.intersection(shapes[one], shapes[two])), abs=2e-4 * extent)
    assert found.max() > 0.05 * extent


def test_what_a_ring_leaves_out_is_not_covered():
    square, hole = ring(np.array([0, 10, 10 + 10j, 10j])), ring(np.array([2 + 2j, 8 + 2j, 8 + 8j, 2 + 8j]))
    begins, weights = np.array([0, 1, 2, 3, 5, 6, 7, 8]), np.repeat([1.0, -1.0], 4)
    both = np.concatenate([square, hole])[None]
    assert covered_by_both(both, begins, weights, square[None] + 5, *sides(4)) == pytest.approx([50 - 3 * 6], rel=1e-3)
    assert covered_by_both(both, begins, weights, hole[None], *sides(4)) == pytest.approx([0.0], abs=1e-9)


def test_those_apart_and_those_without_height_cover_nothing_both():
    square, flat = ring(np.array([0, 1, 1 + 1j, 1j])), ring(np.array([0, 1, 2, 3]) + 0.5j)
    two = np.stack([square + 5, square + 5j, flat])
    assert covered_by_both(np.stack([square] * 3), *sides(4), two, *sides(4)).tolist() == [0.0, 0.0, 0.0]
    assert len(covered_by_both(np.zeros((0, 5), complex), *sides(4), np.zeros((0, 5), complex), *sides(4))) == 0


def test_folded_rings_with_holes_cover_what_another_engine_fills_by_winding():
    """Against Skia's boolean engine: a ring drawn about a hole, both folded over themselves, as what is bent in a corner does."""
    circle, dice = np.exp(2j * np.pi * np.arange(40) / 40), np.random.default_rng(3)
    begins, weights = np.append(np.arange(40), 41 + np.arange(40)), np.repeat([1.0, -1.0], 40)

    def folded(z, bend):
        return z.real * np.exp(1j * bend * z.real) + 1j * z.imag * np.exp(1j * bend * z.real) * (1 - z.real)

    shapes = [np.concatenate([ring(folded(3 * circle, bend)), ring(folded(1.5 * circle, bend))]) for bend in dice.uniform(0.2, 1.2, 20)]
    found = covered_by_both(np.array(shapes[:-1]), begins, weights, np.array(shapes[1:]), begins, weights)
    for one, two, area in zip(shapes[:-1], shapes[1:], found, strict=True):
        both = pathops.op(filled(one[:41], one[41:]), filled(two[:41], two[41:]), pathops.PathOp.INTERSECTION, fix_winding=True)
        assert area == pytest.approx(abs(both.area) / 100**2, abs=0.02) and area > 1


def filled(shell, hole):
    """Return a ring about a hole, which is drawn the other way round, as a path filled by winding, a hundred times as large."""
    path = pathops.Path(fillType=pathops.FillType.WINDING)
    for points in (shell[:-1], hole[:0:-1]):
        path.moveTo(100 * points[0].real, 100 * points[0].imag)
        for z in points[1:]:
            path.lineTo(100 * z.real, 100 * z.imag)
        path.close()
    return path
