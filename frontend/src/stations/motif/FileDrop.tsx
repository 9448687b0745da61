import { useMemo, useRef, useState, type ReactNode } from "react";
import { FileInput } from "../../shared/ui/FileInput";
import { Reading } from "./Reading";
import { BringInContext, useTakeFile } from "./bringIn";

const DROP = "border-2 border-dashed border-madder bg-madder-wash/80";

/** Takes files that are dropped on the station or chosen. */
export function FileDrop({ children }: { children: ReactNode }) {
  const file = useRef<HTMLInputElement>(null);
  const [over, setOver] = useState(false);
  const take = useTakeFile();
  const bringIn = useMemo(() => ({ pick: () => file.current?.click() }), []);
  return (
    <div
      className="flex h-full"
      onDragOver={(event) => {
        event.preventDefault();
        setOver(true);
      }}
      onDragLeave={() => setOver(false)}
      onDrop={(event) => {
        event.preventDefault();
        setOver(false);
        void take(event.dataTransfer.files[0]);
      }}
    >
      <Reading />
      <FileInput
        ref={file}
        accept=".svg,image/svg+xml,.png,.jpg,.jpeg,.webp,.tif,.tiff"
        testId="motif-file"
        onFile={(chosen) => void take(chosen)}
      />
      <BringInContext value={bringIn}>{children}</BringInContext>
      {over && (
        <p className={`pointer-events-none absolute inset-6 z-30 flex items-center justify-center text-lg ${DROP}`}>
          Let go to bring it in
        </p>
      )}
    </div>
  );
}
