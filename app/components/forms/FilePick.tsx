import { useRef, useState, type ReactNode } from "react";
import { useDropzone, type FileRejection } from "react-dropzone";
import { megabytes } from "../numbers";
import { buttonLook } from "../ui/Button";
import { Refusal } from "../ui/Panel";
import { Progress } from "../ui/Progress";

/** Why a file was not taken, in words. */
function rejectionWords({ file, errors }: FileRejection, endings: string, mostBytes: number | undefined): string {
  const code = errors[0]?.code;
  if (code === "file-too-large" && mostBytes)
    return `${file.name}: ${megabytes(file.size)} is too large; ${megabytes(mostBytes)} at most.`;
  if (code === "file-invalid-type") return `${file.name}: a file of another kind; wanted is ${endings}.`;
  if (code === "too-many-files") return "One file at a time.";
  return `${file.name}: ${errors[0]?.message ?? "not taken"}.`;
}

interface Work {
  readonly count: number;
  readonly share: number | null;
  readonly stop: AbortController;
}

interface Props {
  /** What the choosing is called for those who hear the page. */
  readonly label: string;
  readonly words: string;
  /** Allowed types with their endings; absent = any. */
  readonly types?: Readonly<Record<string, readonly string[]>>;
  readonly mostBytes?: number;
  readonly isMany?: boolean;
  readonly look?: Parameters<typeof buttonLook>[0];
  /** Said while the work lasts, of so many files. */
  readonly busy?: (share: number | null, count: number) => string;
  /** What it says about the files; with it the whole is a place to drop them on. */
  readonly children?: ReactNode;
  /** Works on what was chosen or dropped; a text that comes back is why it was refused. */
  readonly onFiles: (
    files: readonly [File, ...File[]],
    signal: AbortSignal,
    onProgress: (share: number) => void,
  ) => Promise<string | undefined | void>;
}

/** The one way files come in: chosen, dropped, or a folder dropped; by keys too. What is refused is named, and why. */
export function FilePick({ label, words, types, mostBytes, isMany, look, busy, children, onFiles }: Props) {
  const [fault, setFault] = useState<string | null>(null);
  const [work, setWork] = useState<Work | null>(null);
  const last = useRef<AbortController | null>(null);
  const take = async (files: readonly File[], refused: readonly FileRejection[]) => {
    const endings = Object.values(types ?? {})
      .flat()
      .join(", ");
    setFault(refused[0] ? rejectionWords(refused[0], endings, mostBytes) : null);
    const [first, ...rest] = files;
    if (!first) return;
    const stop = new AbortController();
    last.current?.abort(new Error("another file was chosen"));
    last.current = stop;
    setWork({ share: null, count: files.length, stop });
    try {
      const refusal = await onFiles([first, ...rest], stop.signal, (share) => {
        if (!stop.signal.aborted) setWork({ share, count: files.length, stop });
      });
      if (typeof refusal === "string") setFault(refusal);
    } catch (error) {
      if (!stop.signal.aborted)
        setFault(
          `${first.name}: could not be read${error instanceof Error && error.message ? `: ${error.message}` : ""}.`,
        );
    } finally {
      if (last.current === stop) setWork(null);
    }
  };
  const { getRootProps, getInputProps, isDragActive, open, inputRef } = useDropzone({
    onDrop: (files, refused) => {
      inputRef.current.value = ""; // the same file can be chosen again
      void take(files, refused);
    },
    multiple: isMany ?? false,
    noClick: true,
    noKeyboard: true,
    ...(types ? { accept: Object.fromEntries(Object.entries(types).map(([type, e]) => [type, [...e]])) } : {}),
    ...(mostBytes ? { maxSize: mostBytes } : {}),
  });
  const frame = children
    ? `rounded-[10px] border border-dashed p-4 ${isDragActive ? "border-lamp bg-raised" : "border-rule"}`
    : isDragActive
      ? "outline-lamp rounded-[6px] outline-2 outline-offset-4"
      : "";
  return (
    <div {...getRootProps({ className: frame, role: undefined, tabIndex: undefined })}>
      <input {...getInputProps({ "aria-label": label, tabIndex: -1 })} />
      {work ? (
        <Progress
          words={busy?.(work.share, work.count) ?? "Reading the file …"}
          share={work.share}
          onStop={() => work.stop.abort(new Error("stopped"))}
        />
      ) : (
        <div className="flex flex-wrap items-center justify-between gap-3">
          {children}
          <button type="button" className={buttonLook(look ?? "quiet")} onClick={open}>
            {words}
          </button>
        </div>
      )}
      {fault ? (
        <Refusal>
          <p>{fault}</p>
        </Refusal>
      ) : null}
    </div>
  );
}
