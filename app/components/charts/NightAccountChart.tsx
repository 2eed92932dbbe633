import type { Cause, NightAccount } from "~/core/night";
import { formatMinutes } from "~/core/notation";
import { CAUSE_WORDS } from "../words";

const ORDER: readonly Exclude<Cause, "none">[] = ["lightSky", "set", "skyline", "low", "moon"];

/** A descending account: sunset to sunrise, then each loss starting where the rest ends, down to exposure. */
export function NightAccountChart({
  account,
  overheadMin,
}: {
  readonly account: NightAccount;
  readonly overheadMin: number;
}) {
  const total = Math.max(1, account.nightMin);
  const losses = [
    ...ORDER.map((c) => ({ word: CAUSE_WORDS[c], minutes: account.lost[c] })),
    { word: "set-up, flip, focus, gaps", minutes: Math.min(overheadMin, account.usableMin) },
  ].filter((l) => l.minutes > 0);
  const starts = losses.map((_, i) => account.nightMin - losses.slice(0, i + 1).reduce((sum, l) => sum + l.minutes, 0));
  const exposureMin = Math.max(0, account.usableMin - overheadMin);
  return (
    <dl className="space-y-1">
      <div>
        <Row word="sunset to sunrise" value={formatMinutes(account.nightMin)} />
        <div className="bg-raised h-2" />
      </div>
      {losses.map((l, i) => (
        <div key={l.word}>
          <Row word={l.word} value={`− ${formatMinutes(l.minutes)}`} isSoft />
          <div className="relative h-2">
            <div
              className="hatch absolute h-full"
              style={{ left: `${(100 * starts[i]!) / total}%`, width: `${(100 * l.minutes) / total}%` }}
            />
          </div>
        </div>
      ))}
      <div>
        <Row word="exposure" value={formatMinutes(exposureMin)} isStrong />
        <div className="bg-lamp h-2.5" style={{ width: `${(100 * exposureMin) / total}%` }} />
      </div>
    </dl>
  );
}

function Row({
  word,
  value,
  isSoft,
  isStrong,
}: {
  readonly word: string;
  readonly value: string;
  readonly isSoft?: boolean;
  readonly isStrong?: boolean;
}) {
  return (
    <div className={`text-note flex justify-between ${isSoft ? "text-soft" : ""} ${isStrong ? "font-bold" : ""}`}>
      <dt>{word}</dt>
      <dd>{value}</dd>
    </div>
  );
}
