"""Joints moved apart and together."""

import numpy as np
import pytest

from making import brush
from sewn_garland.core.errors import InputError
from sewn_garland.core.making.brushes import hung_at
from sewn_garland.core.making.framing import joints_moved
from sewn_garland.core.values.motif import Motif

SLANTED = Motif((), 10.0, 6.0, 3.0, joints=((2.0, 1.0), (8.0, 5.0)))


def test_joints_move_evenly_along_the_line_through_both():
    left, right = (np.array(p) for p in joints_moved(SLANTED, 2.0).joints)
    assert np.hypot(*(right - left)) == pytest.approx(np.hypot(6, 4) + 2)
    assert (left + right) / 2 == pytest.approx((5, 3))
    assert (right - left)[0] * 4 - (right - left)[1] * 6 == pytest.approx(0, abs=1e-12)


def test_joints_that_would_meet_are_refused():
    with pytest.raises(InputError, match="keep the joints at least"):
        joints_moved(SLANTED, -7.3)


def test_a_chain_hangs_at_the_pitch_it_is_asked_for_whatever_its_size():
    links = tuple(Motif((), n + 2, 4.0, 2.0, joints=((1.0, 2.0), (n + 1.0, 2.0))) for n in (8.0, 12.0))
    hung = hung_at(brush(*links, round_bends="jointed", size=1.5), 18.0)
    assert hung.pieces.link_lengths(hung.spacing.size).mean() == pytest.approx(18.0)
    assert np.diff(hung.pieces.link_lengths(hung.spacing.size)) == pytest.approx(1.5 * 4)
