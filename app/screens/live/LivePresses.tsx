import { useState, type ReactNode } from "react";
import { CULL_WORDS } from "~/components/words/log-words";
import { Field, SelectField } from "~/components/ui/Field";
import { Button } from "~/components/ui/Button";
import type { Block } from "~/core/night";
import { CULL_REASONS, type CullReason } from "~/core/ledger";
import type { BlockKey, Happening, LiveLine, LiveState } from "~/core/live";
import { parseNumber } from "~/core/notation";
import { lineWords } from "./live-words";

/** Pressed with a glove: as high as a thumb, as wide as there is room. */
export const BIG = "min-h-14 flex-1 basis-[9rem] text-lg";
/** The likeliest press: a rim, not a lit field, which would blind who comes from the dark. */
export const LIKELIEST = `${BIG} border-2 !border-lamp text-lamp font-semibold`;

export const blockKey = ({ projectId, panel, channel, subSec, startMs }: Block): BlockKey => ({
  projectId,
  panel,
  channel,
  subSec,
  startMs,
});

/** "P3" of "P3 the arch": what fits on a button. */
const panelOf = ({ panel }: Block): string => panel.split(" ")[0] ?? panel;

/** The block that a word would be about: the one that is on or that cloud broke off, else the last that went by; null once it is spoken of. */
function speakableOf({ now, lines, cloudSinceMs }: LiveState): LiveLine | null {
  if (now?.line.kind === "block") return now;
  const last = lines.findLast(
    (l) =>
      l.line.kind === "block" &&
      (l.state === "gone" || l.state === "done" || (cloudSinceMs !== null && l.startMs < cloudSinceMs)),
  );
  return last && last.state !== "done" ? last : null;
}

/** What can be pressed as the night stands: one press each. */
export function LivePresses({
  state,
  names,
  isDitherDue,
  airC,
  isBusy,
  onPress,
  children,
}: {
  readonly state: LiveState;
  /** Of the projects on the sheet, by id. */
  readonly names: Readonly<Record<string, string>>;
  /** Nothing guides, and it is time to move the frame by hand. */
  readonly isDitherDue: boolean;
  /** Air at the telescope, °C; null = nobody knows. */
  readonly airC: number | null;
  readonly isBusy: boolean;
  readonly onPress: (is: Happening) => void;
  /** What stands above the presses, within reach of the same thumb. */
  readonly children: ReactNode;
}) {
  const [open, setOpen] = useState<"lost" | "trouble" | "focus" | "swap" | null>(null);
  const press = (is: Happening) => {
    setOpen(null);
    onPress(is);
  };
  const big = (words: string, is: Happening, className = BIG) => (
    <Button className={className} disabled={isBusy} onClick={() => press(is)}>
      {words}
    </Button>
  );
  const more = (words: string, what: typeof open) => (
    <Button className={BIG} aria-expanded={open === what} onClick={() => setOpen(open === what ? null : what)}>
      {words}
    </Button>
  );
  if (state.phase === "over") return <div className="mt-auto py-2">{children}</div>;
  // Before the first sub there is nothing to turn or to swap.
  const hasSubs = state.lines.some((l) => l.line.kind === "block" && l.state !== "toCome");
  const hasFlip = state.lines.some((l) => l.line.kind === "flip");
  const running = speakableOf(state);
  const block = running?.line.kind === "block" ? running.line : null;
  const others = state.lines
    .filter((l) => l.state === "toCome" || (l.state === "gone" && l.said === null && l !== running))
    .flatMap((l) => (l.line.kind === "block" ? [{ words: lineWords(l, names), block: l.line }] : []));
  const form =
    open === "lost" && block ? (
      <Lost
        block={block}
        isBusy={isBusy}
        onDone={(lost, reason) => press({ what: "done", of: blockKey(block), kept: block.subs - lost, lost, reason })}
      />
    ) : open === "focus" ? (
      <Focused airC={airC} isBusy={isBusy} onDone={(air, steps) => press({ what: "focused", airC: air, steps })} />
    ) : open === "swap" ? (
      <div className="flex flex-wrap gap-2" role="group" aria-label="Swap to">
        {others.map(({ words, block: to }) => (
          <Button
            key={`${to.projectId} ${to.startMs}`}
            className={BIG}
            disabled={isBusy}
            onClick={() => press({ what: "swapped", to: blockKey(to) })}
          >
            {words}
          </Button>
        ))}
      </div>
    ) : open === "trouble" ? (
      <Trouble isBusy={isBusy} onDone={(words) => press({ what: "trouble", words })} />
    ) : null;
  return (
    <div className="bg-ground border-rule sticky bottom-16 mt-auto space-y-2 border-t py-2 sm:bottom-0">
      {form ? (
        <>
          {form}
          <Button className={BIG} onClick={() => setOpen(null)}>
            Back
          </Button>
        </>
      ) : (
        <>
          {children}
          <div className="flex flex-wrap gap-2">
            {!state.isSaid && state.phase !== "cloud" ? big("Begun", { what: "begun" }, block ? BIG : LIKELIEST) : null}
            {state.phase === "on" && block ? (
              <>
                {big(
                  `${block.channel} ${panelOf(block)} done, all kept`,
                  { what: "done", of: blockKey(block), kept: block.subs, lost: 0, reason: "" },
                  LIKELIEST,
                )}
                {more("Done, some lost …", "lost")}
              </>
            ) : null}
            {state.phase === "cloud" ? big("It cleared", { what: "cloud", isClear: true }, LIKELIEST) : null}
            {state.phase === "cloud" && block ? more(`Of ${block.channel} ${panelOf(block)} …`, "lost") : null}
            {state.phase === "on" ? (
              <>
                {big("Cloud came", { what: "cloud", isClear: false })}
                {more("Focused …", "focus")}
                {isDitherDue ? big("Dithered", { what: "dithered" }) : null}
                {hasFlip && hasSubs ? big("Flipped", { what: "flipped" }) : null}
                {others.length > 0 && hasSubs ? more("Swap to …", "swap") : null}
              </>
            ) : null}
            {more("Trouble …", "trouble")}
            {state.phase === "before" ? null : big("Packed up", { what: "packedUp" })}
          </div>
        </>
      )}
    </div>
  );
}

function Lost({
  block,
  isBusy,
  onDone,
}: {
  readonly block: Block;
  readonly isBusy: boolean;
  readonly onDone: (lost: number, reason: CullReason) => void;
}) {
  const [lost, setLost] = useState("1");
  const [reason, setReason] = useState<CullReason>("cloud");
  const count = parseNumber(lost);
  const isWrong = count === null || !Number.isInteger(count) || count < 1 || count > block.subs;
  return (
    <div className="flex flex-wrap items-end gap-2">
      <div className="w-28">
        <Field
          label="Lost"
          unit={`of ${block.subs} subs`}
          inputMode="numeric"
          value={lost}
          fault={isWrong ? `1 to ${block.subs}` : undefined}
          onChange={(e) => setLost(e.target.value)}
        />
      </div>
      <div className="w-44">
        <SelectField label="To what" value={reason} onChange={(e) => setReason(e.target.value as CullReason)}>
          {CULL_REASONS.map((r) => (
            <option key={r} value={r}>
              {CULL_WORDS[r]}
            </option>
          ))}
        </SelectField>
      </div>
      <Button className={LIKELIEST} disabled={isBusy || isWrong} onClick={() => onDone(count!, reason)}>
        Write down
      </Button>
    </div>
  );
}

/** What is typed of a focus; empty is not known. */
function Focused({
  airC,
  isBusy,
  onDone,
}: {
  readonly airC: number | null;
  readonly isBusy: boolean;
  readonly onDone: (airC: number | null, steps: number | null) => void;
}) {
  const [air, setAir] = useState(airC === null ? "" : String(Math.round(airC)));
  const [steps, setSteps] = useState("");
  const [a, s] = [parseNumber(air), parseNumber(steps)];
  const isWrong =
    (air !== "" && (a === null || Math.abs(a) > 60)) || (steps !== "" && (s === null || !Number.isInteger(s)));
  return (
    <div className="flex flex-wrap items-end gap-2">
      <div className="w-32">
        <Field label="Air" unit="°C" inputMode="decimal" value={air} onChange={(e) => setAir(e.target.value)} />
      </div>
      <div className="w-36">
        <Field
          label="Focuser at"
          unit="steps"
          inputMode="numeric"
          value={steps}
          onChange={(e) => setSteps(e.target.value)}
        />
      </div>
      <Button
        look="main"
        className={BIG}
        disabled={isBusy || isWrong}
        onClick={() => onDone(air === "" ? null : a, steps === "" ? null : s)}
      >
        Focused now
      </Button>
    </div>
  );
}

function Trouble({ isBusy, onDone }: { readonly isBusy: boolean; readonly onDone: (words: string) => void }) {
  const [words, setWords] = useState("");
  return (
    <div className="flex flex-wrap items-end gap-2">
      <div className="min-w-60 flex-1">
        <Field label="What went wrong" maxLength={400} value={words} onChange={(e) => setWords(e.target.value)} />
      </div>
      <Button className={LIKELIEST} disabled={isBusy || words.trim() === ""} onClick={() => onDone(words.trim())}>
        Write down
      </Button>
    </div>
  );
}
