"""The brush document: defaults, limits, what is refused, and the one-file brush."""

import io
import json
import random
import re
import zipfile

import jsonschema
import pytest

from making import bar_svg, brush_document
from sewn_garland.core.errors import InputError
from sewn_garland.core.reading.brush_document import (
    bound_sentence,
    document_from_data,
    published_schema,
    read_brush,
)


def written(tmp_path, document, name="brush.json"):
    file = tmp_path / name
    file.write_text(json.dumps(document))
    return file


def test_everything_but_the_pieces_has_its_default(tmp_path):
    brush = read_brush(written(tmp_path, brush_document()))
    travel, spacing, ends = brush.travel, brush.spacing, brush.ends
    assert (travel.facing, travel.turn_deg, travel.mirror, travel.side_shift_mm) == ("line", 0, "off", 0)
    assert (spacing.size, spacing.gap, spacing.ease, spacing.ease_limit, spacing.rest) == (1, 0, "leave", 0.1, "end")
    assert (ends.corner_from_deg, ends.outside_corner, ends.inside_corner) == (30, "through", "through")


def test_motifs_lie_beside_the_brush_and_never_outside_its_folder(tmp_path):
    (tmp_path / "leaf.svg").write_text(bar_svg(6, 3))
    document = brush_document(pieces={"repeat": [{"motif": "leaf.svg", "base_line_mm": 2.5}]})
    brush = read_brush(written(tmp_path, document))
    assert (brush.pieces.repeat[0].width, brush.pieces.repeat[0].base_line) == (6, 2.5)
    for name in ("../leaf.svg", "/etc/passwd", "a/../../leaf.svg", "C:\\leaf.svg"):
        with pytest.raises(InputError, match="lies outside the brush's folder"):
            read_brush(written(tmp_path, brush_document(pieces={"repeat": [{"motif": name}]})))
    with pytest.raises(InputError, match="cannot be read"):
        read_brush(written(tmp_path, brush_document(pieces={"repeat": [{"motif": "none.svg"}]})))


@pytest.mark.parametrize(
    ("sections", "says"),
    [
        ({"spacing": {"gap_pct": -100}}, r"spacing\.gap_pct: it must be more than -100 \(came: -100\)"),
        ({"spacing": {"size_pct": 0}}, r"spacing\.size_pct: it must be more than 0"),
        ({"spacing": {"size_pct": "12"}}, r"spacing\.size_pct: it must be a number"),
        ({"spacing": {"colour": 1}}, r"spacing\.colour: this key is not known"),
        ({"travel": {"facing": "up"}}, r"travel\.facing: it must be 'line', 'page' or 'start'"),
        ({"version": 2}, r"version: it must be 1"),
        ({"name": ""}, r"name: "),
        ({"pieces": {"repeat": []}}, r"pieces\.repeat"),
        ({"pieces": {"repeat": [{}]}}, r"give either motif"),
        ({"ends": {"corner_from_deg": 181}}, r"ends\.corner_from_deg: it must be at most 180"),
    ],
)
def test_wrong_values_are_refused_by_their_path(sections, says):
    with pytest.raises(InputError, match=says):
        document_from_data(brush_document(**sections))


def varies(of, between, **more):
    return {"of": of, "between": between, **more}


@pytest.mark.parametrize(
    ("sections", "says"),
    [({"travel": {"kind": "scattered", "round_bends": "jointed"}}, "scattered pieces do not hang by joints; let them go rigid or bent"),
     ({"travel": {"round_bends": "jointed"}, "variations": [varies("size", [50, 100])]}, "so their size cannot vary: let them go rigid"),
     ({"travel": {"kind": "once_length"}, "variations": [varies("count", [1, 3])]}, "a piece laid once fills its line"),
     ({"ends": {"outside_corner": "mitre"}, "variations": [varies("gap", [0, 50])]}, "so their gap cannot follow chance there")],
)  # fmt: skip
def test_settings_that_cannot_be_together_are_refused_and_never_ignored(tmp_path, sections, says):
    with pytest.raises(InputError, match=says):
        read_brush(written(tmp_path, brush_document(**sections)))


@pytest.mark.parametrize(
    ("variation", "says"),
    [(varies("size", [50, 1200]), "size goes between values from 0 to 1000 %; take two of these"),
     (varies("opacity", [0, 101]), "opacity goes between values from 0 to 100 %; take two of these"),
     (varies("count", [1, 101]), "count goes between values from 0 to 100 pieces"),
     (varies("size", [50, 100], follows="length", over=3), "what follows length has no over: leave it out"),
     (varies("size", [50, 100], follows="turns", over=1), "over must be from 2 to 2000000 for what follows turns"),
     (varies("size", [50, 100], follows="pieces", over=2.5), "over counts whole pieces; 2.5 is none"),
     (varies("size", [50, 100], response=[[0, 0], [0.5, 1], [0.4, 1], [1, 1]]), "a response rises from point to point; 0.4 comes after 0.5"),
     (varies("size", [50, 100], response=[[0.1, 0], [1, 1]]), "a response goes from 0 to 1; this one goes from 0.1 to 1"),
     (varies("size", [50, 100], response=[[0, 0], [1, 1.5]]), "it must be at most 1"),
     (varies("width", [50, 100]), "it must be 'size'"), (varies("size", [50, 100], follows="moon"), "it must be 'chance'")],
)  # fmt: skip
def test_variations_out_of_limits_are_refused_with_what_to_do(variation, says):
    with pytest.raises(InputError, match=says):
        document_from_data(brush_document(variations=[variation]))


def test_more_than_32_variations_are_refused():
    with pytest.raises(InputError, match="variations: "):
        document_from_data(brush_document(variations=[varies("turn", [0, 9])] * 33))


def test_pieces_of_every_role_are_read_in_one_order(tmp_path):
    pieces = {role: {"svg": bar_svg(width)} for role, width in (("end", 3), ("start", 4))}
    brush = read_brush(written(tmp_path, brush_document(pieces={"repeat": [{"svg": bar_svg()}], **pieces})))
    assert brush.pieces.roles == ("repeat", "start", "end")
    assert [m.width for m in brush.pieces.motifs] == [10, 4, 3]
    assert brush.pieces.index_of("end") == 2


@pytest.mark.parametrize("cuts", [[4, 2], [-1, 5], [2, 11]])
def test_cuts_that_are_crossed_or_off_the_frame_are_refused(tmp_path, cuts):
    with pytest.raises(InputError, match="cuts_mm: the left cut must lie left"):
        read_brush(written(tmp_path, brush_document(pieces={"repeat": [{"svg": bar_svg(), "cuts_mm": cuts}]})))


def test_jointed_travel_eases_by_size_or_not_at_all(tmp_path):
    with pytest.raises(InputError, match=r"spacing\.ease: “gaps” does not go with jointed travel; take leave or size"):
        read_brush(written(tmp_path, brush_document(travel={"round_bends": "jointed"}, spacing={"ease": "gaps"})))


@pytest.mark.parametrize("text", ["{", "[]", "nul", '{"format": NaN}', "[" * 100_000])
def test_what_is_not_a_document_is_refused(tmp_path, text):
    file = tmp_path / "b.json"
    file.write_text(text)
    with pytest.raises(InputError, match=r"b\.json"):
        read_brush(file)


def test_numbers_that_are_not_finite_are_refused():
    for value in (float("nan"), float("inf")):
        with pytest.raises(InputError, match="finite"):
            document_from_data(brush_document(spacing={"gap_pct": value}))


def test_one_file_brushes_are_read(tmp_path):
    buffer = io.BytesIO()
    with zipfile.ZipFile(buffer, "w") as archive:
        archive.writestr("brush.json", json.dumps(brush_document(pieces={"repeat": [{"motif": "m/leaf.svg"}]})))
        archive.writestr("m/leaf.svg", bar_svg(7, 2))
    file = tmp_path / "b.garland"
    file.write_bytes(buffer.getvalue())
    assert read_brush(file).pieces.repeat[0].width == 7
    file.write_bytes(b"not a zip")
    with pytest.raises(InputError, match="not a brush file"):
        read_brush(file)


def test_the_published_schema_accepts_what_is_read_and_refuses_what_is_not():
    validator = jsonschema.Draft202012Validator(published_schema())
    assert validator.is_valid(brush_document())
    assert not validator.is_valid(brush_document(spacing={"gap_pct": -100}))
    assert not validator.is_valid(brush_document(extra=1))


def test_a_merge_patch_changes_the_brush_in_the_documents_units(tmp_path):
    brush = read_brush(written(tmp_path, brush_document())).changed({"spacing": {"gap_pct": 25, "ease": "size"}})
    assert (brush.spacing.gap, brush.spacing.ease) == (0.25, "size")


def test_limits_are_said_in_the_words_that_refuse():
    with pytest.raises(InputError, match=bound_sentence("gt", -100)):
        document_from_data(brush_document(spacing={"gap_pct": -200}))


def test_a_damaged_archive_is_refused_in_one_sentence_or_read(tmp_path):
    packed = io.BytesIO()
    with zipfile.ZipFile(packed, "w", zipfile.ZIP_DEFLATED) as archive:
        archive.writestr("brush.json", json.dumps({**brush_document(), "pieces": {"repeat": [{"motif": "bar.svg"}]}}))
        archive.writestr("bar.svg", bar_svg())
    whole, chance, file = packed.getvalue(), random.Random(5), tmp_path / "b.garland"
    refused = 0
    for _ in range(300):
        data = bytearray(whole)
        for _ in range(chance.randint(1, 6)):
            data[chance.randrange(len(data))] = chance.randrange(256)
        file.write_bytes(data[: chance.randrange(len(data))] if chance.random() < 0.2 else data)
        try:
            assert read_brush(file).pieces.repeat
        except InputError as error:
            refused += 1
            assert "\n" not in error.message
            assert not re.search(r"Error -?\d|zlib|seek|codec", error.message)
    assert 100 < refused < 300
