import type { Original, Preparation } from "../../shared/api/client";
import { provided } from "../../shared/state/scoped";
import type { Hand } from "./types";
import type { Preview } from "./usePicture";

/** A picture on its way to a motif, what is made of it, and the motif it would give. */
export interface OpenPicture {
  original: Original;
  how: Preparation;
  set: (more: Partial<Preparation>) => void;
  hand: Hand;
  setHand: (hand: Hand) => void;
  preview: Preview | null;
  refusal: string | null;
  busy: boolean;
  again: () => void;
}

export const [OpenPictureContext, useOpenPicture] = provided<OpenPicture>("the open picture");
