import { useBeginning } from "./beginning";

/** Tells that a file is being read, which takes a while where it is large. */
export function Reading() {
  const reading = useBeginning((now) => now.reading);
  if (reading === null) return null;
  return (
    <p
      role="status"
      className="absolute top-24 left-1/2 z-30 flex -translate-x-1/2 items-center gap-3 border border-loden bg-work px-4 py-2 shadow-md"
    >
      Reading {reading}… <progress aria-label={`Reading ${reading}`} className="w-40" />
    </p>
  );
}
