import { Popover } from "radix-ui";
import { useState } from "react";
import type { Page } from "../../shared/api/client";
import { Choice } from "../../shared/ui/Choice";
import { NumberField } from "../../shared/ui/NumberField";
import { Panel } from "../../shared/ui/Panel";
import { usePictureTaken } from "./usePictureTaken";

type Ground = "clear" | "page" | "colour";

/** Take the page away as SVG, PNG or a list of pieces; a large picture shows its progress and can be stopped. */
export function TakeAway({ page }: { page: Page }) {
  const [dpi, setDpi] = useState(300);
  const [ground, setGround] = useState<Ground>("clear");
  const [colour, setColour] = useState("#f7f4ec");
  const picture = usePictureTaken();
  const wanted = ground === "colour" ? colour : ground;
  const at = (file: string, query = "") => `/api/pages/${page.id}/${file}?${query}`;
  const pixels = [page.width_mm, page.height_mm].map((mm) => Math.max(1, Math.round((mm * dpi) / 25.4)));

  return (
    <Popover.Root>
      <Popover.Trigger className="firm-button shrink-0">Take away</Popover.Trigger>
      <Panel align="end" aria-label="Take away" className="w-[340px] p-4">
        <Choice
          label="Ground"
          value={ground}
          options={[
            { value: "clear", label: "clear" },
            { value: "page", label: "the page’s" },
            { value: "colour", label: "a colour" },
          ]}
          onSet={setGround}
        />
        {ground === "colour" && (
          <input
            type="color"
            aria-label="Ground colour"
            className="mt-1 block"
            value={colour}
            onChange={(e) => setColour(e.target.value)}
          />
        )}
        <h3 className="mt-3 mb-1 text-[14px]">SVG, in millimetres</h3>
        <div className="flex gap-4">
          <File href={at("page.svg", `form=compact&ground=${encodeURIComponent(wanted)}`)}>Compact, each motif once</File>
          <File href={at("page.svg", `form=plain&ground=${encodeURIComponent(wanted)}`)}>Plain, own shapes</File>
        </div>
        <h3 className="mt-3 mb-1 text-[14px]">PNG</h3>
        <div className="flex items-end gap-4">
          <NumberField
            label="Resolution"
            unit="dpi"
            value={dpi}
            step={10}
            standard={300}
            onSet={(next) => setDpi(Math.min(2400, Math.max(10, next)))}
          />
          {picture.drawing ? (
            <button className="plain-button" onClick={picture.stop}>
              Stop
            </button>
          ) : (
            <button
              className="firm-button"
              onClick={() =>
                void picture.take(at("page.png", new URLSearchParams({ dpi: String(dpi), ground: wanted }).toString()))
              }
            >
              Draw the picture
            </button>
          )}
        </div>
        <p role="status" className="mt-1 text-[12.5px] text-moss">
          {picture.drawing
            ? `Drawing ${pixels[0]} × ${pixels[1]} pixels…`
            : (picture.words ?? `${pixels[0]} × ${pixels[1]} pixels`)}
        </p>
        <h3 className="mt-3 mb-1 text-[14px]">List of pieces</h3>
        <File href={at("pieces.csv")}>CSV, a row a piece</File>
      </Panel>
    </Popover.Root>
  );
}

function File({ href, children }: { href: string; children: string }) {
  return (
    <a className="text-indigo underline decoration-dotted" href={href} download>
      {children}
    </a>
  );
}
