import { Choice } from "../../shared/ui/Choice";
import { FACING_PICTURES, MIRROR_PICTURES } from "./pictures/facing";
import { BEND_PICTURES, KIND_PICTURES } from "./pictures/travel";
import { useSaid } from "./openBench";
import { TravelFigures } from "./TravelFigures";
import { mirrored, mirroring, scattered, travelling } from "./variations";
import { MIRROR } from "./wordsOf";

export function TravelQuestion() {
  const { edit, settings } = useSaid();
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
          { value: "scattered", label: "scattered", picture: KIND_PICTURES.scattered },
          { value: "once_length", label: "once, length", picture: KIND_PICTURES.once_length },
          { value: "once_proportion", label: "in proportion", picture: KIND_PICTURES.once_proportion },
        ]}
        onSet={(next) =>
          edit.set(next === "scattered" ? scattered(settings) : travelling(settings, { kind: next }), KIND_WORDS[next])
        }
      />
      {(kind === "repeated" || kind === "scattered") && (
        <Choice
          small
          side
          label="Round bends"
          value={bends}
          options={[
            { value: "rigid" as const, label: "rigid", picture: BEND_PICTURES.rigid },
            { value: "bent" as const, label: "bent", picture: BEND_PICTURES.bent },
            { value: "jointed" as const, label: "jointed", picture: BEND_PICTURES.jointed },
          ].filter(({ value }) => value !== "jointed" || kind === "repeated")}
          onSet={(round_bends) =>
            edit.set(
              round_bends === "jointed" && eased
                ? { ...travelling(settings, { round_bends }), spacing: { ease: "size" } }
                : travelling(settings, { round_bends }),
              `${round_bends} at bends`,
            )
          }
        />
      )}
      {(kind === "repeated" || kind === "scattered") && bends === "rigid" && (
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
        value={mirroring(settings)}
        options={[
          { value: "off", label: "off", picture: MIRROR_PICTURES.off },
          { value: "up_down", label: "up–down", picture: MIRROR_PICTURES.up_down },
          { value: "left_right", label: "left–right", picture: MIRROR_PICTURES.left_right },
          { value: "every_second", label: "every second", picture: MIRROR_PICTURES.every_second },
          { value: "sides", label: "alternate sides", picture: MIRROR_PICTURES.sides },
        ]}
        onSet={(next) => edit.set(mirrored(settings, next), MIRROR[next])}
      />
      <TravelFigures />
    </div>
  );
}

const KIND_WORDS = {
  repeated: "repeated",
  scattered: "scattered",
  once_length: "once, length only",
  once_proportion: "once, in proportion",
} as const;
