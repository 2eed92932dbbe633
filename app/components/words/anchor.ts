/** "camera-angle": where a word stands on the glossary. */
export const anchorOf = (word: string): string =>
  word
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, "-")
    .replace(/^-|-$/g, "");
