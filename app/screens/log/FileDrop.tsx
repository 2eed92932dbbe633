import { useRef, useState } from "react";
import { Button } from "~/components/ui/Button";

/** Catches exposure files; reading shows progress and can be stopped. */
export function FileDrop({
  onFiles,
}: {
  readonly onFiles: (files: readonly File[], signal: AbortSignal, onProgress: (done: number) => void) => Promise<void>;
}) {
  const input = useRef<HTMLInputElement>(null);
  const [isOver, setOver] = useState(false);
  const [work, setWork] = useState<{
    readonly total: number;
    readonly done: number;
    readonly stop: AbortController;
  } | null>(null);
  const take = async (list: FileList | null) => {
    const files = [...(list ?? [])];
    if (files.length === 0) return;
    const stop = new AbortController();
    setWork({ total: files.length, done: 0, stop });
    try {
      await onFiles(files, stop.signal, (done) => setWork((w) => (w ? { ...w, done } : w)));
    } catch (error) {
      if (!stop.signal.aborted) throw error;
    } finally {
      setWork(null);
      if (input.current) input.current.value = "";
    }
  };
  return (
    <div
      onDragOver={(e) => {
        e.preventDefault();
        setOver(true);
      }}
      onDragLeave={() => setOver(false)}
      onDrop={(e) => {
        e.preventDefault();
        setOver(false);
        void take(e.dataTransfer.files);
      }}
      className={`rounded-[10px] border border-dashed p-5 ${isOver ? "border-lamp bg-raised" : "border-rule"}`}
    >
      {work ? (
        <>
          <p>
            Reading headers, {work.done} of {work.total} …
          </p>
          <progress value={work.done} max={work.total} className="my-2 w-full" />
          <Button onClick={() => work.stop.abort(new Error("stopped"))}>Stop</Button>
        </>
      ) : (
        <div className="flex flex-wrap items-center justify-between gap-3">
          <p className="text-soft">
            Drop last night&apos;s FITS files here: each is booked to its project, panel, channel and night by its
            header. Nothing is counted twice; the pictures stay where they are.
          </p>
          <input
            ref={input}
            type="file"
            multiple
            className="sr-only"
            tabIndex={-1}
            aria-label="Exposure files"
            onChange={(e) => void take(e.target.files)}
          />
          <Button look="main" onClick={() => input.current?.click()}>
            Choose files
          </Button>
        </div>
      )}
    </div>
  );
}
