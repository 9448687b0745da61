import { useEffect, useRef, useState } from "react";
import { api, kept, type Preparation, type Schemas } from "../../shared/api/client";
import { refresh, useTrouble } from "../../shared/api/queries";
import { AskChannel } from "../../shared/api/asking";
import { go } from "../../shared/ui/place";

export type Preview = Schemas["PreviewMessage"];

type Job = Schemas["JobMessage"];
/** The motif in whose place another is put. */
type Anew = Schemas["MotifAnew"];

export function usePreview(sha: string, how: Preparation) {
  const asked = JSON.stringify(how);
  const [answer, setAnswer] = useState<{ asked: string; preview: Preview | null; refusal: string | null } | null>(null);
  const [tries, setTries] = useState(0);
  const channel = useRef<AskChannel<Preview> | null>(null);
  useEffect(() => {
    channel.current = new AskChannel((reply) => reply.json() as Promise<Preview>);
    return () => channel.current?.close();
  }, []);
  useEffect(() => {
    channel.current?.ask(
      `/api/originals/${sha}/preview`,
      { preparation: JSON.parse(asked) },
      (preview) => setAnswer({ asked, preview, refusal: null }),
      (why) => setAnswer((now) => ({ asked, preview: now?.preview ?? null, refusal: why.message })),
      true,
    );
  }, [sha, asked, tries]);
  const busy = answer?.asked !== asked;
  const again = (): void => setTries((count) => count + 1); // a look gives way to a motif that is made
  return { preview: answer?.preview ?? null, refusal: answer?.refusal ?? null, busy, again };
}

const ASK_EVERY_MS = 150;

/** Make the motif as a job, ask how far it is, and go there when it is done. */
export function useMaking(sha: string, onDone: () => void, onLeft: () => void) {
  const [job, setJob] = useState<Job | null>(null);
  const say = useTrouble((s) => s.say);
  const here = useRef(true);
  useEffect(() => {
    here.current = true;
    return () => {
      here.current = false;
    };
  }, []);
  const make = async (name: string, preparation: Preparation, anew?: Anew): Promise<void> => {
    const body = { name, preparation, anew: anew ? { id: anew.id, version: anew.version } : null };
    let now = await kept<Job>(api.POST("/api/originals/{sha}/motif", { params: { path: { sha } }, body }));
    while (here.current && (now.state === "waiting" || now.state === "working")) {
      setJob(now);
      await new Promise((then) => setTimeout(then, ASK_EVERY_MS));
      now = await kept<Job>(api.GET("/api/jobs/{id}", { params: { path: { id: now.id } } }));
    }
    if (!here.current) return;
    setJob(null);
    if (now.state === "failed") say(now.message ?? "it failed; nothing was kept");
    if (now.state !== "done" || !now.motif_id) return onLeft();
    await refresh();
    go("motif", now.motif_id);
    onDone();
  };
  return {
    job,
    start: (name: string, preparation: Preparation, anew?: Anew): void => {
      make(name, preparation, anew).catch((why: Error) => {
        setJob(null);
        say(why.message);
      });
    },
    stop: (): void => void (job && api.DELETE("/api/jobs/{id}", { params: { path: { id: job.id } } })),
  };
}
