"""The tables. Every kept thing has a ``version`` that rises with each change to it."""

from __future__ import annotations

from sqlalchemy import JSON, Column, ForeignKey, Integer, MetaData
from sqlmodel import Field, SQLModel

NAMING = {
    "ix": "ix_%(column_0_label)s", "uq": "uq_%(table_name)s_%(column_0_name)s",
    "ck": "ck_%(table_name)s_%(constraint_name)s", "fk": "fk_%(table_name)s_%(column_0_name)s_%(referred_table_name)s",
    "pk": "pk_%(table_name)s",
}  # fmt: skip


class Base(SQLModel):
    metadata = MetaData(naming_convention=NAMING)
    __table_args__ = {"sqlite_autoincrement": True}


class Versioned(Base):
    """A row whose version rises with every change."""

    id: int = Field(default=None, primary_key=True)  # given by the database
    version: int = 1


class Motif(Versioned, table=True):
    """A motif: ``svg`` is our own clean drawing of it, its frame the SVG's size.

    ``picture`` tells the ``sha`` of the picture that it was made of, and the ``preparation``.
    """

    name: str
    svg: str
    base_line_mm: float
    left_out: list = Field(default_factory=list, sa_column=Column(JSON, nullable=False))
    cuts_mm: list | None = Field(default=None, sa_column=Column(JSON(none_as_null=True)))
    joints_mm: list | None = Field(default=None, sa_column=Column(JSON(none_as_null=True)))
    picture: dict | None = Field(default=None, sa_column=Column(JSON(none_as_null=True)))


class Brush(Versioned, table=True):
    """A brush: ``settings`` holds the sections travel, spacing, ends and variants of its document.

    ``motif_id`` is its first repeat piece; ``pieces`` holds motif ids by role: ``repeat`` the other
    variants in order, ``start``, ``end``, ``outside_corner``, ``inside_corner`` one each. Where the
    repeat is a border, ``border`` tells the ``motif_id`` it was made of and its ``arrangement``. ``pinned`` are arrangements of what
    varies that were found good.
    """

    name: str
    motif_id: int = Field(sa_column=Column(Integer, ForeignKey("motif.id"), nullable=False, index=True))
    settings: dict = Field(default_factory=dict, sa_column=Column(JSON, nullable=False))
    pieces: dict = Field(default_factory=dict, sa_column=Column(JSON, nullable=False))
    pinned: list = Field(default_factory=list, sa_column=Column(JSON, nullable=False))


class Page(Versioned, table=True):
    """A sheet in mm; ``ground`` is its colour or none, ``ground_picture`` what lies on that (``sha`` of a picture that was brought in, how
    it is ``laid``, and what was read of it), ``scenery`` flat shapes drawn under the lines, ``palette`` its inks, each with a
    ``name`` and a ``colour``.
    """

    name: str
    width_mm: float
    height_mm: float
    ground: str | None = None
    ground_picture: dict | None = Field(default=None, sa_column=Column(JSON(none_as_null=True)))
    scenery: list = Field(default_factory=list, sa_column=Column(JSON, nullable=False))
    palette: list = Field(default_factory=list, sa_column=Column(JSON, nullable=False))


class Line(Versioned, table=True):
    """A line on a page: ``source`` says how it was drawn, ``path`` is the path data in mm it gives.

    ``seed`` is the number that chance knows it by; it keeps it when lines are reordered. Inks and arrangement go before the brush's.
    """

    page_id: int = Field(sa_column=Column(Integer, ForeignKey("page.id", ondelete="CASCADE"), nullable=False, index=True))
    brush_id: int = Field(sa_column=Column(Integer, ForeignKey("brush.id"), nullable=False, index=True))
    name: str
    position: float = 0.0
    source: dict = Field(default_factory=dict, sa_column=Column(JSON, nullable=False))
    path: str
    size_pct: float = 100.0
    ink: str | None = None
    second_ink: str | None = None
    arrangement: int | None = None
    visible: bool = True
    seed: int = 0


class Step(Base, table=True):
    """One named change: what it changed of each row, before and after, so that it can be taken back.

    A row that was made or taken away stands there whole.
    """

    id: int = Field(default=None, primary_key=True)  # given by the database
    label: str
    at: float
    changes: list = Field(default_factory=list, sa_column=Column(JSON, nullable=False))
    merge_key: str = ""
    undone: bool = False


class Original(SQLModel, table=True):
    """A picture as it was brought in, by the SHA-256 of its bytes; kept as long as the file, undo or not."""

    metadata = Base.metadata
    sha: str = Field(primary_key=True)
    name: str
    data: bytes
    width_px: int
    height_px: int
    dpi: float | None = None
    told: list = Field(default_factory=list, sa_column=Column(JSON, nullable=False))


TABLES: dict[str, type[Versioned]] = {"motif": Motif, "brush": Brush, "page": Page, "line": Line}
