import { beforeEach, expect, test, vi } from "vitest";
import type { Artwork } from "../../shared/view/stamp";
import type { SheetPart } from "./sheetPainter";
import { shape } from "../../shared/view/testShape";

/** A canvas that remembers what it was asked to paint, in order. */
class FakeCanvas {
  done: unknown[] = [];
  context: object;
  constructor(
    public width: number,
    public height: number,
  ) {
    canvases.push(this);
    const tell =
      (what: string) =>
      (...values: unknown[]) =>
        this.done.push([what, ...values]);
    const silent = () => undefined;
    this.context = {
      canvas: this,
      setTransform: silent,
      beginPath: silent,
      moveTo: silent,
      lineTo: silent,
      setLineDash: silent,
      save: silent,
      restore: silent,
      clip: silent,
      fill: () => this.done.push("fill"),
      stroke: () => this.done.push("stroke"),
      rect: tell("rect"),
      drawImage: tell("kept"),
      arc: tell("arc"),
    };
  }
  getContext = () => this.context;
}

let canvases: FakeCanvas[];
beforeEach(() => {
  canvases = [];
  vi.stubGlobal("OffscreenCanvas", FakeCanvas);
  vi.stubGlobal(
    "Path2D",
    class {
      addPath() {}
    },
  );
  vi.stubGlobal("DOMMatrix", class {});
});

const bar: Artwork = { width_mm: 8, height_mm: 2, base_line_mm: 1, shapes: [shape] };
const part = (x: number, more: Partial<SheetPart> = {}): SheetPart => ({
  path: "M0 10H40",
  findings: [],
  matrices: new Float32Array([1, 0, 0, 1, 10, 10]),
  motif: new Uint16Array(0),
  view: { scale: 5, x, y: 0 },
  part: { x, y: 0, width: 200, height: 100 },
  thread: false,
  ...more,
});

async function painterOf() {
  const { SheetPainter } = await import("./sheetPainter");
  const canvas = new FakeCanvas(1, 1);
  const painter = new SheetPainter(canvas as unknown as OffscreenCanvas);
  painter.artworks = [bar];
  const paint = (parts: SheetPart[], night = false): unknown[] => {
    canvas.done = [];
    painter.paint({ parts, night, hurry: "none", ground: "#ffffff", size: { width: 410, height: 100 }, ratio: 2 });
    return canvas.done;
  };
  return { canvas, paint };
}

test("every scene is painted in its own part, and its findings are ringed", async () => {
  const { canvas, paint } = await painterOf();
  const done = paint([part(0), part(210, { findings: [{ at: [10, 10] }] })]);
  expect([canvas.width, canvas.height]).toEqual([820, 200]);
  expect(done.filter((each) => each === "fill").length).toBe(2);
  expect(done).toContainEqual(["rect", 210, 0, 200, 100]);
  expect(done).toContainEqual(["arc", 260, 50, 9, 0, 2 * Math.PI]);
});

test("the lines are painted again only where they lie or look otherwise", async () => {
  const { paint } = await painterOf();
  paint([part(0)]);
  paint([part(0, { matrices: new Float32Array([1, 0, 0, 1, 12, 10]) })]);
  expect(canvases.length).toBe(2); // the sheet, and the lines under it
  paint([part(0, { path: "M0 12H40" })]);
  expect(canvases.length).toBe(3);
  paint([part(0, { path: "M0 12H40" })], true);
  expect(canvases.length).toBe(4);
  expect(canvases[3].done).toEqual(["stroke"]);
});

test("a thread parts what is now from what was kept aside", async () => {
  const { paint } = await painterOf();
  expect(paint([part(0, { thread: true }), part(200)]).filter((each) => each === "stroke").length).toBe(1);
  expect(paint([part(0)])).not.toContain("stroke");
});
