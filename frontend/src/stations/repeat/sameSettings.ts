import type { Settings } from "../../shared/api/client";

export const sameSettings = (a: Settings, b: Settings): boolean => JSON.stringify(a) === JSON.stringify(b);
