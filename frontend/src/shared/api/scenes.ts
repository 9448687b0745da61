import { Refusal } from "./client";

export interface Cure {
  label: string;
  change: { brush?: Record<string, Record<string, unknown>>; line?: Record<string, unknown> };
}

export interface Finding {
  kind: string;
  at_mm: number;
  amount: number;
  unit: string;
  message: string;
  at: [number, number];
  count: number;
  cures: Cure[];
}

/** Columns of a scene's joins: x, y, s, gap, wished gap, step (mm), kink (degrees), tone (ΔE), outlines apart (mm) and overlapping (mm²), NaN where not measured. */
export const JOIN = { x: 0, y: 1, s: 2, gap: 3, wished: 4, step: 5, kink: 6, tone: 7, apart: 8, overlap: 9, width: 10 } as const;
/** Columns of a scene's extents: s, mm before and mm after the base line's middle. */
export const EXTENT = { s: 0, before: 1, after: 2, width: 3 } as const;

export interface Scene {
  key: string;
  name?: string;
  path?: string;
  line_id?: number | null;
  motif_id?: number;
  /** The motifs of the repeat, in the order of the variants, and their versions. */
  motif_ids?: number[];
  motif_versions?: number[];
  brush_id?: number;
  box?: [number, number];
  /** A trial line whose points were moved; the large one's points in the sheet's own 100 × 70; the line of a page that is pinned. */
  moved?: boolean;
  points?: [number, number][];
  pinned?: number;
  /** The pitch the brush asks for, before any ease (swatches). */
  wished_pitch_mm?: number;
  ink?: string | null;
  refused: string | null;
  verdict: string;
  length_mm: number;
  closed: boolean;
  pieces: number;
  pitch_mm: number | null;
  eased_pct: number;
  ease: string;
  tightest_mm: number | null;
  safe_mm: number | null;
  findings: Finding[];
  matrices: Float32Array;
  /** Which variant each piece is; empty where there is one. */
  variant: Uint16Array;
  extents: Float32Array;
  joins: Float32Array;
  /** Bent pieces as outlines in mm: a first point and three a cubic; empty where pieces are stamped. */
  outline: Float32Array;
  /** A row a contour: its first point, its piece, twice its shape plus one where it is closed. */
  contours: Uint32Array;
  shaped: Uint32Array;
  /** Pieces that end on a bisector, rising, and for each a place on it and the unit direction that leaves what is kept. */
  cut: Uint32Array;
  bisectors: Float32Array;
  meshes: PictureMesh[];
}

/** Bent pictures: for each (its piece and shape in `of`) the mm of its mesh's points, row by row from its top left. */
export interface PictureMesh {
  of: Uint32Array;
  points: Float32Array;
  rows: number;
  columns: number;
}

export interface LaidScenes {
  scenes: Scene[];
  header: Record<string, unknown>;
  strip: { bend: Float32Array; vertices: Float32Array } | null;
}

interface ArrayEntry {
  dtype: "f4" | "u2" | "u4";
  shape: number[];
  offset: number;
}

const NONE = new Float32Array(0);
const NO_VARIANT = new Uint16Array(0);
const NO_CONTOURS = new Uint32Array(0);

/** Read the packed scenes: "SGB1", header length, JSON header, then the arrays on multiples of 8 bytes. */
export function unpackScenes(buffer: ArrayBuffer): LaidScenes {
  const magic = new TextDecoder().decode(new Uint8Array(buffer, 0, 4));
  if (magic !== "SGB1") throw new Refusal("the server's answer could not be read", 0);
  const length = new DataView(buffer).getUint32(4, true);
  const header = JSON.parse(new TextDecoder().decode(new Uint8Array(buffer, 8, length)));
  const arrays = header.arrays as Record<string, ArrayEntry>;
  const floats = (name: string): Float32Array => {
    const entry = arrays[name];
    if (!entry) return NONE;
    return new Float32Array(buffer, 8 + length + entry.offset, entry.shape.reduce((a, b) => a * b, 1));
  };
  const shorts = (name: string): Uint16Array => {
    const entry = arrays[name];
    return entry ? new Uint16Array(buffer, 8 + length + entry.offset, entry.shape[0]) : NO_VARIANT;
  };
  const longs = (name: string): Uint32Array => {
    const entry = arrays[name];
    return entry ? new Uint32Array(buffer, 8 + length + entry.offset, entry.shape.reduce((a, b) => a * b, 1)) : NO_CONTOURS;
  };
  const meshesOf = (scene: number): PictureMesh[] => {
    const found = [];
    for (let k = 0; arrays[`${scene}.mesh.${k}`]; k++) {
      const [, rows, columns] = arrays[`${scene}.mesh.${k}`].shape;
      found.push({ of: longs(`${scene}.meshed.${k}`), points: floats(`${scene}.mesh.${k}`), rows, columns });
    }
    return found;
  };
  const scenes = (header.scenes as Scene[]).map((scene, i) => ({
    ...scene,
    findings: scene.findings ?? [],
    matrices: floats(`${i}.pieces`),
    variant: shorts(`${i}.variant`),
    extents: floats(`${i}.extent`),
    joins: floats(`${i}.joins`),
    outline: floats(`${i}.outline`),
    contours: longs(`${i}.contours`),
    shaped: longs(`${i}.shaped`),
    cut: longs(`${i}.cut`),
    bisectors: floats(`${i}.bisector`),
    meshes: meshesOf(i),
  }));
  const strip = arrays["strip.bend"] ? { bend: floats("strip.bend"), vertices: floats("strip.vertices") } : null;
  return { scenes, header, strip };
}

/**
 * Keep the cures of findings that are the same as before while new ones are worked out, so that a cure being looked at does
 * not vanish under the pointer.
 */
export function withCuresOf(before: LaidScenes | null, now: LaidScenes): LaidScenes {
  if (!before) return now;
  const known = new Map(before.scenes.map((s) => [s.key, s.findings]));
  const scenes = now.scenes.map((scene) => ({
    ...scene,
    findings: scene.findings.map((f) => (f.cures.length ? f : { ...f, cures: known.get(scene.key)?.find((g) => same(f, g))?.cures ?? [] })),
  }));
  return { ...now, scenes };
}

const same = (f: Finding, g: Finding): boolean => f.kind === g.kind && f.at_mm === g.at_mm && f.amount === g.amount && f.count === g.count;

interface Question<T> {
  path: string;
  body: object;
  slow: boolean;
  answer: (found: T) => void;
  refuse: (why: Refusal) => void;
}

/**
 * Asks so that the newest question wins. While one is under way the newest waits and older waiting
 * ones are dropped; a slow question is broken off by any newer one.
 */
export class AskChannel<T> {
  private seq = Date.now();
  private readonly client = crypto.randomUUID();
  private underway: { slow: boolean; stop: AbortController } | null = null;
  private waiting: Question<T> | null = null;

  constructor(private readonly read: (reply: Response) => Promise<T>) {}

  ask(path: string, body: object, answer: Question<T>["answer"], refuse: Question<T>["refuse"], slow = false): void {
    this.waiting = { path, body, slow, answer, refuse };
    if (this.underway?.slow) this.underway.stop.abort();
    if (!this.underway) void this.next();
  }

  close(): void {
    this.waiting = null;
    this.underway?.stop.abort();
  }

  private async next(): Promise<void> {
    while (this.waiting) {
      const { path, body, slow, answer, refuse } = this.waiting;
      this.waiting = null;
      const stop = new AbortController();
      this.underway = { slow, stop };
      try {
        const reply = await fetch(path, {
          method: "POST",
          headers: { "Content-Type": "application/json" },
          body: JSON.stringify({ ...body, client: this.client, seq: ++this.seq }),
          signal: stop.signal,
        });
        if (reply.ok) answer(await this.read(reply));
        else if (reply.status !== 409) refuse(new Refusal((await reply.json()).message, reply.status));
      } catch (error) {
        if (!stop.signal.aborted) refuse(error instanceof Refusal ? error : new Refusal("the server does not answer", 0));
      }
    }
    this.underway = null;
  }
}

/** Asks for laid scenes. */
export class LayChannel extends AskChannel<LaidScenes> {
  constructor() {
    super(async (reply) => unpackScenes(await reply.arrayBuffer()));
  }
}
