import type { Notes } from "./ports";

/** Which picture of the sky lies under charts in this browser, and how it is shown. */
export interface SurveyChoice {
  /** The survey's name on the server; "" = none. */
  readonly id: string;
  /** −1 to 1, 0 as it is. */
  readonly brightness: number;
  readonly contrast: number;
}

const NOTE = "survey";
const NONE: SurveyChoice = { id: "", brightness: 0, contrast: 0 };
const isShare = (v: unknown): v is number => typeof v === "number" && v >= -1 && v <= 1;

/** Reads and writes the choice; what does not read is none. */
export function createSurveyChoice(notes: Notes): {
  readonly read: () => SurveyChoice;
  readonly write: (choice: SurveyChoice) => void;
} {
  return {
    read() {
      try {
        const { id, brightness, contrast } = JSON.parse(notes.read(NOTE) ?? "{}") as Partial<SurveyChoice>;
        return {
          id: typeof id === "string" ? id : "",
          brightness: isShare(brightness) ? brightness : 0,
          contrast: isShare(contrast) ? contrast : 0,
        };
      } catch {
        return NONE;
      }
    },
    write: (choice) => void notes.write(NOTE, JSON.stringify(choice)),
  };
}
