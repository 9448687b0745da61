import { Refusal, type Schemas } from "./client";
import { unpackScenes, type LaidScenes } from "./scenes";

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
        else if (reply.status !== 409) refuse(Refusal.of(reply.status, await reply.json()));
      } catch (error) {
        if (!stop.signal.aborted)
          refuse(error instanceof Refusal ? error : new Refusal("the server does not answer", "unreachable"));
      }
    }
    this.underway = null;
  }
}

/** Asks for laid scenes. */
export class LayChannel<Header extends Schemas["ScenesHeader"] = Schemas["ScenesHeader"]> extends AskChannel<LaidScenes<Header>> {
  constructor() {
    super(async (reply) => unpackScenes<Header>(await reply.arrayBuffer()));
  }
}
