import { useVirtualizer } from "@tanstack/react-virtual";
import { useMemo, useRef } from "react";
import { Link } from "react-router";
import type { CatalogEntry } from "~/core/catalog";
import type { Channel } from "~/core/exposure";
import { channelSky, walkTarget, type Cause, type ChannelSky, type NightSteps, type Place } from "~/core/night";
import { formatMinutes } from "~/core/notation";
import { apparentVector, type NightSky } from "~/core/sky";
import { WorthStrip } from "./charts/WorthStrip";
import { entryFacts, entryTitle, fillWords } from "./target-words";
import { CAUSE_WORDS } from "./words";

/** A line of the list: ranked, or found by name though the night has nothing for it. */
export interface TargetLine {
  readonly entry: CatalogEntry;
  readonly channel: Channel;
  readonly usableMin: number;
  readonly worthMin: number;
  readonly mainLoss: Cause;
  readonly mainLossMin: number;
  readonly fill: number | null;
}

const ROW_PX = 66;

/** The ranked catalogue; only the lines in view are drawn, each with its strip. */
export function TargetList({
  lines,
  place,
  sky,
  steps,
  search,
}: {
  readonly lines: readonly TargetLine[];
  readonly place: Place;
  readonly sky: NightSky;
  readonly steps: NightSteps;
  readonly search: string;
}) {
  const box = useRef<HTMLDivElement>(null);
  // eslint-disable-next-line react-hooks/incompatible-library -- its functions are called here only, never handed on
  const virtualizer = useVirtualizer({
    count: lines.length,
    getScrollElement: () => box.current,
    estimateSize: () => ROW_PX,
    overscan: 6,
  });
  const skies = useMemo(() => new Map<Channel, ChannelSky>(), [place, steps]); // eslint-disable-line react-hooks/exhaustive-deps -- one set of tables per place and night
  const skyOf = (channel: Channel) => {
    const known = skies.get(channel) ?? channelSky(place, steps, channel);
    skies.set(channel, known);
    return known;
  };
  return (
    <div
      ref={box}
      className="h-[calc(100vh-19rem)] min-h-80 overflow-y-auto"
      role="list"
      aria-label={`${lines.length} targets`}
      tabIndex={0}
    >
      <div className="relative" style={{ height: virtualizer.getTotalSize() }}>
        {virtualizer.getVirtualItems().map((item) => {
          const line = lines[item.index]!;
          const walk = walkTarget(
            steps,
            skyOf(line.channel),
            apparentVector(sky, { frame: "icrs", raDeg: line.entry.raDeg, decDeg: line.entry.decDeg }),
          );
          return (
            <div
              key={line.entry.id}
              role="listitem"
              className="border-rule absolute inset-x-0 grid grid-cols-[minmax(0,1fr)_5rem] items-center gap-x-4 border-b sm:grid-cols-[minmax(0,20rem)_minmax(0,1fr)_6.5rem]"
              style={{ top: item.start, height: ROW_PX }}
            >
              <Link
                to={`/targets/${encodeURIComponent(line.entry.id)}${search}`}
                className="block min-w-0 hover:underline"
              >
                <span className="block truncate font-semibold">{entryTitle(line.entry)}</span>
                <span className="text-note text-soft block truncate">{entryFacts(line.entry)}</span>
                <span className="text-note text-faint block truncate">
                  {[
                    fillWords(line.fill),
                    line.mainLossMin < 15
                      ? ""
                      : `${formatMinutes(line.mainLossMin)} lost: ${CAUSE_WORDS[line.mainLoss]}`,
                  ]
                    .filter((w) => w !== "")
                    .join(" · ")}
                </span>
              </Link>
              <div className="hidden sm:block">
                <WorthStrip steps={steps} walk={walk} channel={line.channel} zone={place.timeZone} />
              </div>
              <div className="text-right">
                <p className="font-semibold">{line.usableMin > 0 ? formatMinutes(line.usableMin) : "nothing"}</p>
                <p className="text-note text-soft">
                  {(line.worthMin / 60).toFixed(1)} h worth, {line.channel}
                </p>
              </div>
            </div>
          );
        })}
      </div>
    </div>
  );
}
