"""Pieces that a brush's repeat makes: ends, corners, borders, and all of them on the sampler."""

from __future__ import annotations

from collections.abc import Callable, Iterable, Iterator
from typing import cast

import numpy as np
from sqlmodel import Session, select

from ..core.errors import InputError
from ..core.making.borders import Arrangement, arrangement_of, in_arrangement
from ..core.making.corners import END_WAYS, SIDE_OF, EndWay, end_from_repeat
from ..core.making.interlocking import divided
from ..core.values.brush import Role
from ..core.values.motif import Motif
from ..store import tables
from ..store.history import Change, NotFound, make_step
from .brushes import with_piece
from .corner_proposals import CORNER_WAYS, CornerWay, apart_of, beside_corner, corner_made, corner_proposals, suiting_way
from .motifs import motif_values, plain_values
from .parked import whole
from .rows import all_ids, ids_by_role, piece_of, repeat_alone, row_of
from .sampler import Sample, sample_of


def border_of(session: Session, brush_id: int) -> Arrangement:
    """Return which of the seven border arrangements a brush has: the one it was given, where its motifs are still those, for those of
    symmetrical ones look alike in several.
    """
    row = row_of(session, "brush", brush_id)
    given = row.pieces.get("border")
    if given and (_border_made_of(session, row)[1] or ids_by_role(row)["repeat"] == [given["motif_id"]]):
        return given["arrangement"]
    return arrangement_of([piece_of(session, row_of(session, "motif", i)) for i in ids_by_role(row)["repeat"]])


def set_border(session: Session, brush_id: int, version: int, arrangement: Arrangement) -> tables.Brush:
    """Give a brush a border arrangement of the motif it began with."""
    row = row_of(session, "brush", brush_id)
    motif, made = _border_made_of(session, row)
    label, key = f"border of {row.name}", f"border {row.id} {row.version}"
    if arrangement == "slide" and made:
        ids = [motif.id]  # the motif itself, as it was before any border
    else:
        bordered = enumerate(in_arrangement(piece_of(session, motif), arrangement), start=1)
        own = [motif_values(session, each) | {"name": f"{motif.name}, in border {i}"} for i, each in bordered]
        kept = make_step(session, label, [Change("motif", None, values) for values in own], merge_key=key)
        ids = [after["id"] for after in kept if after is not None]
    border = {"motif_id": motif.id, "arrangement": arrangement}
    values = {"motif_id": ids[0], "pieces": {**row.pieces, "repeat": ids[1:], "border": border}}
    used = {i for b in session.exec(select(tables.Brush).where(tables.Brush.id != row.id)).all() for i in all_ids(b)}
    used |= {i for role, of_role in ids_by_role(row).items() if role != "repeat" for i in of_role}
    return _with_piece(session, label, key, Change("brush", brush_id, values, version), [i for i in made if i not in used])


def _border_made_of(session: Session, row: tables.Brush) -> tuple[tables.Motif, list[int]]:
    """Return the motif that a brush's border was made of, and the ids of what was made of it.

    Where its repeat is no border, or one that was changed since, that is its first motif, and nothing was made.
    """
    ids, border = ids_by_role(row)["repeat"], row.pieces.get("border")
    began = session.get(tables.Motif, border["motif_id"]) if border else None
    if border and began is not None:
        made = [motif_values(session, motif) for motif in in_arrangement(piece_of(session, began), border["arrangement"])]
        rows = [row_of(session, "motif", i).model_dump() for i in ids]
        if len(made) == len(rows) and all(one.items() <= other.items() for one, other in zip(made, rows, strict=True)):
            return began, ids
    return row_of(session, "motif", row.motif_id), []


def make_piece(session: Session, brush_id: int, version: int, role: Role, way: CornerWay | EndWay | None = None) -> tables.Brush:
    """Make the piece of a role from the repeat, an end or a corner, in one of its ways, and use it; a corner by default as suits the brush.

    A piece that was made so before, and neither worked on nor used elsewhere since, goes in the same step.
    """
    row = row_of(session, "brush", brush_id)
    repeat = divided(piece_of(session, row_of(session, "motif", row.motif_id)))
    words = role.replace("_", " ")
    if way is None and role in SIDE_OF:
        way, _ = next(_corners_of(session, row, role), (None, None))
    if way is None:
        raise InputError(f"no piece for {words} can be made of this repeat; trace or cut it first")
    if (role in SIDE_OF) != (way in CORNER_WAYS):
        raise InputError(f"a piece for {words} is not made so")
    apart = apart_of(repeat_alone(session, row))

    def made(way: CornerWay | EndWay) -> dict:
        if role in SIDE_OF:
            motif = corner_made(repeat, SIDE_OF[role], cast(CornerWay, way), apart)
        else:
            motif = end_from_repeat(repeat, role, cast(EndWay, way))
        return motif_values(session, motif) | {"name": f"{row.name}, {words}"}

    label, key = f"{words} of {row.name}", f"piece {row.id} {row.version}"
    (motif,) = make_step(session, label, [Change("motif", None, made(way))], merge_key=key)
    values = with_piece(row, role, motif["id"] if motif else None)
    gone = _left_over(session, row, role, CORNER_WAYS if role in SIDE_OF else END_WAYS, made)
    return _with_piece(session, label, key, Change("brush", brush_id, values, version), gone)


def _with_piece(session: Session, label: str, key: str, wanted: Change, gone: list[int]) -> tables.Brush:
    """Change a brush and delete motifs that it does not need any more, in the step that is under way."""
    after = make_step(session, label, [wanted, *(Change("motif", i, None) for i in gone)], merge_key=key)[0]
    assert after is not None
    return tables.Brush(**after)


def _left_over(
    session: Session, row: tables.Brush, role: Role, ways: Iterable[CornerWay | EndWay], made: Callable[[CornerWay | EndWay], dict]
) -> list[int]:
    """Return the id of a role's piece where it was made in one of some ways, not worked on since, and nothing else uses it."""
    old = session.get(tables.Motif, row.pieces.get(role) or 0)
    brushes = session.exec(select(tables.Brush)).all()
    if old is None or sum(all_ids(b).count(old.id) for b in brushes) > 1:
        return []
    kept = old.model_dump().items()
    for way in ways:
        try:
            if made(way).items() <= kept:
                return [old.id]
        except InputError:  # not every way suits every repeat
            continue
    return []


def corner_ways(session: Session, brush_id: int, role: Role) -> tuple[list[CornerWay], CornerWay | None]:
    """Return the ways in which a brush's repeat can be made into a corner piece, and which of them its piece has; None where it has
    none, or was worked on since.
    """
    row = row_of(session, "brush", brush_id)
    made = dict(_corners_of(session, row, role))
    old = session.get(tables.Motif, row.pieces.get(role) or 0)
    ways: list[CornerWay] = [way for way in CORNER_WAYS if way in made]
    if old is None:
        return ways, None
    kept = {**old.model_dump(), "svg": whole(session, old.svg)}.items()
    return ways, next((way for way in ways if plain_values(made[way]).items() <= kept), None)


def _corners_of(session: Session, row: tables.Brush, role: Role) -> Iterator[tuple[CornerWay, Motif]]:
    repeat, brush = divided(piece_of(session, row_of(session, "motif", row.motif_id))), repeat_alone(session, row)
    return corner_proposals(repeat, SIDE_OF[role], apart_of(brush), first=suiting_way(brush))


def on_its_corner(session: Session, brush_id: int, role: Role) -> tuple[tables.Motif, np.ndarray]:
    """Return the motif of a brush's repeat, and where its repeats lie (k, 6) beside its corner piece, which is where it is drawn.

    Raises NotFound where the brush has no piece of that role.
    """
    brush = row_of(session, "brush", brush_id)
    if not brush.pieces.get(role):
        raise NotFound(f"piece for {role.replace('_', ' ')}")
    row = row_of(session, "motif", brush.motif_id)
    corner = piece_of(session, row_of(session, "motif", brush.pieces[role]))
    beside = beside_corner(piece_of(session, row), corner, SIDE_OF[role], apart_of(repeat_alone(session, brush)))
    return row, beside.transpose(0, 2, 1).reshape(-1, 6)


def sampled(session: Session, brush_id: int) -> tuple[Sample, dict[Role, list[int]]]:
    """Return all pieces of a brush where they lie on the sampler, and the ids of its motifs by role."""
    row = row_of(session, "brush", brush_id)
    ids = ids_by_role(row)
    singles: dict[Role, Motif] = {
        role: piece_of(session, row_of(session, "motif", of_role[0])) for role, of_role in ids.items() if role != "repeat"
    }
    return sample_of(repeat_alone(session, row), singles), ids
