import createClient from "openapi-fetch";
import type { components, paths } from "./schema";

export type Schemas = components["schemas"];
export type Workshop = Schemas["Workshop"];
export type Motif = Schemas["MotifMessage"];
export type MotifSummary = Schemas["MotifSummary"];
export type Shape = Schemas["ShapeMessage"];
export type Brush = Schemas["BrushMessage"];
export type Page = Schemas["PageMessage"];
export type Line = Schemas["LineMessage"];
export type PageLines = Schemas["PageLines"];
export type Settings = Schemas["Settings"];
export type MotifBench = Schemas["MotifBench"];
export type Edit = Schemas["MotifEdit"]["edit"];
export type Starter = Schemas["StarterMessage"];
export type Original = Schemas["OriginalMessage"];
export type Preparation = Schemas["PreparationMessage"];
export type SettingsLimits = Schemas["SettingsLimits"];
export type Ready = Schemas["ReadySource"];
export type Source = Schemas["HandSource"] | Schemas["PointsSource"] | Schemas["PathSource"] | Ready;

export const api = createClient<paths>({ baseUrl: "/" });

/** Why something that was asked was not done. */
export type Reason =
  | "invalid" // it cannot be done as it was asked
  | "stale" // it was changed elsewhere since
  | "gone" // it is no longer there
  | "failed" // the server could not
  | "unreachable"
  | "unreadable"; // its answer made no sense

const REASONS: Record<number, Reason> = { 400: "invalid", 404: "gone", 409: "stale", 413: "invalid", 422: "invalid" };

/** The server said no, or nothing: one sentence for the user, and why. */
export class Refusal extends Error {
  constructor(
    message: string,
    readonly reason: Reason,
    /** The change of another window that was kept, and the one of this window that was not, where both changed the same. */
    readonly clash: { theirs: string; yours: string } | null = null,
  ) {
    super(message);
  }

  /** The refusal that a reply with this status, and a message in its body, is. */
  static of(status: number, body: { message?: string; theirs?: string; yours?: string } | undefined): Refusal {
    const { theirs, yours } = body ?? {};
    const clash = theirs && yours ? { theirs, yours } : null;
    return new Refusal(body?.message ?? `the server refused (${status})`, REASONS[status] ?? "failed", clash);
  }
}

declare module "@tanstack/react-query" {
  interface Register {
    defaultError: Refusal;
  }
}

/** Unwrap a reply of the client; throws a Refusal with the server's sentence. */
export async function kept<T>(call: Promise<{ data?: T; error?: unknown; response: Response }>): Promise<T> {
  const { data, error, response } = await call.catch(() => {
    throw new Refusal("the server does not answer; nothing was kept, try again in a moment", "unreachable");
  });
  if (!response.ok) throw Refusal.of(response.status, error as { message?: string } | undefined);
  return data as T;
}
