"""Every finding has a cure, and every cure, applied, removes its finding."""

import pytest

from making import bar, brush, measured
from sewn_garland.core.lay import cured, lay
from sewn_garland.core.measuring.arc_length import measure
from sewn_garland.core.measuring.changing import changed_line

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
        before = [f for f in laid.findings if f.kind == finding.kind]
        for cure in finding.cures:
            after = applied(which, line, cure.change)
            left = [] if after is None else [f for f in after.findings if f.kind == finding.kind]
            assert len(left) < len(before), (finding.message, cure.label)


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
