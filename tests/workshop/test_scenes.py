"""Lines laid for the browser: together, refused, overtaken, remembered."""

from dataclasses import replace

import numpy as np
import pytest

from making import bar, brush, measured
from sewn_garland.core.lay import lay
from sewn_garland.core.maths.recent import Recent
from sewn_garland.core.values.motif import Motif
from sewn_garland.core.values.tracks import LineToLay
from sewn_garland.workshop import scenes
from sewn_garland.workshop.scenes import Overtaken, Scene, laid_anew, laid_scenes

STRAIGHT, CORNER = LineToLay(measured("M0 0H100"), 1), LineToLay(measured("M0 0H50V50"), 2)
TINY = Motif((), 1e-12, 1.0, 0.5)


def never():
    return False


@pytest.fixture
def counted(monkeypatch):
    """Count the lines that are laid."""
    lines = []

    def counting(made, wanted, **more):
        lines.extend(line.key for line in wanted)
        return lay(made, wanted, **more)

    monkeypatch.setattr(scenes, "lay", counting)
    return lines


def test_scenes_come_back_in_their_order_whatever_brush_they_share():
    one, two = brush(bar(10, 2)), brush(bar(20, 2))
    wanted = [Scene("a", one, STRAIGHT), Scene("b", two, STRAIGHT), Scene("c", one, CORNER)]
    laid = laid_scenes(wanted, overtaken=never)
    assert [each.scene.key for each in laid] == ["a", "b", "c"]
    assert [len(each.laid.pieces.s) for each in laid] == [10, 5, 10]


def test_a_brush_that_cannot_be_laid_is_refused_in_words_and_the_others_are_laid():
    laid = laid_scenes([Scene("a", brush(TINY), STRAIGHT), Scene("b", brush(), STRAIGHT)], overtaken=never)
    assert laid[0].laid is None
    assert laid[0].figures()["refused"] == "these pieces are smaller than can be laid: enlarge them"
    assert (laid[0].tables(), laid[0].weight) == ([], 1)
    assert len(laid[1].laid.pieces.s) == 10


def test_a_newer_question_breaks_the_work_off():
    with pytest.raises(Overtaken):
        laid_scenes([Scene("a", brush(), STRAIGHT)], overtaken=lambda: True)


def test_cures_are_worked_out_only_where_they_are_asked_for_and_not_aside():
    made = brush(bar(10, 2), kink_tolerance_deg=5.0)
    wanted = [Scene("a", made, CORNER), Scene("aside", made, CORNER, aside=True)]
    plain = laid_scenes(wanted, overtaken=never)
    cured = laid_scenes(wanted, overtaken=never, cures=True)
    assert plain[0].laid.findings
    assert not any(finding.cures for each in plain for finding in each.laid.findings)
    assert any(finding.cures for finding in cured[0].laid.findings)
    assert not any(finding.cures for finding in cured[1].laid.findings)


def test_only_what_is_not_as_it_was_is_laid_again(counted):
    remembered, made = Recent(1000, weigh=lambda laid: laid.weight), brush()
    wanted = [Scene("a", made, STRAIGHT), Scene("b", made, CORNER)]
    first = laid_anew(wanted, remembered, overtaken=never)
    again = laid_anew([replace(scene, key=f"{scene.key} renamed") for scene in wanted], remembered, overtaken=never)
    assert counted == [1, 2]
    assert [each.laid for each in again] == [each.laid for each in first]
    assert [each.scene.key for each in again] == ["a renamed", "b renamed"]
    laid_anew([replace(wanted[0], brush=brush(bar(9, 2))), wanted[1]], remembered, overtaken=never)
    assert counted == [1, 2, 1]
    laid_anew([replace(wanted[0], line=replace(STRAIGHT, key=5))], remembered, overtaken=never)  # chance knows it by another number
    assert counted == [1, 2, 1, 5]


def test_what_is_laid_with_cures_is_not_taken_for_what_is_laid_without(counted):
    remembered, scene = Recent(1000), Scene("a", brush(bar(10, 2), kink_tolerance_deg=5.0), CORNER)
    laid_anew([scene], remembered, overtaken=never)
    (cured,) = laid_anew([scene], remembered, overtaken=never, cures=True)
    (plain,) = laid_anew([scene], remembered, overtaken=never)
    assert any(finding.cures for finding in cured.laid.findings)
    assert not any(finding.cures for finding in plain.laid.findings)


def test_what_is_only_tried_out_pushes_nothing_kept_aside(counted):
    remembered, kept = Recent(1), Scene("a", brush(), STRAIGHT)
    laid_anew([kept], remembered, overtaken=never)
    for key in range(10, 15):
        laid_anew([Scene("draft", brush(), replace(STRAIGHT, key=key), passing=True)], remembered, overtaken=never)
    laid_anew([kept], remembered, overtaken=never)
    assert counted == [1, 10, 11, 12, 13, 14]


def test_a_laid_scene_weighs_its_pieces_and_the_points_of_its_outlines():
    stamped, bent = laid_scenes(
        [Scene("a", brush(), STRAIGHT), Scene("b", brush(round_bends="bent"), LineToLay(measured("M0 0C40 60 60 -60 100 0")))],
        overtaken=never,
    )
    assert stamped.weight == 1 + 10
    assert bent.weight == 1 + len(bent.laid.pieces.s) + len(bent.laid.outlines.points) > 100


def test_the_figures_are_those_of_the_line_and_its_joins():
    (laid,) = laid_scenes([Scene("a", brush(bar(10, 2), gap=0.1), STRAIGHT, {"line_id": 4})], overtaken=never)
    said = laid.figures()
    assert (said["key"], said["line_id"], said["pieces"], said["closed"]) == ("a", 4, 9, False)
    assert said["length_mm"] == pytest.approx(100)
    assert said["pitch_mm"] == pytest.approx(11)
    assert said["worst_mm"] == pytest.approx(0, abs=1e-9)
    assert np.isclose(said["worst_kink_deg"], 0)
