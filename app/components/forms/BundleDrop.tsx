import { useRef, useState } from "react";
import { decodeBundle, MAX_BUNDLE_BYTES, type Bundle } from "~/core/formats";
import { bundleFaultWords } from "~/components/words/words";
import { Button } from "~/components/ui/Button";
import { Refusal } from "~/components/ui/Panel";

/** Chooses or catches a project file, refuses what it cannot be, and hands on what reads. */
export function BundleDrop({
  words,
  onBundle,
}: {
  readonly words: string;
  readonly onBundle: (bundle: Bundle, fileName: string) => void;
}) {
  const input = useRef<HTMLInputElement>(null);
  const [fault, setFault] = useState<string | null>(null);
  const take = async (file: File | undefined) => {
    if (!file) return;
    setFault(null);
    if (file.size > MAX_BUNDLE_BYTES) {
      setFault(
        `${file.name}: ${bundleFaultWords({ code: "bundleTooLarge", found: `${Math.round(file.size / 1e6)} MB` })}`,
      );
      return;
    }
    const read = decodeBundle(await file.text());
    if (read.ok) onBundle(read.value, file.name);
    else setFault(`${file.name}: ${bundleFaultWords(read.error)}`);
    if (input.current) input.current.value = "";
  };
  return (
    <div
      onDragOver={(e) => e.preventDefault()}
      onDrop={(e) => {
        e.preventDefault();
        void take(e.dataTransfer.files[0]);
      }}
    >
      <input
        ref={input}
        type="file"
        accept=".json,application/json"
        className="sr-only"
        tabIndex={-1}
        aria-label={words}
        onChange={(e) => void take(e.target.files?.[0])}
      />
      <Button onClick={() => input.current?.click()}>{words}</Button>
      {fault ? (
        <Refusal>
          <p>{fault}</p>
        </Refusal>
      ) : null}
    </div>
  );
}
