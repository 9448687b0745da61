"""What sources give: the published streams, gathering, responses, and how several come together."""

import numpy as np
import pytest
import scipy
from numpy.random import PCG64, SeedSequence

from sewn_garland.core.values.variations import PROPERTIES, Variation
from sewn_garland.core.varying.shares import combined, gathered, numbered, shares_along, shares_of_stops, values_at

KNOWN = {"arrangement": 7, "line": 3, "row": 0}
CODES = {"size": 1, "squash": 2, "opacity": 3, "strength": 4, "tooth": 5, "turn": 6, "hue": 7, "across": 8, "along": 9, "gap": 10, "lightness": 11,
         "mix": 12, "count": 13, "mirror_up_down": 14, "mirror_left_right": 15}  # fmt: skip


def varying(of="size", between=(0, 100), **more):
    return Variation(of=of, between=between, **more)


def dealt(count, k=0, *, of="size", gather_pct=0.0, **more):
    return shares_of_stops(varying(of, gather_pct=gather_pct), k, count, **{**KNOWN, **more})


def test_chance_is_the_published_stream():
    x = PCG64(SeedSequence([7, 3, 1, 2, 4, 5])).random_raw(20)
    assert dealt(20, 2, slot=4, attempt=5).tolist() == ((x >> 11) * 2.0**-53).tolist()


def test_the_codes_are_the_published_ones():
    assert {name: about.code for name, about in PROPERTIES.items()} == CODES


@pytest.mark.parametrize("gather", [0, 40, 100])
def test_chance_goes_evenly_and_gathered_to_the_middle(gather):
    """Kolmogorov and Smirnov, by SciPy: t = 2u − 1 goes to sign(t)·|t|^p, so P(T < t) is (1 + sign(t)·|t|^(1/p)) / 2."""

    def law(u):
        t = 2 * u - 1
        return (1 + np.sign(t) * np.abs(t) ** (1 / (1 + gather / 50))) / 2

    assert scipy.stats.kstest(dealt(20_000, gather_pct=gather), law).pvalue > 0.01


def test_two_properties_two_variations_slots_and_rows_are_dealt_apart():
    streams = [dealt(4000), dealt(4000, of="turn"), dealt(4000, 1), dealt(4000, slot=1), dealt(4000, row=1), dealt(4000, attempt=1)]
    off = np.corrcoef(streams) - np.eye(len(streams))
    assert np.abs(off).max() < 0.06  # of 4000 independent pairs 4 in 10 000 reach 0.056


def test_what_is_dealt_stays_as_lines_are_drawn_on():
    assert dealt(50).tolist() == dealt(500)[:50].tolist()


def test_pieces_and_turns_go_by_the_number_of_the_stop():
    of_stops = {over: shares_of_stops(varying(follows="pieces", over=over), 0, 6, **KNOWN).tolist() for over in (2, 25)}
    assert of_stops == {2: [0, 0.5, 1, 1, 1, 1], 25: [0, 0.04, 0.08, 0.12, 0.16, 0.2]}
    assert shares_of_stops(varying(follows="turns"), 0, 5, **KNOWN).tolist() == [0, 1, 0, 1, 0]
    assert shares_of_stops(varying(follows="turns", over=3), 0, 5, **KNOWN).tolist() == [0, 0.5, 1, 0, 0.5]


@pytest.mark.parametrize(
    ("source", "gives"),
    [("distance", [0, 0.5, 1]), ("length", [0, 0.125, 1]), ("direction", [0, 0.75, 0.5]), ("pressure", [1, 1, 1]), ("tilt", [0, 0, 0])],
)
def test_along_the_line_a_source_goes_by_the_place(source, gives):
    s, direction = np.array([0.0, 50.0, 400.0]), np.array([0.0, -np.pi / 2, np.pi])
    assert shares_along(varying(follows=source), s, np.full(3, 400.0), direction) == pytest.approx(gives)


def test_a_response_is_the_monotone_cubic():
    points = ((0, 0), (0.5, 0.8), (1, 1))
    u = np.linspace(0, 1, 33)
    truth = 20 + 60 * scipy.interpolate.PchipInterpolator(*np.array(points).T)(u)
    assert values_at(varying(between=(20, 80), response=points), u) == pytest.approx(truth)
    assert values_at(varying(between=(20, 80)), u) == pytest.approx(20 + 60 * u)


def test_several_multiply_add_or_add_up_to_pieces():
    two = [np.array([50.0, 200.0]), np.array([50.0, 10.0])]
    assert combined("size", two).tolist() == [25, 20]
    assert combined("turn", two).tolist() == [100, 210]
    assert combined("count", [np.array([3.0]), np.array([2.0])]).tolist() == [4]


def test_chance_variations_of_a_property_are_numbered_in_the_file():
    of = [varying(), varying(follows="length"), varying("turn"), varying()]
    assert [k for _, k in numbered(of)] == [0, 1, 0, 1]


def test_gathering_keeps_ends_and_middle():
    assert gathered(np.array([0, 0.5, 1]), 80).tolist() == [0, 0.5, 1]
