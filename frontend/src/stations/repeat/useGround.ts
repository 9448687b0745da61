import { useMemo, useState, type CSSProperties } from "react";

/** What lies under the work: the woven chalk, the dark weave, or a colour of the user's own (#rrggbb). */
export type Ground = "light" | "dark" | `#${string}`;

const KEPT = "sewn-garland ground";

const luminance = (hex: string): number => {
  const [r, g, b] = [1, 3, 5]
    .map((i) => parseInt(hex.slice(i, i + 2), 16) / 255)
    .map((v) => (v <= 0.04045 ? v / 12.92 : ((v + 0.055) / 1.055) ** 2.4));
  return 0.2126 * r + 0.7152 * g + 0.0722 * b;
};

/**
 * The ground of the work surfaces, kept in this browser; a brush `forNight`, which only lightens, lies on the dark one until another
 * is chosen for it. Marks on it are light where it is dark.
 */
export function useGround(forNight: boolean) {
  const [chosen, setChosen] = useState<Ground | null>(null);
  const usual = (localStorage.getItem(KEPT) as Ground | null) ?? "light";
  const ground = chosen ?? (forNight && usual === "light" ? "dark" : usual);
  // the same object while the ground stays, for what is painted on it is not drawn again at every step of a drag
  return useMemo(() => {
    const own = ground.startsWith("#");
    const night = own ? luminance(ground) < 0.35 : ground === "dark"; // where white words read better than the grey ones
    return {
      ground,
      night,
      weave: own ? "" : night ? "weave-night" : "weave",
      style: (own ? { backgroundColor: ground } : undefined) as CSSProperties | undefined,
      glass: own ? ground : night ? "#1d2624" : "#ffffff",
      set: (next: Ground) => {
        localStorage.setItem(KEPT, next);
        setChosen(next);
      },
    };
  }, [ground]);
}

export type GroundState = ReturnType<typeof useGround>;
