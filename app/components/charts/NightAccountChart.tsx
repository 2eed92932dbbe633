import type { ReactNode } from "react";
import type { Cause, NightAccount } from "~/core/night";
import { formatMinutes } from "~/core/notation";
import { CAUSE_WORDS } from "../words/log-words";

const ORDER: readonly Exclude<Cause, "none">[] = ["lightSky", "set", "skyline", "low", "moon", "lamp"];

/** A descending account: sunset to sunrise, then each loss starting where the rest ends, down to exposure. */
export function NightAccountChart({
  account,
  overheadMin = 0,
}: {
  readonly account: NightAccount;
  /** Clock time within the usable part that is not exposure; without it the account ends at usable time. */
  readonly overheadMin?: number;
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
      <Row word="sunset to sunrise" value={formatMinutes(account.nightMin)}>
        <span className="bg-raised block h-2" />
      </Row>
      {losses.map((l, i) => (
        <Row key={l.word} word={l.word} value={`− ${formatMinutes(l.minutes)}`} look="text-soft">
          <span
            className="hatch block h-2"
            style={{ marginLeft: `${(100 * starts[i]!) / total}%`, width: `${(100 * l.minutes) / total}%` }}
          />
        </Row>
      ))}
      <Row word={overheadMin > 0 ? "exposure" : "usable"} value={formatMinutes(exposureMin)} look="font-bold">
        <span className="bg-lamp block h-2.5" style={{ width: `${(100 * exposureMin) / total}%` }} />
      </Row>
    </dl>
  );
}

/** A term of the account, its time, and its bar. */
function Row({
  word,
  value,
  look,
  children,
}: {
  readonly word: string;
  readonly value: string;
  readonly look?: string;
  readonly children: ReactNode;
}) {
  return (
    <div className={`text-note grid grid-cols-[1fr_auto] ${look ?? ""}`}>
      <dt>{word}</dt>
      <dd>{value}</dd>
      <dd className="col-span-2" aria-hidden="true">
        {children}
      </dd>
    </div>
  );
}
