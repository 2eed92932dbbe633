import { useState } from "react";
import type { FormStart } from "~/components/forms/drafts";
import { EMPTY_KIT, kindsOf, ownValues, type KitOfKinds, type TypedKit } from "~/components/kit/typed-kit";
import type { Filter, KitPresets, Rig } from "~/core/exposure";
import { KINDS_BOX, POWER_NUMBERS, readKinds, rigTexts } from "./rig-form";

/** A filter as it can be ticked. */
export interface FilterChoice {
  readonly id: string;
  readonly data: Filter;
}

interface RigOfKinds {
  readonly rig: Rig;
  readonly filters: readonly FilterChoice[];
}

/** A rig of kinds, with its owner's own values, and the filters that go with it. */
export type OfKinds = (kit: KitOfKinds, own: Readonly<Record<string, number>>) => RigOfKinds;

/** What a rig is or is not; a new one is what most are. */
const USUALLY = {
  isColour: false,
  isCooled: true,
  isGuided: true,
  flipsAtMeridian: true,
  isAltAz: false,
  isStock: false,
} as const;
export type Tick = keyof typeof USUALLY;

/** No draft has a say. */
const KEPT_START: Pick<FormStart, "texts"> = { texts: (_, kept) => kept };

const ticksOf = (rig: Rig | null, start: Pick<FormStart, "texts">): Readonly<Record<Tick, boolean>> =>
  Object.fromEntries(
    (Object.keys(USUALLY) as Tick[]).map((name) => {
      const isOn = rig ? rig[name] === true : USUALLY[name];
      return [name, start.texts(name, isOn ? ["on"] : []).length > 0];
    }),
  ) as Record<Tick, boolean>;

/** The boxes of a rig's form, and how kinds fill those of a new one. */
export function useRigBoxes(
  stored: Rig | null,
  { start, presets, ofKinds }: { readonly start: FormStart; readonly presets: KitPresets; readonly ofKinds: OfKinds },
) {
  const [kinds, setKinds] = useState<TypedKit>(() => readKinds(start.text(KINDS_BOX, "")) ?? EMPTY_KIT);
  const made = (typed: TypedKit): RigOfKinds | null => {
    const kit = stored ? null : kindsOf(presets, typed);
    return kit && ofKinds(kit, ownValues(presets, typed));
  };
  const [fromKinds, setFromKinds] = useState(() => made(kinds));
  /** What the boxes begin with: what is kept, or what was chosen by kinds. */
  const rig = stored ?? fromKinds?.rig ?? null;
  const [kept, setKept] = useState(() => rigTexts(rig));
  const [texts, setTexts] = useState<Readonly<Record<string, string>>>(() => ({
    ...Object.fromEntries(Object.entries(kept).map(([name, text]) => [name, start.text(name, text)])),
    ...Object.fromEntries(POWER_NUMBERS.map(({ name }) => [name, start.text(name, kept[name] ?? "")])),
  }));
  const [name, setName] = useState(() => start.text("name", rig?.name ?? ""));
  const [ticks, setTicks] = useState<Readonly<Record<Tick, boolean>>>(() => ticksOf(rig, start));
  const [chosen, setChosen] = useState(() => new Set(start.texts("filterIds", rig?.filterIds ?? [])));
  const [rotator, setRotator] = useState(() => start.text("rotator", rig?.rotator ?? "manual"));
  /** Fills the boxes by kinds; what somebody typed over the kinds before stays. */
  const choose = (change: Partial<TypedKit>) => {
    const typed = { ...kinds, ...change };
    setKinds(typed);
    const next = made(typed);
    if (!next) return;
    const texts = rigTexts(next.rig);
    setTexts((now) => ({
      ...now,
      ...Object.fromEntries(Object.keys(texts).flatMap((k) => (now[k] === kept[k] ? [[k, texts[k]!]] : []))),
    }));
    if (name === "" || name === rig?.name) setName(next.rig.name);
    setTicks(ticksOf(next.rig, KEPT_START));
    setChosen(new Set(next.rig.filterIds));
    setRotator(next.rig.rotator);
    setKept(texts);
    setFromKinds(next);
  };
  const isTypical = (name: string) => (rig?.typical ?? []).includes(name) && texts[name] === kept[name];
  const [begunWith] = useState(kinds.camera);
  return {
    rig,
    kinds,
    /** Filters that came with the kinds. */
    came: fromKinds?.filters ?? [],
    name,
    texts,
    ticks,
    chosen,
    rotator,
    isTypical,
    choose,
    rename: setName,
    type: (box: string, text: string) => setTexts({ ...texts, [box]: text }),
    tick: (box: Tick, isOn: boolean) => setTicks({ ...ticks, [box]: isOn }),
    tickFilter: (id: string, isOn: boolean) =>
      setChosen(new Set(isOn ? [...chosen, id] : [...chosen].filter((x) => x !== id))),
    turnBy: setRotator,
    /** A draft knows the settings of the camera it was written with, not those of one chosen since. */
    settingsStart: kinds.camera === begunWith ? start : KEPT_START,
  };
}
