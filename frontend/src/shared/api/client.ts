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
export type Source = Schemas["HandSource"] | Schemas["PointsSource"] | Schemas["PathSource"];

export const api = createClient<paths>({ baseUrl: "/" });

/** The server said no: one sentence for the user, and the row as it stands when the change was stale. */
export class Refusal extends Error {
  constructor(
    message: string,
    readonly status: number,
  ) {
    super(message);
  }
}

/** Unwrap a reply of the client; throws a Refusal with the server's sentence. */
export async function kept<T>(call: Promise<{ data?: T; error?: unknown; response: Response }>): Promise<T> {
  const { data, error, response } = await call.catch(() => {
    throw new Refusal("the server does not answer; nothing was kept, try again in a moment", 0);
  });
  if (!response.ok) {
    const message = (error as { message?: string } | undefined)?.message;
    throw new Refusal(message ?? `the server refused (${response.status})`, response.status);
  }
  return data as T;
}
