import { Term } from "~/components/ui/Term";
import { useEffect, useRef } from "react";
import type { Block, Rounds, RunSheet, SheetEvent } from "~/core/night";
import { formatSpan } from "~/core/notation";
import { CHANNEL_COLOUR } from "~/components/charts/channel-colour";
import { clockTime } from "~/components/clock";
import { counted } from "~/components/numbers";
import { focusHintWords } from "~/components/words/focus-words";
import type { FocusHint } from "~/core/ledger";
import { Time } from "~/components/Time";
import { isOnScreenOnly, sheetLines, type SkyEvent } from "./sheet-lines";

function eventWords(e: SheetEvent, isCooled: boolean, zone: string): string {
  switch (e.kind) {
    case "setUp":
      return `Set up: legs firm, level, balance, cables, ${isCooled ? "cool the camera, " : ""}dew heater on`;
    case "align":
      return "Polar align by the stars, first focus, one test exposure";
    case "centre":
      return `Centre ${e.detail}, check frame and camera angle`;
    case "filter":
      return `Filter: ${e.detail}`;
    case "focus":
      return "Focus";
    case "flip":
      return "Meridian flip, centre again; the angle now reads 180° more, do not turn the camera";
    case "wait":
      return e.detail === "meridian" ? "Wait for the meridian" : "Wait";
    case "packUp":
      return `Pack up: park, cover, cables in${e.by ? `; everything under a roof by ${clockTime(e.by.ms, zone)}, ${PACK_UP_WORDS[e.by.why]}` : ""}`;
  }
}

const PACK_UP_WORDS = { rain: "before the rain", dawn: "when it gets light" } as const;

/** A night by the local clock: blocks and breaks, with what Sun, Moon and skyline do between them. */
export function RunSheetView({
  sheet,
  sky,
  zone,
  isCooled,
  nameOf,
  nowMs,
  focus,
}: {
  readonly sheet: RunSheet;
  /** What a project is called, where the evening has several; null = it is the only one. */
  readonly nameOf: (projectId: string) => string | null;
  /** Whether the camera has a cooler. */
  readonly isCooled: boolean;
  readonly sky: readonly SkyEvent[];
  readonly zone: string;
  /** The instant it is, while the night is on; absent or null = the sheet is not of tonight. */
  readonly nowMs?: number | null;
  /** How the focus moves with a filter, by when it is changed. */
  readonly focus?: Readonly<Record<number, FocusHint>>;
}) {
  const lines = sheetLines(sheet, sky);
  const now = nowMs ?? null;
  const present = now === null ? -1 : lines.findIndex((l) => l.line && l.line.startMs <= now && now < l.line.endMs);
  const next = now === null ? -1 : lines.findIndex((l) => l.line && l.line.startMs > now);
  const here = useRef<HTMLLIElement>(null);
  const hasPast = now !== null && lines.some((l) => l.line && l.line.endMs <= now);
  // Whoever opens the sheet in the middle of the night looks for what is now.
  useEffect(() => {
    if (hasPast) here.current?.scrollIntoView({ block: "center" });
  }, [hasPast]);
  const markOf = (i: number) => (i === present ? "now" : i === next ? "next" : null);
  return (
    <ol>
      {lines.map((l, i) => (
        <li
          key={`${l.at} ${l.words} ${l.line?.kind ?? "sky"}`}
          ref={i === (present === -1 ? next : present) ? here : undefined}
          aria-current={i === present ? "step" : undefined}
          className={`${isOnScreenOnly(l) ? "print:hidden" : ""} border-rule grid grid-cols-[3.6rem_minmax(0,1fr)_5rem] items-baseline gap-3 border-t py-1.5 print:py-0 print:leading-[1.2] ${i === present ? "bg-raised" : now !== null && (l.line?.endMs ?? l.at) <= now ? "text-soft" : ""}`}
        >
          <span>
            <Time ms={l.at} zone={zone} />
            {markOf(i) ? <strong className="text-lamp text-note block print:hidden">{markOf(i)}</strong> : null}
          </span>
          {l.line === null ? (
            <span className="text-moon">{l.words}</span>
          ) : l.line.kind === "block" ? (
            <BlockLine block={l.line} zone={zone} name={nameOf(l.line.projectId)} />
          ) : l.line.kind === "rounds" ? (
            <RoundsLine rounds={l.line} zone={zone} name={nameOf(l.line.projectId)} />
          ) : (
            <span className="text-soft">
              {eventWords(l.line, isCooled, zone)}
              {l.line.kind === "centre" ? (
                <>
                  {" "}
                  with a <Term word="solved exposure" className="" />
                </>
              ) : null}
              {focus?.[l.line.startMs] && l.line.kind === "filter" ? (
                <span className="text-ink">; {focusHintWords(focus[l.line.startMs]!)}</span>
              ) : null}
            </span>
          )}
          <span className="text-note text-soft text-right">
            {l.line ? formatSpan(l.line.endMs - l.line.startMs) : ""}
          </span>
        </li>
      ))}
    </ol>
  );
}

/** What is shot in turn: what a round is, how many, and what comes together. */
function RoundsLine({
  rounds,
  zone,
  name,
}: {
  readonly rounds: Rounds;
  readonly zone: string;
  readonly name: string | null;
}) {
  return (
    <div>
      <span className="font-semibold">
        <TickBox />
        {name ? `${name}, ` : ""}
        {counted(rounds.rounds, "round")} in turn
        <span className="text-soft font-normal">
          , to <Time ms={rounds.endMs} zone={zone} />
        </span>
      </span>
      <ul>
        {rounds.parts.map((p) => (
          <li key={`${p.panel} ${p.channel} ${p.subSec}`}>
            <span
              className="mr-2 inline-block h-3 w-1.5"
              style={{ background: CHANNEL_COLOUR[p.channel] }}
              aria-hidden="true"
            />
            {p.panel} {p.channel}: {p.inARow} × {p.subSec} s{" "}
            <span className="text-soft">
              a round through {p.filterName}, {p.subs} in all
            </span>
          </li>
        ))}
      </ul>
    </div>
  );
}

/** On paper: what is done is ticked. */
const TickBox = () => (
  <span className="border-ink mr-2 hidden h-2.5 w-2.5 rounded-[2px] border print:inline-block" aria-hidden="true" />
);

function BlockLine({
  block,
  zone,
  name,
}: {
  readonly block: Block;
  readonly zone: string;
  readonly name: string | null;
}) {
  return (
    <span className="font-semibold">
      <TickBox />
      <span
        className="mr-2 inline-block h-3 w-1.5"
        style={{ background: CHANNEL_COLOUR[block.channel] }}
        aria-hidden="true"
      />
      {name ? `${name}, ` : ""}
      {block.panel} {block.channel}: {block.subs} × {block.subSec} s
      <span className="text-soft font-normal">
        {" "}
        through {block.filterName}, to <Time ms={block.endMs} zone={zone} />
      </span>
    </span>
  );
}
