import Papa from "papaparse";
import { shortNight } from "~/components/clock";
import { counted, fixed, percent } from "~/components/numbers";
import { printable, spreadsheetCell } from "~/core/formats";
import { formatHoursMinutes } from "~/core/notation";
import type { AcquisitionCard } from "~/core/ledger";

/** A line of a card: what it is of, and what it says. */
export interface CardLine {
  readonly head: string;
  readonly words: string;
}

const day = (night: string): string => `${shortNight(night).slice(4)} ${night.slice(0, 4)}`;

/** A name in one line, without letters that no program shows. */
const oneLine = (text: string): string => printable(text).replaceAll(/\s+/g, " ").trim();

/** A card in lines, as it is shown, drawn and written. */
export function cardLines(card: AcquisitionCard): CardLine[] {
  const { first, last } = card;
  if (first === null || last === null) return [];
  const when = first === last ? day(first) : `${day(first)} to ${day(last)}`;
  const lines = [
    {
      head: "Exposure",
      words: `${formatHoursMinutes(card.hours)}, ${counted(card.subs, "sub")}${card.panels > 1 ? ` over ${card.panels} panels` : ""}`,
    },
    ...card.channels.map((c) => ({
      head: c.channel,
      words: `${c.sets.map((s) => `${fixed(s.subs)} × ${s.exposureSec} s`).join(", ")}: ${formatHoursMinutes(c.hours)}`,
    })),
    { head: "Nights", words: `${counted(card.nights, "night")}, ${when}` },
    ...card.members.map((m) => ({
      head: m.name,
      words: `${formatHoursMinutes(m.hours)} (${m.channels.map((c) => `${c.channel} ${formatHoursMinutes(c.hours)}`).join(", ")}) with ${m.kit.join(" and ")}, ${m.places.map((p) => (p.skyMagPerArcsec2 === null ? p.name : `${p.name}, ${fixed(p.skyMagPerArcsec2, 1)} mag/arcsec²`)).join("; ")}`,
    })),
    ...(card.moon === null ? [] : [{ head: "Moon", words: `${percent(card.moon)} lit on average over the subs` }]),
  ];
  return lines.map(({ head, words }) => ({ head: oneLine(head), words: oneLine(words) }));
}

/** The card as plain text. */
export const cardAsText = (title: string, card: AcquisitionCard): string =>
  [oneLine(title), "", ...cardLines(card).map((l) => `${l.head}: ${l.words}`), ""].join("\n");

/** As Markdown: letters that would mean something there are written as they are. */
export const cardAsMarkdown = (title: string, card: AcquisitionCard): string => {
  const plain = (s: string) => s.replaceAll(/([\\`*_{}[\]<>#|])/g, "\\$1");
  return [
    `## ${plain(oneLine(title))}`,
    "",
    ...cardLines(card).map((l) => `- **${plain(l.head)}** ${plain(l.words)}`),
    "",
  ].join("\n");
};

/** As CSV: a row a channel, sub length and member would be the log; this is the card's own rows. */
export const cardAsCsv = (title: string, card: AcquisitionCard): string =>
  Papa.unparse(
    [["picture", oneLine(title)], ...cardLines(card).map((l) => [l.head, l.words])].map((row) =>
      row.map(spreadsheetCell),
    ),
    { newline: "\r\n" },
  );
