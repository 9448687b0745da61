import { Refusal, type Schemas } from "./client";
import { MESH, TABLES } from "./tables";

export type Cure = Schemas["CureMessage"];
export type Finding = Schemas["FindingMessage"];
type Entry = Schemas["TableEntry"];
type Table = keyof typeof TABLES;
type Numbers = { f4: Float32Array; u2: Uint16Array; u4: Uint32Array };
type NumbersOf<T extends Table> = Numbers[(typeof TABLES)[T]["dtype"]];

/** What is painted of a scene, a table each (see tables.ts for their columns); empty where the answer leaves one out. */
export interface ScenePieces {
  matrices: Float32Array;
  motif: Uint16Array;
  opacity: Float32Array;
  paints: Uint32Array;
  wide: number;
  colouring: Uint32Array;
  drawn: Uint32Array;
  outline: Float32Array;
  contours: Uint32Array;
  cut: Uint32Array;
  bisectors: Float32Array;
  close: Uint32Array;
  areas: Uint32Array;
  rings: Float32Array;
  meshes: PictureMesh[];
}

/** A laid line: what is said of it, and its tables. */
export interface Scene extends SceneFigures, ScenePieces {
  extents: Float32Array;
  joins: Float32Array;
  /** Where its bend strip was asked for. */
  strip: { bend: Float32Array; vertices: Float32Array } | null;
}

type SceneFigures = Required<
  Pick<Schemas["SceneHeader"], "findings" | "verdict" | "length_mm" | "closed" | "pieces" | "eased_pct" | "ease">
> &
  Omit<Schemas["SceneHeader"], "findings" | "verdict" | "length_mm" | "closed" | "pieces" | "eased_pct" | "ease">;

/** Bent pictures of one shape: for each (piece, shape) in `of` the points of its mesh, row by row from its top left. */
export interface PictureMesh {
  of: Uint32Array;
  points: Float32Array;
  rows: number;
  columns: number;
}

export interface LaidScenes<Header extends Schemas["ScenesHeader"] = Schemas["ScenesHeader"]> {
  scenes: Scene[];
  header: Omit<Header, "scenes" | "arrays">;
}

const KINDS = { f4: Float32Array, u2: Uint16Array, u4: Uint32Array };
const NOTHING = { findings: [], verdict: "", length_mm: 0, closed: false, pieces: 0, eased_pct: 0, ease: "leave" };

/** The tables of one scene. */
class Tables {
  constructor(
    private readonly buffer: ArrayBuffer,
    private readonly begin: number,
    private readonly entries: Entry[],
  ) {}

  of<T extends Table>(table: T, number = 0): NumbersOf<T> {
    const Kind = KINDS[TABLES[table].dtype];
    const entry = this.entry(table, number);
    const numbers = entry
      ? new Kind(
          this.buffer,
          this.begin + entry.offset,
          entry.shape.reduce((a, b) => a * b, 1),
        )
      : new Kind(0);
    return numbers as NumbersOf<T>;
  }

  entry(table: Table, number = 0): Entry | undefined {
    return this.entries.find((e) => e.table === table && e.number === number);
  }

  meshes(): PictureMesh[] {
    return this.entries.flatMap(({ table, number, shape }) => {
      if (table !== "mesh") return [];
      const [, rows, columns, width] = shape;
      if (width !== MESH.width) throw new Refusal("the server's answer could not be read", "unreadable");
      return [{ of: this.of("meshed", number), points: this.of("mesh", number), rows, columns }];
    });
  }
}

/** Read packed scenes: "SGB2", header length, JSON header, then the tables it names on multiples of 8 bytes. */
export function unpackScenes<Header extends Schemas["ScenesHeader"]>(buffer: ArrayBuffer): LaidScenes<Header> {
  const magic = new TextDecoder().decode(new Uint8Array(buffer, 0, 4));
  if (magic !== "SGB2") throw new Refusal("the server's answer could not be read", "unreadable");
  const length = new DataView(buffer).getUint32(4, true);
  const { scenes, arrays, ...header } = JSON.parse(new TextDecoder().decode(new Uint8Array(buffer, 8, length))) as Header;
  const parts = scenes.map((): Entry[] => []);
  for (const entry of arrays) parts[entry.part].push(entry);
  return { scenes: scenes.map((scene, i) => sceneOf(scene, new Tables(buffer, 8 + length, parts[i]))), header };
}

function sceneOf(scene: Schemas["SceneHeader"], tables: Tables): Scene {
  return {
    ...NOTHING,
    ...scene,
    matrices: tables.of("pieces"),
    motif: tables.of("motif"),
    opacity: tables.of("opacity"),
    paints: tables.of("paints"),
    wide: tables.entry("paints")?.shape[1] ?? 0,
    colouring: tables.of("colouring"),
    drawn: tables.of("drawn"),
    outline: tables.of("outline"),
    contours: tables.of("contours"),
    cut: tables.of("cut"),
    bisectors: tables.of("bisector"),
    close: tables.of("close"),
    areas: tables.of("area"),
    rings: tables.of("ring"),
    meshes: tables.meshes(),
    extents: tables.of("extent"),
    joins: tables.of("joins"),
    strip: tables.entry("bend") ? { bend: tables.of("bend"), vertices: tables.of("vertices") } : null,
  };
}

/**
 * Keep the cures of findings that are the same as before while new ones are worked out, so that a cure being looked at does
 * not vanish under the pointer.
 */
export function withCuresOf<Laid extends Pick<LaidScenes, "scenes">>(before: Pick<LaidScenes, "scenes"> | null, now: Laid): Laid {
  if (!before) return now;
  const known = new Map(before.scenes.map((s) => [s.key, s.findings]));
  const scenes = now.scenes.map((scene) => ({
    ...scene,
    findings: scene.findings.map((f) =>
      f.cures.length ? f : { ...f, cures: known.get(scene.key)?.find((g) => same(f, g))?.cures ?? [] },
    ),
  }));
  return { ...now, scenes };
}

const same = (f: Finding, g: Finding): boolean =>
  f.kind === g.kind && f.at_mm === g.at_mm && f.amount === g.amount && f.count === g.count;
