"""Edit an outline by its points: nodes on the curve, each with a handle in and a handle out."""

from __future__ import annotations

from dataclasses import dataclass, replace
from typing import Literal

import numpy as np

from ..errors import InputError
from ..maths.outlines import TAKES, Outline, joined, split_cubics, subpaths
from ..values.motif import Shape

FLOWING_TOL = np.radians(2.0)  # chosen: handles closer to one line than this read as flowing


@dataclass(frozen=True, eq=False)
class Contour:
    """One subpath: nodes ``at`` (n, 2) with handles ``into`` and ``out`` (n, 2), which lie on the node where there is none."""

    at: np.ndarray
    into: np.ndarray
    out: np.ndarray
    closed: bool

    @property
    def flowing(self) -> np.ndarray:
        """Return for each node (n,) whether both handles lie on one line through it."""
        a, b = self.at - self.into, self.out - self.at
        la, lb = np.hypot(*a.T), np.hypot(*b.T)
        turn = np.abs(np.arctan2(a[:, 0] * b[:, 1] - a[:, 1] * b[:, 0], (a * b).sum(axis=1)))
        return (la > 1e-9) & (lb > 1e-9) & (turn < FLOWING_TOL)


def contours_of(commands: str, points: np.ndarray) -> list[Contour]:
    """Return an outline's subpaths by their nodes."""
    out = []
    for part, own in subpaths(commands, points):
        at, into, leave = [own[0]], [own[0]], [own[0]]
        k = 1
        for command in part[1:]:
            if command == "C":
                leave[-1] = own[k]
                at.append(own[k + 2])
                into.append(own[k + 1])
                leave.append(own[k + 2])
            elif command == "L":
                at.append(own[k])
                into.append(own[k])
                leave.append(own[k])
            k += TAKES[command]
        closed = part.endswith("Z")
        if closed and len(at) > 1 and np.hypot(*(at[-1] - at[0])) < 1e-9:
            into[0] = into[-1] + (at[0] - at[-1])
            at, into, leave = at[:-1], into[:-1], leave[:-1]
        out.append(Contour(np.array(at), np.array(into), np.array(leave), closed))
    return out


def outline_from_contours(contours: list[Contour]) -> Outline:
    """Return contours as an outline; sides without handles are straight."""
    parts = []
    for c in contours:
        n = len(c.at)
        commands, points = ["M"], [c.at[0]]
        for i in range(n if c.closed else n - 1):
            j = (i + 1) % n
            if np.allclose(c.out[i], c.at[i], atol=1e-9) and np.allclose(c.into[j], c.at[j], atol=1e-9):
                if j or not c.closed:
                    commands.append("L")
                    points.append(c.at[j])
            else:
                commands.append("C")
                points += [c.out[i], c.into[j], c.at[j]]
        parts.append(("".join(commands) + ("Z" if c.closed else ""), np.array(points)))
    return joined(parts)


def _edited(shape: Shape, contour: int, change) -> Shape:
    if shape.picture is not None:
        raise InputError("a picture has no points to edit")
    contours = contours_of(shape.commands, shape.points)
    if not 0 <= contour < len(contours):
        raise InputError(f"there is no outline {contour} in this part")
    contours[contour] = change(contours[contour])
    commands, points = outline_from_contours([c for c in contours if c is not None])
    return replace(shape, commands=commands, points=points)


def _node(contour: Contour, node: int) -> int:
    if not 0 <= node < len(contour.at):
        raise InputError(f"there is no point {node} in this outline")
    return node


def with_nodes_moved(shape: Shape, contour: int, nodes: list[int], dx_mm: float, dy_mm: float) -> Shape:
    """Move nodes with their handles."""

    def change(c: Contour) -> Contour:
        move = np.zeros_like(c.at)
        move[[_node(c, n) for n in nodes]] = (dx_mm, dy_mm)
        return replace(c, at=c.at + move, into=c.into + move, out=c.out + move)

    return _edited(shape, contour, change)


def with_handle_at(shape: Shape, contour: int, node: int, side: Literal["into", "out"], x_mm: float, y_mm: float) -> Shape:
    """Pull one handle to a place; at a flowing node the other one turns along, keeping its length."""

    def change(c: Contour) -> Contour:
        i = _node(c, node)
        into, out = c.into.copy(), c.out.copy()
        flows = c.flowing[i]
        pulled, other = (into, out) if side == "into" else (out, into)
        pulled[i] = (x_mm, y_mm)
        arm = c.at[i] - pulled[i]
        size = np.hypot(*arm)
        if flows and size > 1e-9:
            other[i] = c.at[i] + arm / size * np.hypot(*(other[i] - c.at[i]))
        return replace(c, into=into, out=out)

    return _edited(shape, contour, change)


def with_nodes_flowing(shape: Shape, contour: int, nodes: list[int], flowing: bool) -> Shape:
    """Let the curve flow through nodes, along the direction of their neighbours, or point them."""

    def change(c: Contour) -> Contour:
        into, out, n = c.into.copy(), c.out.copy(), len(c.at)
        for i in (_node(c, node) for node in nodes):
            if not flowing:
                into[i] = out[i] = c.at[i]
                continue
            before, after = c.at[(i - 1) % n], c.at[(i + 1) % n]
            along = after - before
            size = np.hypot(*along)
            if size < 1e-9 or n < 3:
                continue
            into[i] = c.at[i] - along / size * np.hypot(*(c.at[i] - before)) / 3
            out[i] = c.at[i] + along / size * np.hypot(*(after - c.at[i])) / 3
        return replace(c, into=into, out=out)

    return _edited(shape, contour, change)


def with_node_added(shape: Shape, contour: int, side: int, at: float) -> Shape:
    """Add a node on the side after node ``side`` at parameter ``at``; the outline does not change."""

    def change(c: Contour) -> Contour:
        i, n = _node(c, side), len(c.at)
        if i == n - 1 and not c.closed:
            raise InputError("an open outline has no side after its last point")
        j = (i + 1) % n
        cubic = np.stack([c.at[i], c.out[i], c.into[j], c.at[j]])
        straight = np.allclose(c.out[i], c.at[i]) and np.allclose(c.into[j], c.at[j])
        spot, into, out = c.at.copy(), c.into.copy(), c.out.copy()
        if straight:
            place = c.at[i] + (c.at[j] - c.at[i]) * at
            spot, into, out = (np.insert(old, i + 1, place, 0) for old in (spot, into, out))
            return replace(c, at=spot, into=into, out=out)
        first, second = (half[0] for half in split_cubics(cubic[None], at))
        out[i], into[j] = first[1], second[2]
        spot, into, out = (np.insert(old, i + 1, new, 0) for old, new in ((spot, first[3]), (into, first[2]), (out, second[1])))
        return replace(c, at=spot, into=into, out=out)

    if not 0 < at < 1:
        raise InputError("a new point must lie between two others")
    return _edited(shape, contour, change)


def with_nodes_removed(shape: Shape, contour: int, nodes: list[int]) -> Shape:
    """Take nodes out; an outline left with fewer than two goes as a whole. Raises InputError when nothing would be left."""

    def change(c: Contour) -> Contour | None:
        keep = np.ones(len(c.at), bool)
        keep[[_node(c, n) for n in nodes]] = False
        if keep.sum() < 2:
            return None
        return replace(c, at=c.at[keep], into=c.into[keep], out=c.out[keep])

    out = _edited(shape, contour, change)
    if not out.commands:
        raise InputError("a part needs at least two points; delete the part instead")
    return out


def with_nodes_squashed(shape: Shape, contour: int, nodes: list[int], along_pct: float, across_pct: float) -> Shape:
    """Bring nodes together about their middle: ``along_pct`` and ``across_pct`` of their distances stay."""

    def change(c: Contour) -> Contour:
        index = [_node(c, n) for n in nodes]
        middle, factor = c.at[index].mean(axis=0), np.array([along_pct, across_pct]) / 100
        at, into, out = c.at.copy(), c.into.copy(), c.out.copy()
        for array in (at, into, out):
            array[index] = middle + (array[index] - middle) * factor
        return replace(c, at=at, into=into, out=out)

    return _edited(shape, contour, change)
