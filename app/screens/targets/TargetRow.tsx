import type { Ref } from "react";
import { Link } from "react-router";
import type { Optics } from "~/core/framing";
import type { PlaceNight, Walk } from "~/core/night";
import { firstLayout } from "~/core/plan";
import { SkyPicture } from "~/components/SkyPicture";
import { WorthStrip } from "~/components/charts/WorthStrip";
import { entryFacts, entryTitle, pixelWords } from "~/components/words/target-words";
import type { TargetLine } from "./lines";
import { needWords, rankWords, seasonWords, usableWords, worthWords } from "~/components/words/rank-words";

/** The cells of one target: what it is and why it stands here, its night, usable time, season, and what it needs. */
export function TargetRow({
  line,
  walk,
  night,
  optics,
  to,
  isCurrent,
  onFocus,
  linkRef,
}: {
  readonly line: TargetLine;
  readonly walk: Walk;
  readonly night: PlaceNight;
  /** Of the rig: for sizes in pixels, and the frame a picture would begin with. */
  readonly optics: Optics;
  readonly to: string;
  readonly isCurrent: boolean;
  readonly onFocus: () => void;
  readonly linkRef: Ref<HTMLAnchorElement>;
}) {
  const season = seasonWords(line.season.left, night.date);
  const need = needWords(line);
  return (
    <>
      <div role="gridcell" className="flex min-w-0 items-center gap-3">
        <SkyPicture
          entry={line.entry}
          frame={firstLayout(line.entry, optics)}
          sizePx={56}
          className="hidden md:block"
        />
        <div className="min-w-0">
          <Link
            ref={linkRef}
            to={to}
            tabIndex={isCurrent ? 0 : -1}
            onFocus={onFocus}
            className="block min-w-0 hover:underline"
          >
            <span className="block truncate font-semibold">{entryTitle(line.entry)}</span>
            <span className="text-note text-soft line-clamp-2">
              {[entryFacts(line.entry), pixelWords(line.entry, optics.pixelScaleArcsecPerPx), rankWords(line)]
                .filter((w) => w !== "")
                .join(" · ")}
            </span>
          </Link>
          <p className="text-note text-faint md:hidden">
            {season.short} · {need.hours} {need.nights}
          </p>
        </div>
      </div>
      <div role="gridcell" className="hidden md:block">
        <WorthStrip steps={night.steps} walk={walk} channel={line.channel} zone={night.place.timeZone} />
      </div>
      <div role="gridcell" className="text-right">
        <p className="font-semibold">{usableWords(line)}</p>
        <p className="text-note text-soft">{worthWords(line)}</p>
      </div>
      <div role="gridcell" className="hidden text-right md:block">
        <p className="font-semibold">{season.short}</p>
        <p className="text-note text-soft">{season.date}</p>
      </div>
      <div role="gridcell" className="hidden text-right md:block">
        <p className="font-semibold">{need.hours}</p>
        <p className="text-note text-soft">{need.nights}</p>
      </div>
    </>
  );
}
