import { beforeEach, expect, test, vi } from "vitest";
import { AskChannel } from "./asking";
import type { Refusal } from "./client";

interface Asked {
  path: string;
  body: { seq: number; client: string; n: number };
  signal: AbortSignal;
  reply: (answer: object, status?: number) => void;
  fail: () => void;
}

let asked: Asked[];

beforeEach(() => {
  asked = [];
  vi.stubGlobal("fetch", (path: string, init: RequestInit) => {
    return new Promise<Response>((resolve, reject) => {
      init.signal!.addEventListener("abort", () => reject(new DOMException("stopped", "AbortError")));
      asked.push({
        path,
        body: JSON.parse(init.body as string),
        signal: init.signal!,
        reply: (answer, status = 200) => resolve(new Response(JSON.stringify(answer), { status })),
        fail: () => reject(new TypeError("network")),
      });
    });
  });
});

const settled = () => new Promise((done) => setTimeout(done));

function channel() {
  const [answers, refusals] = [[] as number[], [] as string[]];
  const made = new AskChannel<{ n: number }>((reply) => reply.json() as Promise<{ n: number }>);
  const ask = (n: number, slow = false): void =>
    made.ask(
      `/api/${n}`,
      { n },
      (found) => answers.push(found.n),
      (why: Refusal) => refusals.push(why.message),
      slow,
    );
  return { ask, answers, refusals, close: () => made.close() };
}

test("one question is under way at a time, and of those that wait only the newest is asked", async () => {
  const { ask, answers } = channel();
  [1, 2, 3, 4].forEach((n) => ask(n));
  expect(asked.map((each) => each.path)).toEqual(["/api/1"]);
  asked[0].reply({ n: 1 });
  await settled();
  expect(asked.map((each) => each.path)).toEqual(["/api/1", "/api/4"]);
  asked[1].reply({ n: 4 });
  await settled();
  expect(answers).toEqual([1, 4]);
});

test("questions are numbered upwards under one name, so that the server knows which is newer", async () => {
  const { ask } = channel();
  ask(1);
  asked[0].reply({ n: 1 });
  await settled();
  ask(2);
  expect(asked[1].body.seq).toBeGreaterThan(asked[0].body.seq);
  expect(asked[1].body.client).toBe(asked[0].body.client);
});

test("a slow question is broken off by a newer one, without a word", async () => {
  const { ask, answers, refusals } = channel();
  ask(1, true);
  ask(2);
  await settled();
  expect(asked[0].signal.aborted).toBe(true);
  asked[1].reply({ n: 2 });
  await settled();
  expect(answers).toEqual([2]);
  expect(refusals).toEqual([]);
});

test("a refusal is told in the server's words; one that was overtaken is not told", async () => {
  const { ask, refusals } = channel();
  ask(1);
  asked[0].reply({ message: "a newer request overtook this one" }, 409);
  await settled();
  ask(2);
  asked[1].reply({ message: "these pieces are smaller than can be laid: enlarge them" }, 422);
  await settled();
  expect(refusals).toEqual(["these pieces are smaller than can be laid: enlarge them"]);
});

test("a server that does not answer is said, and the next question is asked all the same", async () => {
  const { ask, answers, refusals } = channel();
  ask(1);
  asked[0].fail();
  await settled();
  expect(refusals).toEqual(["the server does not answer"]);
  ask(2);
  asked[1].reply({ n: 2 });
  await settled();
  expect(answers).toEqual([2]);
});

test("once closed, nothing is answered any more and nothing that waited is asked", async () => {
  const { ask, answers, refusals, close } = channel();
  ask(1);
  ask(2);
  close();
  await settled();
  expect(asked).toHaveLength(1);
  expect([answers, refusals]).toEqual([[], []]);
});
