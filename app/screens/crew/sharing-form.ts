import { trimmed } from "~/components/numbers";
import type { Channel } from "~/core/exposure";
import { parseNumber } from "~/core/notation";
import { SHARING_WAYS, type SharingRules, type SharingWay } from "~/core/plan";
import { SHARING_FIELDS } from "~/core/records";

/** What is typed, as texts. */
export interface TypedSharing {
  readonly rev: string;
  readonly way: SharingWay;
  readonly floor: number;
  readonly hours: Readonly<Record<string, string>>;
  readonly hand: Readonly<Record<string, string>>;
  readonly ratio: string;
}

/** The name of a box: a member in a channel. */
export const cellName = (memberId: string, channel: Channel) => `${memberId}|${channel}`;

/** What is kept, as texts. */
export const typedSharing = (rev: string, rules: SharingRules): TypedSharing => ({
  rev,
  way: rules.way,
  floor: rules.floor ?? 0,
  hours: Object.fromEntries(Object.entries(rules.hours ?? {}).map(([id, h]) => [id, trimmed(h)])),
  hand: Object.fromEntries(
    Object.entries(rules.hand ?? {}).flatMap(([id, of]) =>
      (Object.entries(of) as [Channel, number][]).map(([channel, h]) => [cellName(id, channel), trimmed(h)]),
    ),
  ),
  ratio: (rules.ratio ?? []).map(trimmed).join(":"),
});

const isTexts = (v: unknown): v is Readonly<Record<string, string>> =>
  typeof v === "object" && v !== null && Object.values(v).every((x) => typeof x === "string");

/** Whether something written down is still a draft of it; null = it is not. */
export function readTypedSharing(raw: unknown): TypedSharing | null {
  const { rev, way, floor, hours, hand, ratio } = (
    typeof raw === "object" && raw !== null ? raw : {}
  ) as Partial<TypedSharing>;
  const known = SHARING_WAYS.find((w) => w === way);
  if (typeof rev !== "string" || !known || typeof floor !== "number" || typeof ratio !== "string") return null;
  return isTexts(hours) && isTexts(hand) ? { rev, way: known, floor, hours, hand, ratio } : null;
}

/** "3:4:4" as numbers; null where it does not read, undefined where it is empty. */
export function readRatio(text: string, count: number): readonly number[] | null | undefined {
  if (text.trim() === "") return undefined;
  const parts = text.split(":").map((t) => parseNumber(t));
  const isRight = parts.length === count && parts.every((p) => p !== null && p >= 0 && p <= SHARING_FIELDS.ratio.max);
  return isRight && parts.some((p) => p! > 0) ? (parts as number[]) : null;
}

/** Boxes in the order of their names, whoever came first. */
const inOrder = (texts: Readonly<Record<string, string>>) =>
  Object.entries(texts).sort(([a], [b]) => a.localeCompare(b, "en"));

const said = ({ way, floor, hours, hand, ratio }: TypedSharing): string =>
  JSON.stringify([way, floor, inOrder(hours), inOrder(hand), ratio]);

/** Whether two drafts say the same, upon whatever version. */
export const isSameSharing = (a: TypedSharing, b: TypedSharing): boolean => said(a) === said(b);

/** What a draft that reads says. */
export function rulesOf(typed: TypedSharing, members: readonly string[], channels: readonly Channel[]): SharingRules {
  const number = (text: string | undefined) => (text === undefined || text.trim() === "" ? null : parseNumber(text));
  const filled = <K extends string>(keys: readonly K[], of: (key: K) => number | null) =>
    Object.fromEntries(keys.flatMap((k) => (of(k) === null ? [] : [[k, of(k)!]]))) as Partial<Record<K, number>>;
  const hours = filled(members, (id) => number(typed.hours[id])) as Record<string, number>;
  const ratio = readRatio(typed.ratio, channels.length);
  const hand = Object.fromEntries(
    members.map((id) => [id, filled(channels, (c) => number(typed.hand[cellName(id, c)]))]),
  );
  return {
    way: typed.way,
    ...(typed.floor > 0 ? { floor: typed.floor } : {}),
    ...(Object.keys(hours).length > 0 ? { hours } : {}),
    ...(typed.way === "hand" ? { hand } : {}),
    ...(ratio ? { ratio } : {}),
  };
}
