import { Choice } from "../../shared/ui/Choice";
import { go } from "../../shared/ui/place";
import { NumberField } from "../../shared/ui/NumberField";
import { ORDER_PICTURES } from "./pictures/order";
import { Borders } from "./Borders";
import { RowsField } from "./RowsField";
import { useOpenBench, useSaid } from "./openBench";

/** Which variant comes next, and the rows beside the line. */
export function NextQuestion() {
  const { edit, settings, bound } = useSaid();
  const { pieces } = useOpenBench().brush;
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
          {...bound("variants", "arrangement", "arrangement", "")}
        />
      )}
      <Borders />
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
