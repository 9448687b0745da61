import { useOpenBench } from "./openBench";

/** Light, dark, or a colour of one's own under the work. */
export function GroundChoice() {
  const { ground } = useOpenBench();
  const chosen = ground.ground.startsWith("#");
  const own = chosen ? ground.ground : "#7fa3b5";
  return (
    <div
      role="group"
      aria-label="Ground under the work"
      className="absolute top-[44px] right-5 flex items-stretch gap-1 text-loden"
    >
      {(["light", "dark"] as const).map((which) => (
        <button
          key={which}
          className="plain-button px-2 aria-pressed:border-loden aria-pressed:font-semibold"
          aria-pressed={ground.ground === which}
          title={which === "dark" ? "q n" : undefined}
          onClick={() => ground.set(which)}
        >
          {which}
        </button>
      ))}
      <label className={`plain-button flex cursor-pointer items-center gap-1 px-2 ${chosen ? "border-loden font-semibold" : ""}`}>
        own
        <input
          type="color"
          aria-label="Own ground"
          className="h-4 w-5 cursor-pointer"
          value={own}
          onChange={(event) => ground.set(event.target.value as `#${string}`)}
        />
      </label>
    </div>
  );
}
