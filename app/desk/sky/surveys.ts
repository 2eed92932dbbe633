import type { Survey, SurveyLook } from "~/core/survey";
import { slot, type Desk } from "~/desk/desk";
import { createSurveyChoice } from "~/storage/survey-choice";
import type { SurveyRefusal } from "~/workers/survey";

export type { SurveyChoice } from "~/storage/survey-choice";
export type { KeptTiles, SurveyRefusal } from "~/workers/survey";

/** A survey that this app's server hands on: what it says of itself, or why it cannot be shown. */
export interface SurveyHere {
  readonly id: string;
  readonly survey: Survey | null;
  readonly refusal: SurveyRefusal | null;
  /** Made by the app itself: called so wherever it shows. */
  readonly isSimulated: boolean;
}

const asked = slot(() => new Map<string, Promise<SurveyHere>>());

/** What a survey says of itself, asked once; one that was silent is asked anew. */
export function surveyHere(desk: Desk, id: string): Promise<SurveyHere> {
  const known = desk.at(asked);
  const found = known.get(id);
  if (found) return found;
  const answer = desk.workers.survey.facts(id).then((facts): SurveyHere => {
    const isSimulated = id === "simulated";
    if (facts.ok) return { id, survey: facts.value, refusal: null, isSimulated };
    if (facts.error.code === "silent") known.delete(id);
    return { id, survey: null, refusal: facts.error, isSimulated };
  });
  known.set(id, answer);
  answer.catch(() => known.delete(id));
  return answer;
}

/** How a picture is coloured in a theme: in Ember red only; by day dark on light, so that lines and words stay readable on it. */
export const surveyInk = (theme: string): SurveyLook["ink"] =>
  theme === "ember" ? "red" : theme === "day" ? "onLight" : "own";

/** Which picture lies under charts, remembered in this browser. */
export const theSurveyChoice = slot(({ cupboard }) => createSurveyChoice(cupboard.notes));
