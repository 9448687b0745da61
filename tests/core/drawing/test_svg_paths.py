import re
from itertools import pairwise

import numpy as np
import pytest

from sewn_garland.core.drawing.svg_paths import POINTS_AT_ONCE, paths_of
from sewn_garland.core.values.outlines import ShapedOutlines

NUMBER = r"-?(?:\d+\.?\d*|\.\d+)"


def outlines_of(contours) -> ShapedOutlines:
    """Outlines of contours (points, closed, piece, shape, stroked)."""
    points, closed, piece, shape, stroked = (list(column) for column in zip(*contours, strict=True))
    starts = np.cumsum([0, *map(len, points)])
    nothing = np.zeros(0, int)
    return ShapedOutlines(
        np.concatenate(points), starts, np.array(closed), np.array(piece), np.array(shape), np.array(stroked), np.unique(piece),
        nothing, nothing,
    )  # fmt: skip


def side(a, b) -> np.ndarray:
    return np.array([a + (np.subtract(b, a)) * k / 3 for k in (1, 2, 3)])


def polygon(*corners) -> np.ndarray:
    points = [np.array([corners[0]], float)]
    return np.concatenate([*points, *(side(np.array(a, float), b) for a, b in pairwise(corners))])


def read(text: str) -> list[tuple[str, list[float]]]:
    """Commands and their numbers, by the grammar of path data in SVG 2."""
    tokens = re.findall(rf"[MLCZ]|{NUMBER}", text)
    out: list[tuple[str, list[float]]] = []
    for token in tokens:
        if token in "MLCZ":
            out.append((token, []))
        else:
            out[-1][1].append(float(token))
    return out


def test_straight_sides_are_corners_and_a_closing_side_is_left_to_the_z():
    square = polygon((0, 0), (10, 0), (10, 4.5), (0, 4.5), (0, 0))
    paths = paths_of(outlines_of([(square, True, 0, 0, False), (polygon((1, 1), (-2, 0.25)), False, 0, 0, False)]))
    assert paths.texts == ["M0 0L10 0L10 4.5L0 4.5ZM1 1L-2 .25"]


def test_a_path_is_the_contours_of_a_shape_and_another_those_of_its_stroke():
    a, b, c = polygon((0, 0), (1, 0)), polygon((0, 1), (1, 1)), polygon((0, 2), (1, 2))
    paths = paths_of(outlines_of([(a, False, 3, 1, True), (b, False, 3, 1, False), (c, False, 3, 0, False)]))
    assert paths.texts == ["M0 2L1 2", "M0 1L1 1", "M0 0L1 0"]
    assert paths.piece.tolist() == [3, 3, 3]
    assert paths.shape.tolist() == [0, 1, 1]
    assert paths.stroked.tolist() == [False, False, True]


@pytest.mark.parametrize("seed", range(4))
def test_curves_read_back_within_half_a_micrometre(seed):
    rng = np.random.default_rng(seed)
    contours = []
    for piece in range(300):
        for shape in range(int(rng.integers(1, 4))):
            for _ in range(int(rng.integers(1, 4))):
                points = rng.normal(0, 10.0 ** rng.integers(-2, 5), (1 + 3 * int(rng.integers(0, 40)), 2))
                contours.append((points, bool(rng.random() < 0.5), piece, shape, False))
    assert sum(len(points) for points, *_ in contours) > POINTS_AT_ONCE
    texts = paths_of(outlines_of(contours)).texts
    whole = [command for text in texts for command in read(text)]
    for points, closed, *_ in contours:
        written = [whole.pop(0)]
        while whole and whole[0][0] == "C":
            written.append(whole.pop(0))
        assert written[0][0] == "M"
        assert [len(numbers) for _, numbers in written] == [2] + [6] * (len(points) // 3)
        numbers = np.array([number for _, numbers in written for number in numbers]).reshape(-1, 2)
        assert np.abs(numbers - points).max() <= 0.0005 + 1e-9
        if closed:
            assert whole.pop(0) == ("Z", [])
    assert not whole


def test_nothing_is_no_paths():
    nothing = np.zeros(0, int)
    empty = ShapedOutlines(np.zeros((0, 2)), np.zeros(1, int), nothing == 1, nothing, nothing, nothing == 1, nothing, nothing, nothing)
    assert paths_of(empty).texts == []


def test_straight_sides_beside_curves_are_lines_too():
    bow = np.array([[10, 3], [7, 6], [4, 6]], float)
    outline = np.concatenate([polygon((0, 0), (10, 0)), bow, side((4, 6), (0, 0))])
    paths = paths_of(outlines_of([(outline, True, 0, 0, False), (outline, False, 0, 1, False)]))
    assert paths.texts == ["M0 0L10 0C10 3 7 6 4 6Z", "M0 0L10 0C10 3 7 6 4 6L0 0"]


def test_handles_that_are_not_at_the_thirds_by_more_than_can_be_written_make_a_curve():
    points = np.array([[0, 0], [1, 0.0001], [2, 0], [3, 0]], float)
    assert paths_of(outlines_of([(points, False, 0, 0, False)])).texts == ["M0 0C1 0 2 0 3 0"]
    points[1, 1] = 0.00003
    assert paths_of(outlines_of([(points, False, 0, 0, False)])).texts == ["M0 0L3 0"]


SHORT = r"-?(?:0|[1-9]\d*|(?:[1-9]\d*)?\.\d*[1-9])"


@pytest.mark.parametrize("at", [0.0, -0.0004, 0.0005, 0.0015, -0.9996, 9.9995, -99.95, 1234567.891, 999999999999.0, 4e12, -2.5e15, 1e300])
def test_numbers_are_the_nearest_in_as_few_letters_as_they_need(at):
    """Those of a thousand kilometres and more are as they come."""
    points = np.array([[at, 1 + k] for k in range(4)])
    [text] = paths_of(outlines_of([(points, False, 0, 0, False)])).texts
    [[_, (begin, _)], [_, (end, _)]] = read(text)
    assert begin == end == pytest.approx(at, rel=1e-15, abs=0.00051)
    assert re.fullmatch(rf"M{SHORT} 1L{SHORT} 4", text) or abs(at) >= 1e12
