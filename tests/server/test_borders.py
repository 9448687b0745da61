"""Border arrangements of a brush, one after the other: each of the motif that the brush began with."""

import pytest

from making import bar_svg, svg
from sewn_garland.core.making.borders import COPIES

ORDER = ["along", "half_turn", "all", "glide", "half_turn_glide", "upright"]


@pytest.fixture
def waves(client):
    """A brush of one motif without symmetry: the ways to look at what there is and to press an arrangement."""
    drawing = svg('<path d="M0 4L7 0L10 4Z" fill="#2c6f86"/>', 10, 4)
    assert client.post("/api/motifs", json={"name": "Wave", "svg": drawing}).status_code == 201
    assert client.post("/api/brushes", json={"name": "Wave border", "motif_id": 1, "settings": {}}).status_code == 201

    def now():
        state = client.get("/api/workshop").get_json()
        return (
            next(b for b in state["brushes"] if b["name"] == "Wave border"),
            {m["id"]: m["name"] for m in state["motifs"]},
            state["history"],
        )

    def press(arrangement):
        brush = now()[0]
        reply = client.post(f"/api/brushes/{brush['id']}/border", json={"version": brush["version"], "arrangement": arrangement})
        assert reply.status_code == 200, reply.get_json()
        return client.get(f"/api/brushes/{brush['id']}/border").get_json()["arrangement"]

    return now, press


def test_each_is_made_of_the_motif_the_border_began_with(waves):
    now, press = waves
    before, motifs, _ = now()
    for arrangement in ORDER:
        assert press(arrangement) == arrangement
        brush, there, _ = now()
        assert len(there) == len(motifs) + len(COPIES[arrangement])  # what an earlier one was made of is gone with it
        assert len(brush["pieces"]["repeat"]) == len(COPIES[arrangement])
    assert press("slide") == "slide"
    brush, there, _ = now()
    assert brush["pieces"] == before["pieces"] and there == motifs


def test_every_step_can_be_taken_back_and_again(client, waves):
    now, press = waves
    seen = [now()[:2]]
    for arrangement in ORDER[:3]:
        press(arrangement)
        seen.append(now()[:2])
    for way, states in (("undo", seen[-2::-1]), ("redo", seen[1:])):
        for brush, motifs in states:
            step = now()[2][f"{way}_id"]
            assert client.post(f"/api/{way}", json={"step_id": step}).status_code == 200
            assert now()[0]["pieces"] == brush["pieces"] and now()[1] == motifs
    assert press("glide") == "glide"  # and the border still knows what it was made of


@pytest.mark.parametrize("edit", [
    {"op": "transform", "parts": [0], "scale_x": 1, "scale_y": 1, "turn_deg": 10, "about_mm": None},
    {"op": "base_line", "base_line_mm": 1.0},
], ids=["turned", "base line"])  # fmt: skip
def test_a_border_whose_motif_was_changed_since_is_made_of_what_is_there(client, waves, edit):
    now, press = waves
    press("along")
    brush, _, _ = now()
    own = brush["pieces"]["repeat"][0]
    version = client.get(f"/api/motifs/{own}").get_json()["version"]
    assert client.post(f"/api/motifs/{own}/edit", json={"version": version, "edit": edit}).status_code == 200
    press("upright")
    assert own in now()[1]  # a motif with work in it is kept


def test_a_piece_of_another_role_stays(client, waves):
    now, press = waves
    press("upright")
    brush, _, _ = now()
    own = brush["pieces"]["repeat"][0]
    body = {"version": brush["version"], "role": "start", "motif_ids": [own]}
    assert client.post(f"/api/brushes/{brush['id']}/pieces", json=body).status_code == 200
    press("glide")
    brush, motifs, _ = now()
    assert brush["pieces"]["start"] == own and own in motifs


def test_what_another_brush_uses_stays(client, waves):
    now, press = waves
    press("upright")
    brush, _, _ = now()
    client.post("/api/brushes", json={"name": "Copy", "copy_of": brush["id"]})
    press("along")
    assert set(brush["pieces"]["repeat"]) <= set(now()[1])


def test_of_a_symmetrical_motif_the_border_is_the_one_that_was_pressed(bench):
    """A bar laid in turn has all symmetries, whichever arrangement it was given."""
    brush = {"version": 1}
    assert bench.get("/api/brushes/1/border").get_json()["arrangement"] == "all"
    for arrangement in (*ORDER, "slide"):
        brush = bench.post("/api/brushes/1/border", json={"version": brush["version"], "arrangement": arrangement}).get_json()
        assert bench.get("/api/brushes/1/border").get_json()["arrangement"] == arrangement
    other = bench.post("/api/motifs", json={"name": "longer", "svg": bar_svg(20)}).get_json()["id"]
    own = {"version": brush["version"], "role": "repeat", "motif_ids": [other]}
    assert bench.post("/api/brushes/1/pieces", json=own).status_code == 200
    assert bench.get("/api/brushes/1/border").get_json()["arrangement"] == "all"  # another motif, as it is recognised
