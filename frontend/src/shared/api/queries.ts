import { QueryClient, useMutation, useQuery } from "@tanstack/react-query";
import { create } from "zustand";
import { api, kept, Refusal, type SettingsLimits, type Workshop } from "./client";

export const queryClient = new QueryClient({
  defaultOptions: { queries: { staleTime: Infinity, retry: 1, refetchOnWindowFocus: true } },
});

/** What went wrong last, or is to be known, in words, until it is dismissed or a change succeeds. */
interface Trouble {
  message: string | null;
  /** A change was lost, words were not understood, or all went well and something is to be known of it. */
  kind: "lost" | "refused" | "told";
  /** What another window changed and this one too, and how this one's is taken after all. */
  clash: { theirs: string; yours: string; take: () => void } | null;
  say: (message: string | null, kind?: Trouble["kind"]) => void;
  ask: (clash: Trouble["clash"]) => void;
}

export const useTrouble = create<Trouble>((set) => ({
  message: null,
  kind: "refused",
  clash: null,
  say: (message, kind = "refused") => set({ message, kind, clash: null }),
  ask: (clash) => set({ clash }),
}));

const WORKSHOP = { queryKey: ["workshop"], queryFn: () => kept<Workshop>(api.GET("/api/workshop")) };

export function useWorkshop() {
  return useQuery({ ...WORKSHOP, staleTime: 0 });
}

/** The workshop as it was fetched last, within a station, which opens once it is there. */
export function useOpenWorkshop(): Workshop {
  const { data } = useQuery(WORKSHOP);
  if (!data) throw new Error("the workshop is read before it is there");
  return data;
}

export function useLimits() {
  return useQuery({ queryKey: ["limits"], queryFn: () => kept<SettingsLimits>(api.GET("/api/limits")) });
}

/** Fetch everything anew after a change; done when it is on screen, so that a draft let go then does not show what was before. */
export async function refresh(): Promise<void> {
  await Promise.all([
    queryClient.invalidateQueries({ queryKey: ["workshop"] }),
    queryClient.invalidateQueries({ queryKey: ["page"] }),
  ]);
  await new Promise((done) => setTimeout(done)); // queries tell their readers in a timer set before this one
}

const answers = new Map<string, { version: number }>();

/**
 * Send a change of a row with the newest version this window has had an answer for, and the row as it was then, so that
 * quick changes do not overtake their own answers. A change made elsewhere is still refused as stale.
 */
export async function withVersion<Row extends { id: number; version: number }, Answer extends { version: number }>(
  kind: "motif" | "brush" | "page" | "line",
  row: Row,
  send: (version: number, newest: Row) => Promise<Answer>,
): Promise<Answer> {
  const key = `${kind} ${row.id}`;
  const known = answers.get(key);
  const newest = known && known.version > row.version ? (known as unknown as Row) : row; // answers are rows of their kind
  const answer = await send(newest.version, newest);
  answers.set(key, answer);
  return answer;
}

/** Whether changes are on their way, now and not when a screen was last drawn. */
export const isKeeping = (): boolean => queryClient.isMutating() > 0;

/** A change that the server keeps: on success all is fetched anew, on refusal the reason is said. */
export function useChange<Input, Output>(change: (input: Input) => Promise<Output>) {
  const say = useTrouble((s) => s.say);
  return useMutation({
    scope: { id: "changes" }, // one after the other, in the order they were made
    mutationFn: change,
    onSuccess: async () => {
      say(null);
      await refresh();
    },
    onError: async (error: Refusal | Error) => {
      const refused = error instanceof Refusal;
      say(refused ? error.message : "something went wrong here; nothing was kept", "lost");
      if (refused && (error.reason === "stale" || error.reason === "gone")) await refresh();
    },
  });
}
