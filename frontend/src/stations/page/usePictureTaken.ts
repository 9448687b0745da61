import { useRef, useState } from "react";

/** A picture of the page on its way: drawn by the server, stopped when asked, taken away as a file. */
export function usePictureTaken() {
  const [state, setState] = useState<{ drawing: boolean; words: string | null }>({ drawing: false, words: null });
  const stop = useRef<AbortController | null>(null);
  const take = async (from: string): Promise<void> => {
    stop.current = new AbortController();
    setState({ drawing: true, words: null });
    try {
      const reply = await fetch(from, { signal: stop.current.signal });
      if (!reply.ok) {
        setState({ drawing: false, words: (await reply.json()).message });
        return;
      }
      const name = reply.headers.get("Content-Disposition")?.match(/filename="([^"]+)"/)?.[1] ?? "page.png";
      const link = document.createElement("a");
      link.href = URL.createObjectURL(await reply.blob());
      link.download = name;
      link.click();
      URL.revokeObjectURL(link.href);
      setState({ drawing: false, words: `${name} was taken away.` });
    } catch {
      setState({
        drawing: false,
        words: stop.current.signal.aborted ? "Stopped; no picture was written." : "The server does not answer; try again.",
      });
    }
  };

  return { ...state, take, stop: () => stop.current?.abort() };
}
