import { useScans, useTakeScan } from "../../shared/api/scans";
import { stepThrough, takeFocus, useEscape } from "../../shared/ui/keys";
import { useBeginning } from "./beginning";

/** What lies in the scan tray; it is watched while it is open. */
export function ScanTray() {
  const onTaken = useBeginning((now) => now.take);
  const onDone = useBeginning((now) => now.done);
  useEscape(onDone);
  const { data } = useScans();
  const take = useTakeScan();
  return (
    <div
      className="absolute inset-x-0 top-0 z-20 border-b border-loden bg-work px-5 pt-3 pb-4 shadow-md"
      role="dialog"
      aria-label="Scan tray"
    >
      <div className="mb-2 flex items-baseline gap-4">
        <h2 className="text-[15px]">Scan tray</h2>
        <span className="min-w-0 truncate text-[12.5px] text-moss">
          Watched: a picture saved into {data?.folder ?? "its folder"} lies here a moment later.
        </span>
        <button ref={data?.scans.length === 0 ? takeFocus : undefined} className="plain-button ml-auto" onClick={onDone}>
          Close
        </button>
      </div>
      {data && !data.scans.length && (
        <p className="text-moss">The tray is empty. Save a scan as PNG, JPEG, WebP or TIFF into that folder.</p>
      )}
      <ul className="grid max-h-[230px] grid-cols-4 gap-2 overflow-y-auto" onKeyDown={(e) => stepThrough(e, COLUMNS)}>
        {data?.scans.map((scan, i) => (
          <li key={scan.name}>
            <button
              ref={i ? undefined : takeFocus}
              className="block w-full border border-rule bg-work px-2.5 py-1.5 text-left hover:border-loden"
              disabled={take.isPending}
              onClick={() => take.mutate(scan.name, { onSuccess: (original) => onTaken(original) })}
            >
              <b className="block truncate">{scan.name}</b>
              <span className="text-[12px] text-moss">
                {new Date(scan.at * 1000).toLocaleString("en-GB", { dateStyle: "medium", timeStyle: "short" })},{" "}
                {(scan.bytes / 1024).toFixed(0)} kB
              </span>
            </button>
          </li>
        ))}
      </ul>
    </div>
  );
}

const COLUMNS = 4; // as the grid has
