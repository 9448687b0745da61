import { useState } from "react";
import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { api, kept, type Brush, type Schemas, type Settings } from "../../shared/api/client";
import { useChange, withVersion } from "../../shared/api/queries";
import { Choice } from "../../shared/ui/Choice";
import { go } from "../../shared/ui/place";
import { NumberField } from "../../shared/ui/NumberField";
import {
  BEND_PICTURES,
  BORDER_PICTURES,
  CORNER_PICTURES,
  EASE_PICTURES,
  FACING_PICTURES,
  KIND_PICTURES,
  MIRROR_PICTURES,
  ORDER_PICTURES,
  REST_PICTURES,
} from "./pictures";
import { bound } from "./bound";
import type { BenchHeader } from "./types";
import type { BrushEdit } from "./useBrushEdit";

interface Props {
  edit: BrushEdit;
  settings: Settings;
  header?: BenchHeader;
}

const ROLE_WORDS = [
  ["start", "start piece"],
  ["end", "end piece"],
  ["outside_corner", "outside corner piece"],
  ["inside_corner", "inside corner piece"],
] as const;

export function OftenQuestion({ edit, settings, header }: Props) {
  const { spacing } = settings;
  const jointed = settings.travel.round_bends === "jointed";
  const eases = jointed ? (["leave", "size"] as const) : (["leave", "gaps", "size", "length"] as const);
  return (
    <>
      <div className="mb-3 grid grid-cols-3 gap-x-3">
        <NumberField label="Size" standard={100} {...bound(edit, settings, "spacing", "size_pct", "size", "%")} />
        {jointed ? (
          <p className="text-[12.5px] leading-snug text-moss">The joints say the pitch; drag the tape to move them.</p>
        ) : (
          <NumberField label="Gap" standard={0} {...bound(edit, settings, "spacing", "gap_pct", "gap", "%")} />
        )}
        <div>
          <span className="block text-[12.5px] text-moss">Pitch</span>
          <span className="text-[16px] font-semibold" data-testid="pitch">
            {header ? header.pitch_mm.toFixed(2) : "…"}
          </span>{" "}
          <span className="text-moss">mm</span>
          <span className="block text-[11.5px] text-moss">
            {header ? `${(25.4 / header.pitch_mm).toFixed(2)} to the inch` : ""}
          </span>
        </div>
      </div>
      <Choice
        small
        label="Ease"
        value={spacing.ease ?? "leave"}
        options={eases.map((ease) => ({
          value: ease,
          label: ease === "leave" ? "leave it" : `into the ${ease}`,
          picture: EASE_PICTURES[ease],
        }))}
        onSet={(ease) => edit.set({ spacing: { ease } }, `ease ${ease === "leave" ? "left" : `into the ${ease}`}`)}
      />
      <div className="mt-2 flex gap-6">
        <NumberField
          label="Ease limit"
          standard={10}
          {...bound(edit, settings, "spacing", "ease_limit_pct", "ease limit", "%")}
        />
        <Choice
          label="Rest goes"
          value={spacing.rest as "end" | "both" | "start"}
          options={[
            { value: "end", label: "to the end", picture: REST_PICTURES.end },
            { value: "both", label: "both ends", picture: REST_PICTURES.both },
            { value: "start", label: "to the start", picture: REST_PICTURES.start },
          ]}
          onSet={(rest) => edit.set({ spacing: { rest } }, `rest to ${rest === "both" ? "both ends" : `the ${rest}`}`)}
        />
      </div>
    </>
  );
}

export function TravelQuestion({ edit, settings }: Props) {
  const { travel } = settings;
  const eased = settings.spacing.ease === "gaps" || settings.spacing.ease === "length"; // which links cannot take
  const kind = (travel.kind ?? "repeated") as keyof typeof KIND_WORDS;
  const bends = travel.round_bends ?? "rigid";
  return (
    <div className="flex flex-col gap-1">
      <Choice
        small
        side
        label="Travel"
        value={kind}
        options={[
          { value: "repeated", label: "repeated", picture: KIND_PICTURES.repeated },
          { value: "once_length", label: "once, length", picture: KIND_PICTURES.once_length },
          { value: "once_proportion", label: "in proportion", picture: KIND_PICTURES.once_proportion },
        ]}
        onSet={(next) => edit.set({ travel: { kind: next } }, KIND_WORDS[next])}
      />
      {kind === "repeated" && (
        <Choice
          small
          side
          label="Round bends"
          value={bends}
          options={[
            { value: "rigid", label: "rigid", picture: BEND_PICTURES.rigid },
            { value: "bent", label: "bent", picture: BEND_PICTURES.bent },
            { value: "jointed", label: "jointed", picture: BEND_PICTURES.jointed },
          ]}
          onSet={(round_bends) =>
            edit.set(
              round_bends === "jointed" && eased
                ? { travel: { round_bends }, spacing: { ease: "size" } }
                : { travel: { round_bends } },
              `${round_bends} at bends`,
            )
          }
        />
      )}
      {kind === "repeated" && bends === "rigid" && (
        <Choice
          small
          side
          label="Facing"
          value={travel.facing as "line" | "page" | "start"}
          options={[
            { value: "line", label: "along the line", picture: FACING_PICTURES.line },
            { value: "page", label: "level", picture: FACING_PICTURES.page },
            { value: "start", label: "as at the start", picture: FACING_PICTURES.start },
          ]}
          onSet={(facing) =>
            edit.set(
              { travel: { facing } },
              `facing ${facing === "line" ? "along the line" : facing === "page" ? "level with the page" : "as at the start"}`,
            )
          }
        />
      )}
      <Choice
        small
        side
        label="Mirror"
        value={travel.mirror as "off" | "up_down" | "left_right" | "every_second"}
        options={[
          { value: "off", label: "off", picture: MIRROR_PICTURES.off },
          { value: "up_down", label: "up–down", picture: MIRROR_PICTURES.up_down },
          { value: "left_right", label: "left–right", picture: MIRROR_PICTURES.left_right },
          { value: "every_second", label: "every second", picture: MIRROR_PICTURES.every_second },
        ]}
        onSet={(mirror) => edit.set({ travel: { mirror } }, `mirror ${mirror.replace("_", " ")}`)}
      />
      <div className="mt-1 flex flex-wrap items-baseline gap-x-6 gap-y-1">
        <NumberField compact label="Turn" step={5} standard={0} {...bound(edit, settings, "travel", "turn_deg", "turn", "°")} />
        <NumberField
          compact
          label="Side shift"
          step={0.1}
          standard={0}
          {...bound(edit, settings, "travel", "side_shift_mm", "side shift", "mm")}
        />
        <NumberField
          compact
          label="Starts at"
          step={1}
          standard={0}
          {...bound(edit, settings, "travel", "starts_at_mm", "starts at", "mm")}
        />
        <button
          className="plain-button px-1.5 py-0"
          aria-pressed={!!travel.turn_about}
          onClick={() =>
            edit.set({ travel: { turn_about: !travel.turn_about } }, travel.turn_about ? "laid from the start" : "turned about")
          }
        >
          {travel.turn_about ? "laid from the other end" : "Turn about"}
        </button>
      </div>
    </div>
  );
}

const KIND_WORDS = { repeated: "repeated", once_length: "once, length only", once_proportion: "once, in proportion" } as const;

/** Which variant comes next, and the rows beside the line. */
export function NextQuestion({ edit, settings, pieces }: Props & { pieces: Brush["pieces"] }) {
  const { variants, rows } = settings;
  const several = pieces.repeat.length > 1;
  const beside = rows?.beside_mm ?? [];
  return (
    <div className="flex flex-col gap-1.5">
      {several ? (
        <Choice
          small
          label={`Variants, ${pieces.repeat.length} of them`}
          value={variants.order ?? "in_turn"}
          options={[
            { value: "in_turn", label: "in turn", picture: ORDER_PICTURES.in_turn },
            { value: "shuffled", label: "shuffled", picture: ORDER_PICTURES.shuffled },
            { value: "chance", label: "by chance", picture: ORDER_PICTURES.chance },
            { value: "no_twin", label: "never a twin", picture: ORDER_PICTURES.no_twin },
          ]}
          onSet={(order) => edit.set({ variants: { order } }, `variants ${order.replace("_", " ")}`)}
        />
      ) : (
        <p className="text-[12.5px] text-moss">
          One motif, so there is nothing to choose from.{" "}
          <button className="thread-word" onClick={() => go("motif", pieces.repeat[0])}>
            Give it a variant at Motif
          </button>
          .
        </p>
      )}
      {several && variants.order !== "in_turn" && (
        <NumberField
          compact
          label="Arrangement"
          step={1}
          decimals={0}
          standard={1}
          {...bound(edit, settings, "variants", "arrangement", "arrangement", "")}
        />
      )}
      <Borders edit={edit} />
      <RowsField
        beside={beside}
        onSet={(beside_mm) => edit.set({ rows: { beside_mm } }, beside_mm.length ? `${beside_mm.length + 1} rows` : "one row")}
      />
      {beside.length > 0 && (
        <div className="flex items-end gap-4">
          {settings.travel.round_bends === "jointed" ? (
            <p className="text-[12.5px] text-moss">Links are hung anew in each row.</p>
          ) : (
            <Choice
              small
              label="Rows are eased"
              value={rows?.ease ?? "own"}
              options={[
                { value: "own", label: "each on its own" },
                { value: "in_step", label: "in step with the first" },
              ]}
              onSet={(ease) => edit.set({ rows: { ease } }, ease === "own" ? "rows eased on their own" : "rows in step")}
            />
          )}
          <button
            className="plain-button px-1.5 py-0"
            aria-pressed={!!rows?.brick}
            onClick={() => edit.set({ rows: { brick: !rows?.brick } }, rows?.brick ? "rows side by side" : "rows in brick")}
          >
            {rows?.brick ? "in brick" : "side by side"}
          </button>
        </div>
      )}
    </div>
  );
}

/** The seven border arrangements: the one that the repeat has is marked, another is made of its first motif. */
function Borders({ edit }: { edit: BrushEdit }) {
  const { brush } = edit;
  const now = useQuery({
    queryKey: ["border", brush.id, brush.version],
    queryFn: () => kept(api.GET("/api/brushes/{id}/border", { params: { path: { id: brush.id } } })),
    placeholderData: keepPreviousData,
  });
  const change = useChange((arrangement: Border) =>
    withVersion("brush", brush, (version) =>
      kept(api.POST("/api/brushes/{id}/border", { params: { path: { id: brush.id } }, body: { version, arrangement } })),
    ),
  );
  return (
    <Choice
      small
      label="Border arrangement, laid without gaps"
      value={(now.data?.arrangement ?? "") as Border}
      options={BORDERS.map(([value, label]) => ({ value, label, picture: BORDER_PICTURES[value] }))}
      onSet={(arrangement) => change.mutate(arrangement)}
    />
  );
}

type Border = Schemas["BorderMessage"]["arrangement"];
const BORDERS: [Border, string][] = [
  ["slide", "slide"],
  ["glide", "glide"],
  ["upright", "upright"],
  ["along", "along"],
  ["half_turn", "half turn"],
  ["half_turn_glide", "turn glide"],
  ["all", "all"],
];

/** Distances of further rows in mm, typed with blanks between; positive ones lie to the right of travel. */
function RowsField({ beside, onSet }: { beside: number[]; onSet: (beside: number[]) => void }) {
  const shown = beside.join("  ");
  const [text, setText] = useState<string | null>(null);
  const read = (written: string): number[] | null => {
    const found = written
      .trim()
      .split(/[\s;]+/)
      .filter(Boolean)
      .map((part) => Number(part.replace(",", ".").replace("−", "-")));
    return found.length <= 50 && found.every((v) => Number.isFinite(v) && Math.abs(v) <= 1000) ? found : null;
  };
  const wrong = text !== null && read(text) === null;
  const take = (): void => {
    const next = text === null ? null : read(text);
    if (next === null) return;
    setText(null);
    if (next.join() !== beside.join()) onSet(next);
  };
  return (
    <label className="block">
      <span className="block text-[12.5px] text-moss">Rows beside the line, mm (to the left −)</span>
      <input
        className="w-full border-b-[1.5px] border-loden bg-transparent font-semibold aria-invalid:border-madder"
        aria-label="Rows beside the line"
        aria-invalid={wrong}
        placeholder="none; try 4 or -3 3"
        value={text ?? shown}
        onChange={(event) => setText(event.target.value)}
        onBlur={take}
        onKeyDown={(event) => (event.key === "Enter" ? take() : event.key === "Escape" && setText(null))}
      />
      {wrong && <span className="text-[12px] text-madder">up to 50 numbers from −1000 to 1000, with blanks between</span>}
    </label>
  );
}

export function EndsQuestion({ edit, settings, pieces }: Props & { pieces: Brush["pieces"] }) {
  const missing = ROLE_WORDS.filter(([role]) => !pieces[role]).map(([, words]) => words);
  const corner = (key: "outside_corner" | "inside_corner", label: string) => (
    <Choice
      small
      label={label}
      value={settings.ends[key] ?? "through"}
      options={[
        { value: "through", label: "run through", picture: CORNER_PICTURES.through },
        { value: "round", label: "round", picture: CORNER_PICTURES.round },
        { value: "mitre", label: "mitre", picture: CORNER_PICTURES.mitre },
        { value: "lap", label: "lap", picture: CORNER_PICTURES.lap },
        { value: "butt", label: "butt", picture: CORNER_PICTURES.butt },
        ...(pieces[key] ? [{ value: "piece" as const, label: "own piece", picture: CORNER_PICTURES.piece }] : []),
      ]}
      onSet={(style) =>
        edit.set({ ends: { [key]: style } }, `${label.toLowerCase()}: ${style === "through" ? "run through" : style}`)
      }
    />
  );
  return (
    <>
      <div className="mb-2 flex flex-col gap-2">
        {corner("outside_corner", "Outside corner")}
        {corner("inside_corner", "Inside corner")}
      </div>
      <div className="flex gap-8">
        <NumberField
          compact
          label="Corner from"
          step={5}
          standard={30}
          {...bound(edit, settings, "ends", "corner_from_deg", "corner from", "°")}
        />
        <NumberField
          compact
          label="Round radius"
          step={0.5}
          standard={5}
          {...bound(edit, settings, "ends", "round_radius_mm", "round radius", "mm")}
        />
      </div>
      <p className="mt-1.5 text-[12.5px] text-moss">
        {missing.length ? `No ${missing.join(", ")} yet: ` : "All pieces are there: "}
        <button className="thread-word" onClick={() => go("motif", pieces.repeat[0])}>
          {missing.length ? "make one on the sampler" : "see them on the sampler"}
        </button>
        .
      </p>
    </>
  );
}
