import { useRef, useState } from "react";
import { api, kept, Refusal, type Motif, type Original, type Schemas, type Workshop } from "../../shared/api/client";
import { useMotifs } from "../../shared/api/motifs";
import { useChange, useTrouble } from "../../shared/api/queries";
import { useLetters } from "../../shared/ui/keys";
import { go } from "../../shared/ui/place";
import type { Drawing } from "./types";
import { MotifList } from "./MotifList";
import { PickUp } from "./PickUp";
import { PictureBench } from "./PictureBench";
import { ScanTray } from "./ScanTray";
import { Starters } from "./Starters";
import { type Beginning, BeginBar } from "./BeginBar";
import { Work } from "./Work";

const MOST_SVG = 10 * 1024 * 1024;
const MOST_PICTURE = 100 * 1024 * 1024;
const DROP = "border-2 border-dashed border-madder bg-madder-wash/80";
const PICTURES = /\.(png|jpe?g|webp|tiff?)$/i;

export function MotifStation({ workshop, id }: { workshop: Workshop; id: number | null }) {
  const open = workshop.motifs.find((m) => m.id === id) ?? workshop.motifs[0];
  const motif = useMotifs(open ? [open] : [])?.[0];
  const file = useRef<HTMLInputElement>(null);
  const [over, setOver] = useState(false);
  const [beginning, setBeginning] = useState<Beginning>(null);
  const [original, setOriginal] = useState<Original | null>(null);
  const [drawing, setDrawing] = useState<Drawing | null>(null);
  const say = useTrouble((s) => s.say);
  const bringIn = useChange((body: Schemas["NewMotif"]) => kept<Motif>(api.POST("/api/motifs", { body })));

  const take = async (chosen: File | undefined): Promise<void> => {
    if (!chosen) return;
    const picture = PICTURES.test(chosen.name) || /^image\/(png|jpeg|webp|tiff)$/.test(chosen.type);
    const most = picture ? MOST_PICTURE : MOST_SVG;
    if (chosen.size > most) {
      const [size, may] = [(chosen.size / 1048576).toFixed(1), most / 1048576];
      say(
        `${chosen.name} is ${size} MB, more than the ${may} MB ${picture ? "a picture" : "a drawing"} may have; nothing was brought in`,
      );
      return;
    }
    const name = (
      chosen.name
        .replace(/\.\w+$/i, "")
        .replace(/[-_]+/g, " ")
        .trim() || "Motif"
    ).slice(0, 200);
    if (picture) {
      try {
        setOriginal(await bringInPicture(name, chosen));
        setBeginning(null);
      } catch (why) {
        say((why as Error).message);
      }
    } else bringIn.mutate({ name, svg: await chosen.text(), trim: true }, { onSuccess: (m) => go("motif", m.id) });
  };
  const pickFile = (): void => file.current?.click();
  const begin = (which: Beginning): void => {
    setOriginal(null);
    setBeginning(beginning === which ? null : which);
  };
  useLetters([
    { letter: "a", words: "starters", act: () => begin("starters") },
    { letter: "b", words: "bring in a file", act: pickFile },
    { letter: "y", words: "scan tray", act: () => begin("tray") },
    { letter: "u", words: "pick up from a page", act: () => begin("pick-up") },
  ]);
  const done = (): void => {
    setBeginning(null);
    setOriginal(null);
  };

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
      <input
        ref={file}
        type="file"
        accept=".svg,image/svg+xml,.png,.jpg,.jpeg,.webp,.tif,.tiff"
        className="hidden"
        data-testid="motif-file"
        onChange={(event) => {
          void take(event.target.files?.[0]);
          event.target.value = "";
        }}
      />
      {motif && !original && beginning !== "pick-up" ? (
        <Work
          key={motif.id}
          motif={motif}
          workshop={workshop}
          beginning={beginning}
          begin={begin}
          onFile={pickFile}
          onOriginal={setOriginal}
          drawing={drawing}
          setDrawing={setDrawing}
        />
      ) : (
        <>
          <div className="relative flex min-w-0 flex-1 flex-col">
            <BeginBar beginning={beginning} begin={begin} onFile={pickFile} />
            {original && <PictureBench key={original.sha} original={original} onDone={done} />}
            {!original && beginning === "pick-up" && <PickUp workshop={workshop} onDone={done} />}
            {!original && beginning !== "pick-up" && (
              <div className="relative flex-1">
                {beginning === "starters" && <Starters motif={undefined} edit={null} onDone={done} />}
                {beginning === "tray" && <ScanTray onTaken={setOriginal} onDone={done} />}
                {open ? (
                  <p className="p-8 text-moss">Opening {open.name}…</p>
                ) : (
                  <NoMotif onStarters={() => begin("starters")} onFile={pickFile} />
                )}
              </div>
            )}
          </div>
          {!original && (
            <aside aria-label="Motifs" className="flex w-[300px] shrink-0 flex-col border-l border-rule px-4 py-3">
              <MotifList workshop={workshop} open={open} />
            </aside>
          )}
        </>
      )}
      {over && (
        <p className={`pointer-events-none absolute inset-6 z-30 flex items-center justify-center text-lg ${DROP}`}>
          Let go to bring it in
        </p>
      )}
    </div>
  );
}

async function bringInPicture(name: string, chosen: File): Promise<Original> {
  const reply = await fetch(`/api/originals?name=${encodeURIComponent(name)}`, {
    method: "POST",
    headers: { "Content-Type": "application/octet-stream" },
    body: chosen,
  });
  const answer = await reply.json();
  if (!reply.ok) throw new Refusal(answer.message ?? "the picture was refused", reply.status);
  return answer as Original;
}

function NoMotif({ onStarters, onFile }: { onStarters: () => void; onFile: () => void }) {
  return (
    <div className="mx-auto mt-20 max-w-[52ch]">
      <h2 className="text-xl">No motif yet</h2>
      <p className="my-3">
        A motif is the piece that repeats: one link, leaf or stitch. Begin with a starter and change its figures, or bring in an
        SVG, a scan or a photo.
      </p>
      <button className="firm-button mr-3" onClick={onStarters}>
        Begin with a starter
      </button>
      <button className="plain-button" onClick={onFile}>
        Bring in a file
      </button>
    </div>
  );
}
