"""What chance deals on a page is the same on the screen, in the file, and while a line is drawn or reshaped."""

import numpy as np
import pytest

from making import bar_svg, svg
from sewn_garland.store.database import Store
from sewn_garland.workshop import brushes, lines, motifs, pages
from sewn_garland.workshop.lines import lines_of
from sewn_garland.workshop.scenes import laid_scenes

PATH = "M10 20H190"


@pytest.fixture
def session(tmp_path):
    store = Store(tmp_path / "w.sqlite")
    with store.writing() as session:
        yield session
    store.close()


@pytest.fixture
def page(session):
    """A page with two lines of a brush that deals three bars by chance."""
    ids = [motifs.bring_in(session, f"bar {k}", bar_svg(4, k), trim=False).id for k in (1, 2, 3)]
    brush = brushes.make(session, "chance", motif_id=ids[0])
    brush = brushes.set_pieces(session, brush.id, brush.version, "repeat", ids)
    brush = brushes.change(session, brush.id, brush.version, patch={"variants": {"order": "chance"}})
    page = pages.make(session, "sheet", 200, 100, None)
    for _ in range(2):
        lines.draw(session, page.id, brush.id, {"kind": "path", "d": PATH})
    return page


def dealt(session, page, **more):
    """Return what was dealt along each line on the screen, by its key."""
    laid = laid_scenes(pages.scenes_of(session, page.id, **more), overtaken=lambda: False)
    return {each.scene.key: each.laid.pieces.variant.tolist() for each in laid}


def draft(line_id, y):
    return pages.DraftLine(brush_id=1, source={"kind": "path", "d": f"M10 {y}H190"}, line_id=line_id)


def test_screen_and_file_deal_alike_and_two_lines_unlike(session, page):
    on_screen = dealt(session, page)
    in_file = [line.pieces.variant.tolist() for _, line in pages.laid_lines(session, page.id)[1]]
    assert list(on_screen.values()) == in_file
    assert in_file[0] != in_file[1]
    assert len(set(in_file[0])) == 3


def test_a_reshaped_line_keeps_its_order_and_so_do_the_others(session, page):
    before = dealt(session, page)
    while_dragged = dealt(session, page, draft=draft(2, 40), only=[2])
    assert while_dragged == {"line-2": before["line-2"]}
    row = lines_of(session, page.id)[0]
    lines.change(session, row.id, row.version, {"position": 9.0})  # brought to the front
    assert dealt(session, page) == before


def test_a_line_being_drawn_has_the_order_that_it_keeps(session, page):
    drawing = dealt(session, page, draft=draft(None, 60))["draft"]
    kept = lines.draw(session, page.id, 1, {"kind": "path", "d": "M10 60H190"})
    assert dealt(session, page)[f"line-{kept.id}"] == drawing


def test_a_copy_of_a_line_is_dealt_anew_and_a_deleted_line_moves_no_other(session, page):
    before = dealt(session, page)
    row = lines_of(session, page.id)[0]
    lines.delete(session, row.id, row.version)
    assert dealt(session, page) == {"line-2": before["line-2"]}
    again = lines.draw(session, page.id, 1, {"kind": "path", "d": PATH})
    assert not np.array_equal(dealt(session, page)[f"line-{again.id}"], before["line-2"])


def test_what_is_picked_up_where_a_line_closes_lies_there_once_and_over_its_neighbours(session):
    body = '<ellipse cx="6" cy="3" rx="6" ry="3" fill="#205060"/><rect data-lies="under" x="4" y="2" width="4" height="2" fill="#f0d0a0"/>'
    motif = motifs.bring_in(session, "Scale", svg(body, 12, 6), trim=False)
    settings = {"spacing": {"gap_pct": -40, "ease": "gaps", "ease_limit_pct": 50}}
    brush = brushes.make(session, "Scales", motif_id=motif.id, patch=settings)
    page = pages.make(session, "Round", 60, 60, None)
    circle = {"kind": "path", "d": "M5 30A25 25 0 1 1 55 30A25 25 0 1 1 5 30Z"}
    lines.draw(session, page.id, brush_id=brush.id, source=circle)
    drawn, once = (pages.drawing_of_page(session, page.id, once=once)[1] for once in (False, True))
    count = len(pages.laid_lines(session, page.id)[1][0][1].pieces.s)
    assert len(list(drawn.pieces())) > len(list(once.pieces())) == 2  # the passes
    picked = pages.picked_up(once, (0, 0, 60, 60))
    assert len(picked.shapes) == 2 * count and {s.lies for s in picked.shapes} == {"over"}
    assert [s.fill.colour for s in picked.shapes[:count]] == ["#f0d0a0"] * count
