import type { Edit } from "../../../shared/api/client";

/** The change of one kind. */
export type EditOf<Op extends Edit["op"]> = Extract<Edit, { op: Op }>;

/** What a press of an arrow key moves by. */
export const STEP_MM = 0.1;
