"""Links from joint to joint along lines, very many at once: how they lie, how far Newton moves their joints, and where joints come one by
one.
"""

from __future__ import annotations

import numpy as np

from ..maths.compiled import compiled, for_compiled


def chords(place: np.ndarray, velocity: np.ndarray, before: np.ndarray) -> tuple[np.ndarray, np.ndarray, np.ndarray]:
    """Return each link's distance (n,), and how both its ends, the later first, move along it a mm of line.

    ``place`` and ``velocity`` (m,) of joints are complex; ``before`` (n,) is the one that a link begins at, the next ends it.
    """
    return _chords(for_compiled(place, complex), for_compiled(velocity, complex), for_compiled(before, int))


@compiled
def _chords(place, velocity, before):
    distance, ahead, behind = np.empty(len(before)), np.empty(len(before)), np.empty(len(before))
    for i in range(len(before)):
        k = before[i]
        across = place[k + 1] - place[k]
        far = np.sqrt(across.real * across.real + across.imag * across.imag)
        x, y = across.real / max(far, 1e-300), across.imag / max(far, 1e-300)
        distance[i] = far
        ahead[i] = x * velocity[k + 1].real + y * velocity[k + 1].imag
        behind[i] = x * velocity[k].real + y * velocity[k].imag
    return distance, ahead, behind


def newton_steps(
    before: np.ndarray, on: np.ndarray, ahead: np.ndarray, behind: np.ndarray, miss: np.ndarray, own: np.ndarray, joints: int
) -> tuple[np.ndarray, np.ndarray]:
    """Return how far each of m ``joints`` goes for n links that ``miss`` to reach, and for a factor larger by 1 on what is their ``own``.

    Those that are not ``on`` (n,) leave their joints; the first joint of a run has no link before it, and stays.
    """
    ahead, behind, miss, own = (for_compiled(column, float) for column in (ahead, behind, miss, own))
    return _newton_steps(for_compiled(before, int), for_compiled(on, bool), ahead, behind, miss, own, joints)


@compiled
def _newton_steps(before, on, ahead, behind, miss, own, joints):
    step, larger = np.zeros(joints), np.zeros(joints)
    for i in range(len(before)):
        if on[i]:
            k = before[i]
            step[k + 1] = (miss[i] + behind[i] * step[k]) / ahead[i]
            larger[k + 1] = (own[i] + behind[i] * larger[k]) / ahead[i]
    return step, larger


def marched(place: np.ndarray, at: np.ndarray, own: np.ndarray) -> np.ndarray:
    """Step along sampled places (n,), complex, at even distances ``at`` (n,), from the first: each joint is the first at its link's
    distance.

    Return the joints after it, as many as the samples have. No place lies further from another than the line goes between them, so
    what a place lacks of a link's length are samples that can be passed over.
    """
    return _marched(for_compiled(place, complex), for_compiled(at, float), for_compiled(own, float))


@compiled
def _marched(place, at, own):
    pitch = at[1] - at[0] if len(at) > 1 else 1.0
    out, count = np.empty(len(own)), 0
    here, low, last, end = place[0], 0, at[0], len(at) - 1
    for length in own:
        found, apart = low + 1, 0.0
        while found <= end:
            apart = abs(place[found] - here)
            if apart >= length:
                break
            found += max(int((length - apart) / pitch), 1)
        if found > end:
            break
        one, two = place[found - 1], place[found]
        near = abs(one - here)
        share = min(max((length - near) / (apart - near), 0.0), 1.0) if apart > near else 1.0
        last = max(last, at[0] + (found - 1 + share) * pitch)
        out[count] = last
        here, low, count = one + share * (two - one), found - 1, count + 1
    return out[:count]


def held_between(run: np.ndarray, s: np.ndarray, low: np.ndarray, high: np.ndarray, slack: np.ndarray, closed: np.ndarray) -> np.ndarray:
    """Return distances ``s`` (n,), those beyond the ends ``low`` and ``high`` (k,) of their open ``run`` (n,) just within it."""
    s, low, high, slack = (for_compiled(column, float) for column in (s, low, high, slack))
    return _held_between(for_compiled(run, int), s, low, high, slack, for_compiled(closed, bool))


@compiled
def _held_between(run, s, low, high, slack, closed):
    out = np.empty(len(s))
    for i in range(len(s)):
        k, here = run[i], s[i]
        if not closed[k]:
            if here > high[k]:
                here = high[k] - slack[k]
            elif here < low[k]:
                here = low[k] + slack[k]
        out[i] = here
    return out
