import type { SeasonPlan } from "~/core/season";
import type { Drawer } from "./driver";
import type { Cupboard } from "./ports";

/** A settled plan, under the sum of the question it answers. */
export interface KeptPlan {
  readonly sum: string;
  readonly plan: SeasonPlan;
  /** How likely each project is done if it waits, by id; absent where nobody has asked yet. */
  readonly waits?: Readonly<Record<string, number>>;
}

/** Goes up when plans are built differently: what another version left is not read. */
const LAYOUT = 2;
/** Plans kept: the same question has the same plan, whatever was asked in between. */
const MOST = 32;

interface Index {
  readonly layout: number;
  /** Oldest first. */
  readonly sums: readonly string[];
  /** The plan that screens showed last. */
  readonly shown: string | null;
}

const EMPTY: Index = { layout: LAYOUT, sums: [], shown: null };

async function indexOf(store: Drawer): Promise<Index> {
  const raw = (await store.read("index").catch(() => null)) as Partial<Index> | null;
  return raw?.layout === LAYOUT && Array.isArray(raw.sums) ? { ...EMPTY, ...raw } : EMPTY;
}

const nameOf = (sum: string): string => `plan ${sum}`;

const isEvening = (e: unknown): boolean => {
  const { night, placeId, rigIds, blocks } = (e ?? {}) as Record<string, unknown>;
  return typeof night === "string" && typeof placeId === "string" && Array.isArray(rigIds) && Array.isArray(blocks);
};

const areWaits = (waits: unknown): waits is NonNullable<KeptPlan["waits"]> =>
  typeof waits === "object" && waits !== null && Object.values(waits).every((share) => typeof share === "number");

/** A plan from a file, which may be anything; null where it is none that could be begun from. */
export function readKeptPlan(raw: unknown): KeptPlan | null {
  const { sum, plan, waits } = (raw ?? {}) as {
    readonly sum?: unknown;
    readonly plan?: Partial<SeasonPlan>;
    readonly waits?: unknown;
  };
  if (typeof sum !== "string" || !plan || !Array.isArray(plan.evenings) || !Array.isArray(plan.jobs)) return null;
  const isMade = plan.stage === "settled" || (plan.stage === "whole" && Array.isArray(plan.odds));
  return isMade && typeof plan.from === "string" && plan.evenings.every(isEvening)
    ? { sum, plan: plan as SeasonPlan, ...(areWaits(waits) ? { waits } : {}) }
    : null;
}

/** Plans that were made in this browser. */
export interface KeptPlans {
  /** The plan kept for a question; null when there is none that can be read. It can always be made anew. */
  readonly of: (sum: string) => Promise<KeptPlan | null>;
  /** The plan that screens showed last in this browser; null where they never showed one. */
  readonly shown: () => Promise<KeptPlan | null>;
  /** Keeps a plan; `isShown`: it is the one that screens show. That it cannot be written loses nothing. */
  readonly leave: (kept: KeptPlan, isShown: boolean) => Promise<void>;
}

async function write(store: Drawer, kept: KeptPlan, isShown: boolean): Promise<void> {
  const { sum } = kept;
  const index = await indexOf(store);
  const sums = [...index.sums.filter((s) => s !== sum), sum];
  const shown = isShown ? sum : index.shown;
  const old = sums.slice(0, Math.max(0, sums.length - MOST)).filter((s) => s !== shown);
  await store.write(
    new Map<string, unknown>([
      [nameOf(sum), { layout: LAYOUT, ...kept }],
      ["index", { layout: LAYOUT, sums: sums.filter((s) => !old.includes(s)), shown } satisfies Index],
    ]),
  );
  for (const s of old) await store.drop(nameOf(s));
}

/** The plans of a browser. */
export function createKeptPlans({ open }: Pick<Cupboard, "open">): KeptPlans {
  let opened: Promise<Drawer> | null = null;
  const drawer = (): Promise<Drawer> => (opened ??= open("plan"));
  /** One after the other: each reads the index that the one before wrote. */
  let writing: Promise<void> = Promise.resolve();
  const of = async (sum: string): Promise<KeptPlan | null> => {
    const store = await drawer();
    const raw = (await store.read(nameOf(sum)).catch(() => null)) as (KeptPlan & { readonly layout?: number }) | null;
    if (raw?.layout !== LAYOUT || raw.sum !== sum) return null;
    return { sum, plan: raw.plan, ...(raw.waits ? { waits: raw.waits } : {}) };
  };
  return {
    of,
    async shown() {
      const { shown } = await indexOf(await drawer());
      return shown === null ? null : of(shown);
    },
    leave(kept, isShown) {
      const mine = writing.catch(() => undefined).then(async () => write(await drawer(), kept, isShown));
      writing = mine;
      return mine;
    },
  };
}
