"""Strokes as hands draw them: the spectrum of what is left of a tremor by SciPy, corners by where they were meant."""

import itertools

import numpy as np
import pytest
from scipy import signal

from sewn_garland.core.errors import InputError
from sewn_garland.core.measuring.arc_length import frames_at, measure
from sewn_garland.core.measuring.hand import knots_of_hand, line_of_hand

RATE = 125.0


def trembling(path, speed=80.0, amplitude=0.5, hz=10.0, seed=4):
    """Return a path (n, 2) run through at so many mm/s, with a tremor across and along it, and the times in ms."""
    along = np.concatenate([[0], np.cumsum(np.hypot(*np.diff(path, axis=0).T))])
    t = np.arange(0, along[-1] / speed, 1 / RATE)
    clean = np.stack([np.interp(speed * t, along, path[:, i]) for i in range(2)], axis=1)
    phase = np.random.default_rng(seed).uniform(0, 2 * np.pi, 2)
    shake = amplitude * np.sin(2 * np.pi * hz * t[:, None] + phase)
    return clean, clean + shake, 1000 * t


def wave():
    x = np.linspace(0, 240, 4000)
    return np.stack([x, 18 * np.sin(2 * np.pi * x / 80)], axis=1)


@pytest.mark.parametrize("hz", [8.5, 10.0, 11.5])
def test_less_than_a_twentieth_of_a_tremor_s_energy_is_left(hz):
    clean, shaky, times = trembling(wave(), hz=hz)
    line = measure(line_of_hand(shaky, times, smooth_pct=35))
    s = np.linspace(0, line.length, len(times))
    energy = []
    for path in (shaky, frames_at(line, s).position):
        off = path - clean if path is shaky else path - _nearest(clean, path)
        f, power = signal.periodogram(off, RATE, axis=0)
        energy.append(power[(f >= 8) & (f <= 12)].sum())
    assert energy[1] < 0.05 * energy[0]


def _nearest(clean, path):
    return clean[np.hypot(*(clean[None] - path[:, None]).transpose(2, 0, 1)).argmin(axis=1)]


@pytest.mark.parametrize(("high", "long"), [(18, 80), (8, 40), (12, 60)])
def test_no_crest_of_a_wave_is_taken_for_a_corner(high, long):
    x = np.linspace(0, 240, 6000)
    for seed in range(3):
        _, shaky, times = trembling(np.stack([x, high * np.sin(2 * np.pi * x / long)], axis=1), seed=seed, amplitude=0.3)
        assert knots_of_hand(shaky, times, smooth_pct=35)[1].all()


@pytest.mark.parametrize(("high", "long", "radius"), [(5, 25, 3.2), (6, 25, 2.6), (4, 20, 2.5), (8, 25, 2.0)])
def test_crests_of_few_millimetres_are_bends_too(high, long, radius):
    """A sine's tightest radius is 1/(A·k²); the lines along its sides cross far beyond its crests, which a corner would reach."""
    assert 1 / (high * (2 * np.pi / long) ** 2) == pytest.approx(radius, abs=0.05)
    x = np.linspace(0, 240, 6000)
    for speed in (30, 80):
        _, shaky, times = trembling(np.stack([x, high * np.sin(2 * np.pi * x / long)], axis=1), seed=1, amplitude=0.2, speed=speed)
        assert knots_of_hand(shaky, times, smooth_pct=35)[1].all()


def test_the_bends_of_a_trembling_wave_are_the_wave_s():
    """A sine's tightest radius is 1/(A·k²) at its crests; a tremor of 0.5 mm would make one of a few mm."""
    _, shaky, times = trembling(wave())
    line = measure(line_of_hand(shaky, times, smooth_pct=35))
    truth = 1 / (18 * (2 * np.pi / 80) ** 2)
    assert line.tightest_radius > 0.7 * truth
    assert len(line.line.coeffs) < 70
    raw = measure(line_of_hand(shaky, times, smooth_pct=0))
    assert raw.tightest_radius < 0.4 * truth


@pytest.mark.parametrize("turn", [80.0, 90.0, 120.0])
def test_corners_that_were_meant_stay_where_they_were_meant(turn):
    legs = [np.array([0.0, 0.0])]
    for k in range(4):
        way = np.radians(turn) * (k % 2)
        legs.append(legs[-1] + 45 * np.array([np.cos(way), np.sin(way)]))
    clean = np.vstack([np.linspace(a, b, 400)[:-1] for a, b in itertools.pairwise(legs)])
    _, shaky, times = trembling(clean, amplitude=0.5)
    points, flowing = knots_of_hand(shaky, times, smooth_pct=35)
    found = points[~flowing]
    assert len(found) == 3
    for corner, meant in zip(found, legs[1:-1], strict=True):
        assert np.hypot(*(corner - meant)) < 0.3
    line = measure(line_of_hand(shaky, times, smooth_pct=35))
    assert np.degrees(np.abs(line.vertex_turn)).max() == pytest.approx(turn, abs=8)


def test_more_is_smoother_and_nothing_is_just_as_drawn():
    _, shaky, times = trembling(wave(), amplitude=0.8)
    radii = [measure(line_of_hand(shaky, times, smooth_pct=pct)).tightest_radius for pct in (10, 35, 70, 100)]
    assert radii[0] < 0.7 * radii[1]
    assert radii[1] < 1.05 * radii[2]
    assert radii[2] < 1.05 * radii[3]
    raw = measure(line_of_hand(shaky, times, smooth_pct=0))
    at = frames_at(raw, np.linspace(0, raw.length, 6000)).position
    assert max(np.hypot(*(at - p).T).min() for p in shaky) < 0.25


def test_a_pointer_that_tells_in_bursts_is_smoothed_as_one_that_does_not():
    """As a busy machine hands events over: several at once, then none for a while; noise of 0.6 mm at each."""
    rng = np.random.default_rng(5)
    x = np.linspace(0, 200, 90)
    path = np.stack([x, 22 * np.sin(x / 20) + rng.uniform(-0.6, 0.6, 90)], axis=1)
    times = np.repeat(np.sort(rng.uniform(0, 2500, 18)), 5)
    line = measure(line_of_hand(path, times, smooth_pct=35))
    assert len(line.line.coeffs) < 45
    assert line.tightest_radius > 0.5 * 20**2 / 22  # the wave's own is 18 mm


def test_a_quick_hand_means_its_bends():
    """A loop drawn in a quarter of a second, and a wave of 5 Hz, are no tremor: they stay within 1.2 mm and a little of the fit."""
    angle = np.linspace(0, 2 * np.pi, 33)
    loop = np.stack([15 * np.sin(angle), 15 - 15 * np.cos(angle)], axis=1)
    x = np.linspace(0, 150, 130)
    for path in (loop, np.stack([x, 12 * np.sin(x * 2 * np.pi / 30)], axis=1)):
        line = measure(line_of_hand(path, 8.0 * np.arange(len(path)), smooth_pct=35))
        at = frames_at(line, np.linspace(0, line.length, 2000)).position
        assert max(np.hypot(*(at - p).T).min() for p in path) < 1.4


def test_a_ring_is_smoothed_round_and_round_and_a_square_keeps_four_corners():
    angle = np.linspace(0, 2 * np.pi * 0.99, 3000)
    _, shaky, times = trembling(np.stack([40 * np.cos(angle), 40 * np.sin(angle)], axis=1))
    line = line_of_hand(shaky, times, smooth_pct=35, closed=True)
    assert line.closed
    at = frames_at(measured := measure(line), np.linspace(0, measured.length, 500)).position
    assert np.abs(np.hypot(*at.T) - 40).max() < 0.35
    assert np.abs(measured.vertex_turn).max(initial=0) < 0.05
    box = np.array([(0, 0), (60, 0), (60, 60), (0, 60), (0, 1.0)])
    path = np.vstack([np.linspace(a, b, 500)[:-1] for a, b in itertools.pairwise(box)])
    _, shaky, times = trembling(np.roll(path, 700, axis=0), amplitude=0.15)
    _points, flowing = knots_of_hand(shaky, times, smooth_pct=35, closed=True)
    assert (~flowing).sum() == 4


@pytest.mark.parametrize(
    "points", [np.zeros((0, 2)), [[3.0, 4.0]], [[3.0, 4.0], [3.0, 4.0]], [[0, 0], [5, 5]], [[0, 0], [1e-4, 0], [2, 0]]]
)
def test_few_points_are_a_line_or_none(points):
    for closed in (False, True):
        line = line_of_hand(np.array(points, float), None, smooth_pct=35, closed=closed)
        assert np.isfinite(line.coeffs).all()


def test_times_that_run_backwards_or_are_too_few_are_refused():
    with pytest.raises(InputError, match="one after the other"):
        knots_of_hand(np.array([[0, 0], [1, 1], [2, 0]]), np.array([0.0, 20, 10]), smooth_pct=35)
    with pytest.raises(InputError, match="as many as its points"):
        knots_of_hand(np.array([[0, 0], [1, 1], [2, 0]]), np.array([0.0, 20]), smooth_pct=35)


def test_random_strokes_are_fitted_finite_whatever_they_are():
    rng = np.random.default_rng(9)
    for _ in range(150):
        n = int(rng.integers(2, 200))
        points = np.cumsum(rng.normal(0, 10 ** rng.uniform(-4, 2), (n, 2)), axis=0) if rng.random() < 0.8 else rng.integers(0, 3, (n, 2))
        times = np.cumsum(rng.choice([0, 1, 8, 16, 900], n)).astype(float) if rng.random() < 0.7 else None
        line = line_of_hand(points, times, smooth_pct=float(rng.uniform(0, 100)), closed=bool(rng.random() < 0.3))
        assert np.isfinite(line.coeffs).all()
