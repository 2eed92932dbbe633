import type { Bundle, BundleFault } from "~/core/formats";
import type { Result } from "~/core/result";
import { bundleFaultWords } from "../words/fault-words";
import { FilePick } from "./FilePick";

/** Chooses or catches a project file, refuses what it cannot be, and hands on what reads. */
export function BundleDrop({
  words,
  read,
  onBundle,
}: {
  readonly words: string;
  readonly read: (file: File, signal: AbortSignal) => Promise<Result<Bundle, BundleFault>>;
  /** A text that comes back is why it was not taken after all. */
  readonly onBundle: (bundle: Bundle, fileName: string, signal: AbortSignal) => Promise<string | undefined | void>;
}) {
  return (
    <FilePick
      label={words}
      words={words}
      types={{ "application/json": [".json"] }}
      onFiles={async ([file], signal) => {
        const bundle = await read(file, signal);
        return bundle.ok
          ? onBundle(bundle.value, file.name, signal)
          : `${file.name}: ${bundleFaultWords(bundle.error)}`;
      }}
    />
  );
}
