import type { Linter } from "eslint";

/** Folders of screens, under app/screens. */
export const SCREENS: readonly string[];
/** Who may take in what, as blocks of the lint's configuration. */
export const fences: Linter.Config[];
