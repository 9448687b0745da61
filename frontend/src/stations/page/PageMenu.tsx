import { Popover } from "radix-ui";
import { useState } from "react";
import { api, kept, type Page, type Schemas, type Workshop } from "../../shared/api/client";
import { useChange, withVersion } from "../../shared/api/queries";
import { NumberField } from "../../shared/ui/NumberField";
import { Panel } from "../../shared/ui/Panel";
import { go } from "../../shared/ui/place";
import { GroundPicture } from "./GroundPicture";

/** The open page's name and size; opens the list of pages and the page's own settings. */
export function PageMenu({ workshop, page }: { workshop: Workshop; page: Page }) {
  const [size, setSize] = useState({ width: 297, height: 210 });
  const make = useChange((body: Schemas["NewPage"]) => kept<Page>(api.POST("/api/pages", { body })));
  const change = useChange((patch: Omit<Schemas["PageChange"], "version">) =>
    withVersion("page", page, (version) =>
      kept(api.PATCH("/api/pages/{id}", { params: { path: { id: page.id } }, body: { ...patch, version } })),
    ),
  );
  const remove = useChange(() =>
    kept(api.DELETE("/api/pages/{id}", { params: { path: { id: page.id }, query: { version: page.version } } })),
  );
  return (
    <Popover.Root>
      <Popover.Trigger
        className="min-w-0 truncate border-b-[1.5px] border-dotted border-moss text-left font-semibold"
        title="Pages and their size"
      >
        {page.name}, {page.width_mm} × {page.height_mm} mm
      </Popover.Trigger>
      <Panel align="start" aria-label="Pages" className="w-[330px] p-4">
        <h3 className="mb-1 text-[14px]">This page</h3>
        <div className="mb-2 flex items-end gap-4">
          <NumberField label="Width" unit="mm" value={page.width_mm} onSet={(width_mm) => change.mutate({ width_mm })} />
          <NumberField label="Height" unit="mm" value={page.height_mm} onSet={(height_mm) => change.mutate({ height_mm })} />
          <label className="text-[12.5px] text-moss">
            Ground
            <input
              type="color"
              className="block h-[24px] w-[40px]"
              value={page.ground ?? "#ffffff"}
              onChange={(e) => change.mutate({ ground: e.target.value })}
            />
          </label>
        </div>
        <GroundPicture page={page} onSet={(ground_picture) => change.mutate({ ground_picture })} />
        <h3 className="mt-3 mb-1 text-[14px]">Pages</h3>
        <ul className="mb-3 max-h-[180px] overflow-y-auto">
          {workshop.pages.map((p) => (
            <li key={p.id}>
              <button
                className={`w-full py-0.5 text-left hover:text-madder ${p.id === page.id ? "font-bold" : ""}`}
                onClick={() => go("page", p.id)}
              >
                {p.name}, {p.width_mm} × {p.height_mm} mm
              </button>
            </li>
          ))}
        </ul>
        <div className="flex items-end gap-3 border-t border-rule pt-2">
          <NumberField label="New width" unit="mm" value={size.width} onSet={(width) => setSize({ ...size, width })} />
          <NumberField label="New height" unit="mm" value={size.height} onSet={(height) => setSize({ ...size, height })} />
          <button
            className="firm-button whitespace-nowrap"
            onClick={() =>
              make.mutate(
                { name: `Page ${workshop.pages.length + 1}`, width_mm: size.width, height_mm: size.height, ground: null },
                { onSuccess: (p) => go("page", p.id) },
              )
            }
          >
            New page
          </button>
        </div>
        <button
          className="mt-3 text-[12.5px] text-madder underline decoration-dotted"
          onClick={() => remove.mutate(undefined, { onSuccess: () => go("page") })}
        >
          Delete this page and its lines
        </button>
      </Panel>
    </Popover.Root>
  );
}
