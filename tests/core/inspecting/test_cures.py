"""Every finding has a cure, and every cure, applied, removes its finding."""

import numpy as np
import pytest

from examples import examples
from making import bar, brush, measured
from sewn_garland.core.inspecting.cures import NEVER, Deadline, with_cures
from sewn_garland.core.lay import cured, lay
from sewn_garland.core.measuring.arc_length import measure
from sewn_garland.core.measuring.changing import changed_line
from sewn_garland.core.measuring.rounding import part_of_line

CASES = {
    "leftover": ("M0 0H104", {}),
    "short": ("M0 0H6", {}),
    "limit": ("M0 0H17", {"ease": "gaps", "ease_limit": 0.02}),
    "nothing": ("M4 4L4 4", {}),
    "circle": ("M20 0A20 20 0 0 1 -20 0A20 20 0 0 1 20 0Z", {"ease": "size"}),
    "corner": ("M0 0H35V35H70", {}),
    "point": ("M0 0L40 60L80 0", {"gap": 0.2}),
    "wave": ("M0 0C12 -30 24 -30 36 0S60 30 72 0", {"gap": -0.3, "ease": "gaps"}),
    "shifted": ("M0 0C30 -40 60 -40 90 0", {"side_shift": 4.0, "ease": "gaps"}),
    "level": ("M0 0C30 -60 60 -60 90 0", {"facing": "page"}),
    "polyline": ("M0 0L20 3L38 12L52 26L61 44", {}),
    "cusp": ("M0 0C60 40 -20 40 40 0", {}),
}


@pytest.mark.parametrize("case", CASES)
def test_every_cure_removes_its_finding(case):
    path, settings = CASES[case]
    which, line = brush(bar(), **settings), measured(path)
    laid = cured(which, line, lay(which, [line])[0])
    assert laid.findings
    for finding in laid.findings:
        assert finding.cures, finding.message
        for cure in finding.cures:
            assert is_mended(which, line, laid, finding, cure), (finding.message, cure.label)


def is_mended(which, line, before, finding, cure):
    """Judge by the joins themselves, one by one: none of the finding's kind is at fault near it, none anywhere worse than any was."""
    after = applied(which, line, cure.change)
    if after is None:
        return True
    if finding.kind not in ("gap", "overlap", "step", "kink"):
        return sum(f.kind == finding.kind for f in after.findings) < sum(f.kind == finding.kind for f in before.findings)
    limit = np.radians(which.joins.kink_tolerance_deg) if finding.kind == "kink" else which.joins.gap_tolerance_mm
    amounts = [{"gap": j.gap, "overlap": -j.gap, "step": j.step, "kink": j.kink}[finding.kind] for j in (before.joins, after.joins)]
    worst = amounts[0].max()
    for s, amount in zip(after.joins.s, amounts[1], strict=True):
        apart = abs(s / after.length - finding.at_mm / before.length)
        apart = min(apart, 1 - apart) if after.closed else apart
        if amount > limit + 1e-6 and (apart * before.length <= (before.pitch or 0.0) or amount > worst + 1e-6):
            return False
    return True


def random_case(rng):
    """A brush of bars by chance, and a line with corners, bends or both."""
    p = rng.uniform(-60, 60, (6, 2))
    path = [
        "M" + "L".join(f"{x:.2f} {y:.2f}" for x, y in p[: rng.integers(3, 7)]) + "Z" * int(rng.integers(2)),
        "M{:.2f} {:.2f}C{:.2f} {:.2f} {:.2f} {:.2f} {:.2f} {:.2f}".format(*p[:4].ravel()),
        f"M{p[0, 0]:.2f} 0A{abs(p[0, 0]):.2f} {abs(p[0, 0]):.2f} 0 0 1 {-p[0, 0]:.2f} 0A{abs(p[0, 0]):.2f} {abs(p[0, 0]):.2f} 0 0 1 {p[0, 0]:.2f} 0Z",
    ][rng.integers(3)]
    settings = {
        "facing": ["line", "page", "start"][rng.integers(3)], "side_shift": float(rng.choice([0, 0, -4, 6])),
        "gap": float(rng.choice([0, 0.2, -0.3])), "ease": ["leave", "size", "gaps"][rng.integers(3)], "ease_limit": 0.3,
        "round_bends": ["rigid", "rigid", "bent"][rng.integers(3)], "outside_corner": ["through", "butt", "round"][rng.integers(3)],
    }  # fmt: skip
    return brush(bar(float(rng.uniform(4, 12)), float(rng.uniform(1, 8))), **settings), measured(path)


@pytest.mark.thorough
def test_cures_that_are_proved_cure():
    """Several hundred cures of a fixed random sample, each applied and judged join by join."""
    rng, proved = np.random.default_rng(20261127), 0
    for _ in range(examples(40)):
        which, line = random_case(rng)
        laid = cured(which, line, lay(which, [line])[0])
        for finding in laid.findings[:5]:
            for cure in finding.cures:
                assert is_mended(which, line, laid, finding, cure), (finding.message, cure.label)
                proved += 1
    assert proved >= examples(40)


def test_facing_along_the_line_is_no_cure_where_gaps_grow_by_it():
    which = brush(bar(8, 6), facing="page", side_shift=-4.0, gap=0.2, ease="size", ease_limit=0.3)
    ring = measured("M30 0A30 30 0 0 1 -30 0A30 30 0 0 1 30 0Z")
    laid = cured(which, ring, lay(which, [ring])[0])
    assert any(finding.cures for finding in laid.findings if finding.kind in ("gap", "overlap"))
    for finding in laid.findings:
        for cure in finding.cures:
            assert is_mended(which, ring, laid, finding, cure), (finding.message, cure.label)


def test_when_time_is_up_it_is_said_and_what_was_proved_stays():
    which, line = brush(bar()), measured("M0 0H35V35H70")
    laid = lay(which, [line])[0]
    late = cured(which, line, laid, deadline=Deadline(0.0, lambda: 1.0))
    assert [f.kind for f in late.findings] == [f.kind for f in laid.findings]
    assert all(f.untried and not f.cures for f in late.findings)
    asked = []
    full = with_cures(
        laid, which, line, lengths=np.array([10.0]), gaps=np.array([0.0]), lean=np.zeros(1), deadline=NEVER,
        relay=lambda change, _stretch: asked.append(str(change)) or (applied(which, line, change) and (applied(which, line, change), which)),
    )  # fmt: skip
    assert len(asked) == len(set(asked)) > 0  # once a change, for all findings
    assert not any(f.untried for f in full)


def applied(which, line, change):
    drawn = changed_line(line, change.get("line", {}))
    return None if drawn is None else lay(which.changed(change.get("brush", {})), [measure(drawn)])[0]


@pytest.mark.parametrize("case", ["circle", "corner", "leftover"])
def test_the_first_cure_leaves_nothing_of_its_kind(case):
    path, settings = CASES[case]
    which, line = brush(bar(), **settings), measured(path)
    finding = cured(which, line, lay(which, [line])[0]).findings[0]
    kinds = [f.kind for f in applied(which, line, finding.cures[0].change).findings]
    assert finding.kind not in kinds or case == "corner"


def test_findings_are_named_by_the_vocabulary():
    words = {"gap", "overlap", "step", "kink", "tone", "tight bend", "fold", "leftover", "crowded corner",
             "over-stretched", "over the edge", "broken order", "heavy"}  # fmt: skip
    for path, settings in CASES.values():
        assert {f.kind for f in lay(brush(bar(), **settings), [measured(path)])[0].findings} <= words


def test_variants_that_do_not_close_are_found_and_cured():
    which = brush(bar(10), bar(6), ease="leave")
    ring = measured("M17 0A17 17 0 0 1 -17 0A17 17 0 0 1 17 0Z")  # 106.8 mm: 13 pieces
    finding = next(f for f in cured(which, ring, lay(which, [ring])[0]).findings if f.kind == "broken order")
    after = applied(which, ring, finding.cures[0].change)
    assert len(after.pieces.s) % 2 == 0


def test_cures_of_the_brush_alone_leave_the_line_as_it_is():
    which, line = brush(bar()), measured("M0 0H35V35H70")
    laid = cured(which, line, lay(which, [line])[0], of_brush_only=True)
    assert all("line" not in cure.change for finding in laid.findings for cure in finding.cures)
    assert any(finding.cures for finding in laid.findings)


def test_a_tight_bend_says_what_the_brush_needs():
    laid = lay(brush(bar()), [measured("M0 0H40A8 8 0 0 1 40 16H0")])[0]
    bend = next(f for f in laid.findings if f.kind == "tight bend")
    assert bend.amount == pytest.approx(8)
    assert f"needs {laid.safe_radius:.1f} mm" in bend.message


def test_on_a_long_line_a_cure_is_tried_on_the_stretch_of_its_finding_first():
    """One tight bend among 3 000 pieces: the whole line is laid again only for what then cures, by the same measure as on a short line."""
    which = brush(bar(10, 4))
    path = "M0 0H15000C15020 0 15020 30 15000 30H0"
    line = measured(path)
    laid, tried = lay(which, [line])[0], []

    def relay(change, stretch):
        own = line if stretch is None else part_of_line(line, *stretch)
        tried.append((str(change), stretch is None))
        drawn = changed_line(own, change.get("line", {}))
        return drawn and (lay(which.changed(change.get("brush", {})), [measure(drawn)])[0], which.changed(change.get("brush", {})))

    extents = {"lengths": np.array([10.0]), "gaps": np.array([0.0]), "lean": np.zeros(1)}
    found = with_cures(laid, which, line, **extents, deadline=NEVER, relay=relay)
    cures = [(finding, cure) for finding in found for cure in finding.cures]
    assert {finding.kind for finding, _ in cures} >= {"gap", "kink"}
    for finding, cure in cures:
        assert is_mended(which, line, laid, finding, cure), (finding.message, cure.label)
    whole, parts = ([change for change, of_all in tried if of_all == is_whole] for is_whole in (True, False))
    assert len(set(parts) - set(whole)) >= 3  # what did not help there was not tried on the whole line
    assert len(whole) == len(set(whole))
