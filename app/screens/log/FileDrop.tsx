import { FilePick } from "~/components/forms/FilePick";

/** Catches exposure files; reading shows progress and can be stopped. */
export function FileDrop({
  onFiles,
}: {
  readonly onFiles: (files: readonly File[], signal: AbortSignal, onProgress: (done: number) => void) => Promise<void>;
}) {
  return (
    <FilePick
      label="Exposure files"
      words="Choose files"
      look="main"
      isMany
      busy={(share, count) => `Reading headers, ${Math.round((share ?? 0) * count)} of ${count} …`}
      onFiles={(files, signal, onProgress) => onFiles(files, signal, (done) => onProgress(done / files.length))}
    >
      <p className="text-soft max-w-[60ch]">
        Drop last night&apos;s files or their folder here: FITS, camera raw, TIFF or JPEG, or a table (CSV) of them.
        Each is added to its project, panel, channel and night by its header. Nothing is counted twice; the pictures
        stay where they are.
      </p>
    </FilePick>
  );
}
