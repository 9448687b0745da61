import type { Schemas } from "../../shared/api/client";
import type { LaidScenes } from "../../shared/api/scenes";

/** What comes with a laid bench beside its scenes: measures, bounds and the words of the brush. */
export type BenchHeader = LaidScenes<Schemas["BenchHeader"]>["header"];

/** The questions that the words of a brush answer; one is open at a time. */
export type Question = "travel" | "often" | "ends" | "loosely" | "next" | "colour" | "hand" | "joins";
