/** A text without what XML 1.0 cannot hold: control characters, halves of a pair, and the two that are no character. */
export const printable = (text: string): string =>
  // eslint-disable-next-line no-control-regex -- these are what is taken out
  text.toWellFormed().replaceAll(/[\u0000-\u0008\u000B\u000C\u000E-\u001F\uFFFE\uFFFF]/g, "");
