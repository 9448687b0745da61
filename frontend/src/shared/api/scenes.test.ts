import { afterEach, beforeEach, expect, test, vi } from "vitest";
import { LayChannel } from "./asking";
import { unpackScenes, withCuresOf, type Finding, type LaidScenes } from "./scenes";
import { JOINS } from "./tables";

/** Pack as the server does: magic, header length, padded JSON, tables on multiples of 8 bytes. */
function packed(header: object, tables: [part: number, table: string, rows: number[][]][]): ArrayBuffer {
  let size = 0;
  const arrays = tables.map(([part, table, rows]) => {
    const entry = { part, table, number: 0, shape: [rows.length, rows[0]?.length ?? 0], offset: size };
    size += Math.ceil((rows.flat().length * 4) / 8) * 8;
    return entry;
  });
  let text = JSON.stringify({ ...header, arrays });
  while (new TextEncoder().encode(text).length % 8) text += " ";
  const head = new TextEncoder().encode(text);
  const buffer = new ArrayBuffer(8 + head.length + size);
  new Uint8Array(buffer).set(new TextEncoder().encode("SGB2"));
  new DataView(buffer).setUint32(4, head.length, true);
  new Uint8Array(buffer).set(head, 8);
  tables.forEach(([, , rows], i) =>
    new Float32Array(buffer, 8 + head.length + arrays[i].offset, rows.flat().length).set(rows.flat()),
  );
  return buffer;
}

const answerOf = (seq: number) =>
  packed({ seq, scenes: [{ key: "flat", verdict: "joins within 0.01 mm" }] }, [[0, "pieces", [[1, 0, 0, 1, 5, 6]]]]);

test("scenes come back with their tables", () => {
  const laid = unpackScenes(
    packed(
      {
        seq: 1,
        scenes: [
          { key: "Größe", findings: [{ kind: "gap" }] },
          { key: "refused", refused: "too dense" },
        ],
      },
      [
        [
          0,
          "pieces",
          [
            [1, 0, 0, 1, 5, 6],
            [1, 0, 0, 1, 7, 8],
          ],
        ],
        [0, "joins", [[1, 2, 3, 4, 5, 6, 7, 8, 9, 10]]],
        [0, "bend", [[0, 0.5]]],
        [0, "vertices", []],
      ],
    ),
  );
  expect([...laid.scenes[0].matrices]).toEqual([1, 0, 0, 1, 5, 6, 1, 0, 0, 1, 7, 8]);
  expect(laid.scenes[0].key).toBe("Größe");
  expect(laid.scenes[0].joins[JOINS.wished]).toBe(5);
  expect([...laid.scenes[0].strip!.bend]).toEqual([0, 0.5]);
  expect(laid.scenes[1].matrices.length).toBe(0);
  expect(laid.scenes[1].findings).toEqual([]);
  expect(laid.scenes[1].strip).toBeNull();
});

test("cures stay with a finding that is the same until new ones are there", () => {
  const finding = (amount: number, cures: string[]) =>
    ({ kind: "gap", at_mm: 5, amount, count: 1, cures: cures.map((label) => ({ label, change: {} })) }) as unknown as Finding;
  const laid = (findings: Finding[]) => ({ header: {}, scenes: [{ key: "line-1", findings }] }) as unknown as LaidScenes;
  const labels = (l: LaidScenes) => l.scenes[0].findings[0].cures.map((c) => c.label);
  const before = laid([finding(0.4, ["Smaller pieces"])]);
  expect(labels(withCuresOf(before, laid([finding(0.4, [])])))).toEqual(["Smaller pieces"]);
  expect(labels(withCuresOf(before, laid([finding(0.5, [])])))).toEqual([]);
  expect(labels(withCuresOf(before, laid([finding(0.4, ["Other"])])))).toEqual(["Other"]);
  expect(labels(withCuresOf(null, laid([finding(0.4, [])])))).toEqual([]);
});

test("an answer that is none of ours is refused", () => {
  expect(() => unpackScenes(new TextEncoder().encode("nonsense").buffer)).toThrow("could not be read");
});

/** A server whose answers are given by hand, in the order asked for. */
class ByHand {
  asked: { body: { n: number; seq: number }; signal: AbortSignal; reply: (r: Response) => void }[] = [];

  fetch = (_path: string, init: RequestInit) =>
    new Promise<Response>((resolve, reject) => {
      init.signal!.addEventListener("abort", () => reject(new DOMException("aborted", "AbortError")));
      this.asked.push({ body: JSON.parse(String(init.body)), signal: init.signal!, reply: resolve });
    });
}

let server: ByHand;
beforeEach(() => {
  server = new ByHand();
  vi.stubGlobal("fetch", server.fetch);
});
afterEach(() => vi.unstubAllGlobals());
const settle = () => new Promise((resolve) => setTimeout(resolve));

test("while one question is under way only the newest waits", async () => {
  const channel = new LayChannel();
  const answers: LaidScenes[] = [];
  const never = () => expect.unreachable();
  for (const n of [1, 2, 3, 4]) channel.ask("/lay", { n }, (laid) => answers.push(laid), never);
  expect(server.asked.map((a) => a.body.n)).toEqual([1]);
  server.asked[0].reply(new Response(answerOf(1)));
  await settle();
  expect(server.asked.map((a) => a.body.n)).toEqual([1, 4]);
  expect(server.asked[1].body.seq).toBeGreaterThan(server.asked[0].body.seq);
  server.asked[1].reply(new Response(answerOf(4)));
  await settle();
  expect(answers.map((a) => a.header.seq)).toEqual([1, 4]);
});

test("a slow question is broken off by a newer one, a quick one is not", async () => {
  const channel = new LayChannel();
  const answers: number[] = [];
  channel.ask(
    "/lay",
    { n: 1 },
    () => answers.push(1),
    () => answers.push(-1),
    true,
  );
  channel.ask(
    "/lay",
    { n: 2 },
    () => answers.push(2),
    () => answers.push(-2),
  );
  await settle();
  expect(server.asked[0].signal.aborted).toBe(true);
  channel.ask(
    "/lay",
    { n: 3 },
    () => answers.push(3),
    () => answers.push(-3),
  );
  expect(server.asked[1].signal.aborted).toBe(false);
  server.asked[1].reply(new Response(answerOf(2)));
  await settle();
  server.asked[2].reply(new Response(answerOf(3)));
  await settle();
  expect(answers).toEqual([2, 3]);
});

test("a refusal is told in the server's words and the next question goes on", async () => {
  const channel = new LayChannel();
  const told: string[] = [];
  channel.ask(
    "/lay",
    { n: 1 },
    () => told.push("laid"),
    (why) => told.push(why.message),
  );
  server.asked[0].reply(new Response(JSON.stringify({ message: "this spacing needs too many pieces" }), { status: 422 }));
  await settle();
  channel.ask(
    "/lay",
    { n: 2 },
    () => told.push("laid"),
    (why) => told.push(why.message),
  );
  server.asked[1].reply(new Response("{}", { status: 409 })); // overtaken: no answer and no refusal
  await settle();
  channel.ask(
    "/lay",
    { n: 3 },
    () => told.push("laid"),
    (why) => told.push(why.message),
  );
  server.asked[2].reply(new Response(answerOf(3)));
  await settle();
  expect(told).toEqual(["this spacing needs too many pieces", "laid"]);
});

test("a closed channel asks no more", async () => {
  const channel = new LayChannel();
  channel.ask(
    "/lay",
    { n: 1 },
    () => expect.unreachable(),
    () => expect.unreachable(),
  );
  channel.ask(
    "/lay",
    { n: 2 },
    () => expect.unreachable(),
    () => expect.unreachable(),
  );
  channel.close();
  await settle();
  expect(server.asked.length).toBe(1);
});
