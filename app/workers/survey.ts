import { proxy } from "comlink";
import type { Result } from "~/core/result";
import type { Survey } from "~/core/survey";
import { client, orAborted } from "./client";
import type { KeptTiles } from "./survey-tiles";
import type {
  FieldToKeep,
  PictureAsked,
  SmallPictureAsked,
  SurveyApi,
  SurveyPicture,
  SurveyRefusal,
} from "./survey.worker";

export type { KeptTiles } from "./survey-tiles";
export type { SurveyRefusal } from "./survey.worker";

/** Pictures of the sky out of surveys, off the main thread. Rejects with `NotStarted` where the worker does not load. */
export interface SurveyClient {
  /** What a survey says of itself. */
  readonly facts: (id: string) => Promise<Result<Survey, SurveyRefusal>>;
  /** Draws a picture, coarse first; each that is heard is the hearer's to close. A new question of the same use ends the last: false. */
  readonly picture: (
    use: string,
    asked: PictureAsked,
    hear: (picture: SurveyPicture) => void,
  ) => Promise<Result<boolean, { readonly code: "silent" }>>;
  /** A small picture, as it is kept, else made; null = the survey it is to be made from is silent. What it takes to make it is asked for only then. */
  readonly small: (name: string, asked: () => Promise<Omit<SmallPictureAsked, "name">>) => Promise<Blob | null>;
  /** Ends what was asked for a use. */
  readonly stop: (use: string) => void;
  /** Fetches a part of the sky to be kept; how many files it takes. */
  readonly keep: (
    field: FieldToKeep,
    signal: AbortSignal,
    onProgress: (share: number) => void,
  ) => Promise<Result<number, { readonly code: "silent" }>>;
  readonly kept: () => Promise<KeptTiles>;
  readonly forget: () => Promise<void>;
}

/** Started by the first question. */
export function createSurveyClient(): SurveyClient {
  const { ask, tell } = client<SurveyApi>(
    () => new Worker(new URL("./survey.worker.ts", import.meta.url), { type: "module" }),
  );
  return {
    facts: (id) => ask(async (api) => await api.facts(id)),
    picture: (use, asked, hear) => ask(async (api) => await api.picture(use, asked, proxy(hear))),
    async small(name, asked) {
      const kept = await ask(async (api) => await api.smallKept(name));
      if (kept) return kept;
      const question = await asked();
      return ask(async (api) => await api.small({ ...question, name }));
    },
    stop: (use) => tell((api) => api.stop(use)),
    keep(field, signal, onProgress) {
      const stop = () => tell((api) => api.stop("keep"));
      signal.addEventListener("abort", stop, { once: true });
      const answer = ask(async (api) => await api.keep(field, proxy(onProgress)));
      return orAborted(answer, signal).finally(() => signal.removeEventListener("abort", stop));
    },
    kept: () => ask((api) => api.kept()),
    forget: () => ask((api) => api.forget()),
  };
}
