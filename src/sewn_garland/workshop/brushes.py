"""Brushes: made, changed, hung at another pitch, given pieces."""

from __future__ import annotations

from sqlmodel import Session, select

from ..core.errors import InputError
from ..core.making.brushes import hung_at
from ..core.making.cutting import cut_in_three
from ..core.making.suiting import Suit, of_strip, suited
from ..core.reading.brush_document import refuse_together
from ..core.values.brush import SECTIONS, Role, Settings
from ..store import tables
from ..store.history import Change, StaleChange, last_step_that, make_step
from .motifs import motif_values
from .rows import ids_by_role, motif_of, named, numbered, repeat_alone, row_of, settings_of


def make(
    session: Session, name: str | None = None, *, motif_id: int | None = None, copy_of: int | None = None, patch: dict | None = None
) -> tables.Brush:
    """Make a brush from a motif, or a copy of another brush.

    It begins with settings that suit the motif, a link with the joints by which it hangs in its neighbours, unless it has some;
    or with plain ones, a copy with those of its brush, under a ``patch``. Without a name it has its motif's, or the next of its brush's.
    """
    if (motif_id is None) == (copy_of is None):
        raise InputError("give either motif_id or copy_of")
    if copy_of is not None:
        source = row_of(session, "brush", copy_of)
        name = name or copy_name(session, source)
        settings = merged_settings(settings_of(source), patch or {}).model_dump()
        values = {"motif_id": source.motif_id, "pieces": source.pieces, "settings": settings}
        return _kept(session, f"new brush {name}", Change("brush", None, values | {"name": name}))
    assert motif_id is not None
    row = row_of(session, "motif", motif_id)
    name = name or row.name
    suit = suited(motif_of(session, row)) if patch is None else Suit(patch)
    values = {"name": name, "motif_id": motif_id, "pieces": {}, "settings": _settings(suit.settings)}
    hung = [Change("motif", motif_id, {"joints_mm": [list(joint) for joint in suit.joints]})] if suit.joints else []
    *_, after = make_step(session, f"new brush {name}", [*hung, Change("brush", None, values)])
    assert after is not None
    return tables.Brush(**after)


def change(
    session: Session,
    brush_id: int,
    version: int,
    *,
    name: str | None = None,
    motif_id: int | None = None,
    patch: dict | None = None,
    pinned: list[int] | None = None,
    was: dict | None = None,
    label: str | None = None,
    merge_key: str = "",
) -> tables.Brush:
    """Change a brush's name, first motif, pinned arrangements, or settings by a merge patch (RFC 7396).

    A change of settings that tells what they ``was``, as a patch too, is put together with what others changed of the brush since;
    raises StaleChange where both changed the same setting.
    """
    row = row_of(session, "brush", brush_id)
    if row.version != version and patch is not None and was is not None:
        _refuse_clash(session, row, patch, was, label)
        version = row.version
    values: dict = {}
    if patch is not None:
        values["settings"] = merged_settings(settings_of(row), patch).model_dump()
    if pinned is not None:
        values["pinned"] = sorted(set(pinned))
    if motif_id is not None:
        row_of(session, "motif", motif_id)
        values["motif_id"] = motif_id
    if name is not None:
        values["name"] = name
    label = label or (f"rename {row.name}" if name else f"change {row.name}")
    return _kept(session, label, Change("brush", brush_id, values, version), merge_key=merge_key)


def _refuse_clash(session: Session, row: tables.Brush, patch: dict, was: dict, label: str | None) -> None:
    """Raise StaleChange where a setting of a patch is neither what it was nor what it is to be."""
    now = settings_of(row).model_dump(mode="json")
    clashing = [place for place in _places(patch) if _at(now, place) not in (_at(was, place), _at(patch, place))]
    if not clashing:
        return

    def changed(before: dict, after: dict) -> bool:
        old, new = before.get("settings") or {}, after.get("settings") or {}
        return any(_at(old, place) != _at(new, place) for place in clashing)

    theirs = last_step_that(session, "brush", row.id or 0, changed) or "what it was before"
    raise StaleChange("brush", row.model_dump(), theirs=theirs, yours=label)


def _places(patch: dict) -> list[tuple[str, ...]]:
    """Return where the settings of a patch are: a section and a key, or a section that is changed as a whole."""
    whole = [(section,) for section, entries in patch.items() if not isinstance(entries, dict)]
    return whole + [(section, key) for section, entries in patch.items() if isinstance(entries, dict) for key in entries]


def _at(settings: dict, place: tuple[str, ...]) -> object:
    found: object = settings
    for key in place:
        found = found.get(key) if isinstance(found, dict) else None
    return found


def copy_name(session: Session, brush: tables.Brush) -> str:
    """Return a name for a copy of a brush: its own, with the next number that no brush has."""
    return numbered(brush.name, set(session.exec(select(tables.Brush.name))))


def _settings(patch: dict) -> dict:
    return merged_settings(Settings(), patch).model_dump()


def merged_settings(settings: Settings, patch: dict) -> Settings:
    """Apply a JSON merge patch and check the result; raises InputError for what cannot be together."""
    data, defaults = settings.model_dump(), Settings().model_dump()
    for section, entries in patch.items():
        if section == "variations":
            data[section] = entries or []
            continue
        if section not in SECTIONS or not isinstance(entries, dict):
            raise InputError(f"{section}: this key is not known")
        for key, value in entries.items():
            data[section][key] = defaults[section].get(key) if value is None else value
    merged = Settings.model_validate(data)
    refuse_together(merged)
    return merged


def delete(session: Session, brush_id: int, version: int) -> None:
    """Delete a brush; raises InputError while a line uses it."""
    row = row_of(session, "brush", brush_id)
    users = session.exec(select(tables.Line).where(tables.Line.brush_id == brush_id)).all()
    if users:
        raise InputError(f"{row.name} lies on {named(users)}; give those lines another brush first")
    make_step(session, f"delete {row.name}", [Change("brush", brush_id, None, version)])


def hang(session: Session, brush_id: int, pitch_mm: float, *, merge_key: str = "") -> tables.Brush:
    """Move the joints of a jointed brush's links so that they hang so far from one another."""
    row = row_of(session, "brush", brush_id)
    brush = repeat_alone(session, row)
    if not brush.travel.jointed:
        raise InputError(f"{row.name} is not jointed; its gap says the pitch")
    hung, ids = hung_at(brush, pitch_mm).pieces.repeat, ids_by_role(row)["repeat"]
    moved = {i: Change("motif", i, {"joints_mm": [list(j) for j in m.joints or ()]}) for i, m in zip(ids, hung, strict=True)}
    make_step(session, f"pitch to {pitch_mm:.2f} mm", list(moved.values()), merge_key=merge_key)
    return row


def set_pieces(session: Session, brush_id: int, version: int, role: Role, motif_ids: list[int]) -> tables.Brush:
    """Put a motif to a role of a brush, take it away, or set all variants of the repeat."""
    row = row_of(session, "brush", brush_id)
    for motif_id in motif_ids:
        assert motif_id is not None
        row_of(session, "motif", motif_id)
    words = role.replace("_", " ")
    if role == "repeat":
        if not motif_ids:
            raise InputError("a brush keeps at least one repeat piece")
        values = {"motif_id": motif_ids[0], "pieces": {**row.pieces, "repeat": motif_ids[1:]}}
    else:
        if len(motif_ids) > 1:
            raise InputError(f"there is one piece for {words}, not {len(motif_ids)}")
        values = with_piece(row, role, motif_ids[0] if motif_ids else None)
    return _kept(session, f"{words} of {row.name}", Change("brush", brush_id, values, version))


def with_piece(row: tables.Brush, role: Role, motif_id: int | None) -> dict:
    """Return what a brush becomes when a motif takes a role other than the repeat, or leaves it: a corner's piece is used at once."""
    values = {"pieces": {**row.pieces, role: motif_id}}
    settings = settings_of(row)
    style = getattr(settings.ends, role, None)
    if style is None or (motif_id is None and style != "piece"):
        return values
    used = "through" if motif_id is None else "piece"
    return values | {"settings": merged_settings(settings, {"ends": {role: used}}).model_dump()}


def divide(session: Session, motif_id: int, name: str) -> tables.Brush:
    """Cut a motif in three pieces of a new brush."""
    row = row_of(session, "motif", motif_id)
    parts = zip(("start", "repeat", "end"), cut_in_three(motif_of(session, row)), strict=True)
    values = {role: motif_values(session, part) | {"name": f"{name}, {role}"} for role, part in parts if part is not None}
    rows = make_step(session, f"cut {row.name} in three", [Change("motif", None, own) for own in values.values()])
    ids = {role: after["id"] for role, after in zip(values, rows, strict=True) if after is not None}
    pieces = {role: ids[role] for role in ("start", "end") if role in ids}
    brush = {"name": name, "motif_id": ids["repeat"], "pieces": pieces, "settings": _settings(of_strip())}
    return _kept(session, f"brush of {row.name}, cut in three", Change("brush", None, brush))


def _kept(session: Session, label: str, wanted: Change, *, merge_key: str = "") -> tables.Brush:
    """Make a change of one brush as a step; return it as it is then."""
    (after,) = make_step(session, label, [wanted], merge_key=merge_key)
    assert after is not None
    return tables.Brush(**after)
