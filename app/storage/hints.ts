import type { Notes } from "./ports";

/** First explanations that somebody has put away in this browser. */
export interface Hints {
  readonly isRead: (name: string) => boolean;
  readonly markRead: (name: string) => void;
}

/** Where nothing can be stored, none is shown again and again. */
export function createHints(notes: Notes): Hints {
  const canKeep = () => notes.write("hint", "kept");
  return {
    isRead: (name) => notes.read(`hint.${name}`) !== null || !canKeep(),
    markRead: (name) => void notes.write(`hint.${name}`, "read"),
  };
}
