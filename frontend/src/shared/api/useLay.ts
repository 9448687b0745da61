import { useLayoutEffect, useRef, useState } from "react";
import { flushSync } from "react-dom";
import { LayChannel } from "./asking";
import type { Refusal, Schemas } from "./client";
import { withCuresOf, type LaidScenes } from "./scenes";

const QUIET_MS = 220; // after so long without a change the cures are asked for

/** A drawing that is kept laid, by two questions: have we a picture, and what became of the last question? */
export interface Laying<Body, Header extends Schemas["ScenesHeader"]> {
  /** The last good picture; `of` is the question it answers, so that figures and picture change in the same frame. */
  laid: (LaidScenes<Header> & { of: Body }) | null;
  /** Whether that answers an earlier question than the last. */
  behind: boolean;
  /** Why the last question could not be answered. */
  refusal: string | null;
  /** Whether the cures of its findings are there, or still worked out. */
  cured: boolean;
}

/**
 * Keep a drawing laid while what is asked changes: at once without cures, and with them when it
 * has been quiet for a moment. The last good picture stays until the next one is ready.
 */
export function useLay<Body extends object, Header extends Schemas["ScenesHeader"] = Schemas["ScenesHeader"]>(
  path: string | null,
  body: Body | null,
  { cures = true }: { cures?: boolean } = {},
): Laying<Body, Header> {
  const [laid, setLaid] = useState<(LaidScenes<Header> & { of: Body; to: string }) | null>(null);
  const [refusal, setRefusal] = useState<string | null>(null);
  const [cured, setCured] = useState(false);
  const channel = useRef<LayChannel<Header> | null>(null);
  const asked = body === null ? null : JSON.stringify(body);

  useLayoutEffect(() => {
    channel.current = new LayChannel<Header>();
    return () => channel.current?.close();
  }, []);

  // a layout effect, and a synchronous render of the answer: while dragging, no frame is waited for in between
  useLayoutEffect(() => {
    if (!path || asked === null) return;
    const question = JSON.parse(asked) as Body;
    const take = (full: boolean) => (answer: LaidScenes<Header>) =>
      flushSync(() => {
        setLaid((before) => ({ ...(full ? answer : withCuresOf(before, answer)), of: question, to: path + asked }));
        setCured(full);
        setRefusal(null);
      });
    const refuse = (why: Refusal): void => setRefusal(why.message);
    channel.current?.ask(path, question, take(false), refuse);
    if (!cures) return;
    const timer = setTimeout(() => channel.current?.ask(path, { ...question, cures: true }, take(true), refuse, true), QUIET_MS);
    return () => clearTimeout(timer);
  }, [path, asked, cures]);

  return { laid, behind: laid?.to !== `${path}${asked}`, refusal, cured };
}
