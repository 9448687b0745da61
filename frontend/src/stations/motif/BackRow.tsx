import { useState } from "react";
import { NumberField } from "../../shared/ui/NumberField";
import { ColourField } from "./ColourField";
import { useOpenMotif } from "./openMotif";
import { Row } from "./Row";

/** A back in one colour behind the chosen parts. */
export function BackRow() {
  const { edit, parts } = useOpenMotif();
  const [colour, setColour] = useState("#ffffff");
  const [grow, setGrow] = useState(0);
  return (
    <Row words="Back">
      <ColourField label="Back colour" value={colour} onSet={setColour} />
      <NumberField compact label="grown by" unit="mm" step={0.1} value={grow} standard={0} onSet={setGrow} />
      <button
        className="plain-button px-2 py-0.5"
        onClick={() => edit.keep({ op: "back", parts, colour, grow_mm: grow, fill_holes: true })}
      >
        Put behind
      </button>
      <button
        className="plain-button px-2 py-0.5"
        onClick={() => edit.keep({ op: "back", parts, colour, grow_mm: grow, fill_holes: false })}
      >
        Put behind, holes open
      </button>
    </Row>
  );
}
