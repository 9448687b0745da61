"""How many pieces fill a run, and where the remainder goes."""

from types import SimpleNamespace

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from sewn_garland.core.spacing.ease import Period, space_mitred, space_runs


def fill(room, length=10.0, gap=2.0, *, closed=False, ease="leave", limit=0.1, rest="end"):
    """Fill one run; what it says is that run's."""
    pieces = np.atleast_1d(np.asarray(length, float)), np.atleast_1d(np.asarray(gap, float))
    spaced = space_runs(np.array([float(room)]), *pieces, closed=np.array([closed]), ease=ease, limit=limit, rest=rest)
    return SimpleNamespace(**{name: column[0] for name, column in vars(spaced).items()})


@pytest.mark.parametrize(
    ("room", "gap", "closed", "count"),
    [(100, 2, False, 8), (100, 0, False, 10), (94, 2, False, 8), (93.99, 2, False, 7), (96, 2, True, 8), (95.9, 2, True, 7),
     (9.99, 2, False, 0), (10, 2, False, 1), (100, -5, False, 19), (100, -5, True, 20)],
)  # fmt: skip
def test_leaving_lays_the_whole_pieces_that_fit(room, gap, closed, count):
    # open: floor((R + g)/p), closed: floor(R/p)
    spacing = fill(room, gap=gap, closed=closed)
    assert spacing.count == count
    taken = count * (10 + gap) - (0 if closed else gap) if count else 0
    assert spacing.rest == pytest.approx(room - taken)


@pytest.mark.parametrize(("rest", "offset"), [("end", 0), ("both", 3), ("start", 6)])
def test_the_rest_goes_where_it_is_told(rest, offset):
    assert fill(100, rest=rest).offset == pytest.approx(offset)


def test_gaps_take_the_remainder_evenly():
    spacing = fill(100, ease="gaps")
    # 8 pieces leave 6 mm over 7 gaps (+7 %), 9 would take 6 mm from 8 gaps (−6.25 %): the pitch changes least with 9
    assert spacing.count == 9
    assert spacing.extra_gap == pytest.approx(-6 / 8)
    assert spacing.eased == pytest.approx(-6 / 8 / 12)
    assert spacing.rest == 0


def test_size_scales_pieces_and_gaps_alike():
    spacing = fill(100, ease="size")
    assert spacing.count == 9  # 8 would need +6.4 %, 9 only −5.7 %
    assert spacing.factor == pytest.approx(100 / 106)
    closed = fill(100, ease="size", closed=True)
    assert closed.count == 8
    assert closed.factor == pytest.approx(100 / 96)


@pytest.mark.parametrize("ease", ["gaps", "size"])
def test_beyond_the_limit_it_eases_that_far_and_leaves_the_rest(ease):
    spacing = fill(17, gap=0, ease=ease, limit=0.05)
    assert spacing.short
    assert abs(spacing.eased) in (0.0, pytest.approx(0.05))
    assert spacing.rest > 0


def test_one_piece_on_an_open_run_is_centred():
    spacing = fill(12, gap=5, ease="gaps")
    assert (spacing.count, spacing.offset) == (1, pytest.approx(1))
    assert spacing.short


@pytest.mark.parametrize("ease", ["leave", "gaps", "size"])
def test_a_run_too_short_for_a_piece_has_none(ease):
    spacing = fill(3, ease=ease)
    assert (spacing.count, spacing.rest, spacing.short) == (0, 3, True)


def test_variants_close_in_whole_periods_while_the_limit_allows():
    lengths, gaps = np.array([10.0, 6.0]), np.array([0.0, 0.0])
    spacing = fill(104, lengths, gaps, closed=True, ease="size", limit=0.2)
    assert spacing.count % 2 == 0
    assert not spacing.broken_order
    left = fill(106, lengths, gaps, closed=True, limit=0.2)
    assert left.count == 13
    assert left.broken_order


def test_unlike_variants_are_summed_in_the_order_laid():
    period = Period(np.array([10.0, 6.0, 3.0]), np.array([1.0, 2.0, 0.5]))
    count, openly = np.arange(12), np.zeros(12, bool)
    by_hand = [sum((10, 6, 3)[i % 3] for i in range(n)) + sum((1, 2, 0.5)[i % 3] for i in range(max(0, n - 1))) for n in count]
    assert period.span(count, closed=openly) == pytest.approx(by_hand)
    assert period.fitting(np.array(by_hand), closed=openly) == pytest.approx(count)


@pytest.mark.parametrize("ease", ["leave", "gaps", "size"])
def test_runs_filled_together_are_filled_as_each_alone(ease):
    rooms, closed = np.array([3.0, 12.0, 17.0, 100.0, 104.0, 250.0]), np.array([False, False, False, True, False, True])
    lengths, gaps = np.array([10.0, 6.0]), np.array([2.0, 1.0])
    together = space_runs(rooms, lengths, gaps, closed=closed, ease=ease, limit=0.05, rest="both")
    for i, (room, goes_round) in enumerate(zip(rooms, closed, strict=True)):
        alone = fill(room, lengths, gaps, closed=goes_round, ease=ease, limit=0.05, rest="both")
        assert {name: column[i] for name, column in vars(together).items()} == pytest.approx(vars(alone), nan_ok=True)


@given(
    room=st.floats(0.1, 5000), length=st.floats(0.5, 60), share=st.floats(-0.95, 4), closed=st.booleans(),
    ease=st.sampled_from(["leave", "gaps", "size"]), rest=st.sampled_from(["end", "both", "start"]), limit=st.floats(0, 0.9),
)  # fmt: skip
def test_a_run_is_always_filled_within_its_length(room, length, share, closed, ease, rest, limit):
    gap = share * length
    spacing = fill(room, length, gap, closed=closed, ease=ease, rest=rest, limit=limit)
    n = spacing.count
    assert n >= 0
    assert 0 <= spacing.offset <= spacing.rest + 1e-9
    if n:
        gaps = n if closed else n - 1
        taken = spacing.factor * (n * length + gaps * gap) + gaps * spacing.extra_gap
        assert taken + spacing.rest == pytest.approx(room, rel=1e-9, abs=1e-6)
        assert abs(spacing.eased) <= limit + 1e-9
    else:
        assert spacing.rest == room


@given(room=st.floats(10, 2000), length=st.floats(2, 50), share=st.floats(-0.8, 2), closed=st.booleans())
def test_no_other_count_eases_the_size_less(room, length, share, closed):
    gap = share * length
    spacing = fill(room, length, gap, closed=closed, ease="size", limit=0.99)
    for n in range(1, int(room / (length + gap)) + 4):
        factor = room / (n * (length + gap) - (0 if closed else gap))
        if abs(factor - 1) <= 0.99:
            assert abs(spacing.eased) <= abs(factor - 1) + 1e-9


@pytest.mark.parametrize("ease", ["leave", "gaps", "size"])
def test_mitred_runs_straddle_their_vertices_however_many_are_filled_at_once(ease):
    rooms = np.linspace(40.0, 90.0, 40)
    mitred = np.array([[i % 2 == 0, i % 3 == 0] for i in range(40)])
    spaced = space_mitred(
        rooms, np.array([10.0]), np.array([2.0]), mitred=mitred, beyond=np.zeros((40, 2)), ease=ease, limit=0.5, rest="end"
    )
    length, pitch = 10 * spaced.factor, 12 * spaced.factor + spaced.extra_gap
    first = spaced.offset + length / 2  # the middle of the first piece
    last = first + (spaced.count - 1) * pitch
    assert first[mitred[:, 0]] == pytest.approx(np.zeros(mitred[:, 0].sum()), abs=1e-9)
    assert first[~mitred[:, 0]] == pytest.approx(length[~mitred[:, 0]] / 2)
    reach = rooms - spaced.rest - np.where(mitred[:, 1], 0.0, length / 2)
    assert last == pytest.approx(reach)
    assert (spaced.rest == 0).all() or ease == "leave"
