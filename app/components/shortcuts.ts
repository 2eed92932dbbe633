/** Keys that work everywhere or on a chart: the one table that listens and that the sheet of keys shows. */
export const SHORTCUTS = {
  search: { keys: "Ctrl K", words: "Search everywhere", key: "k", isCtrl: true },
  nightBefore: { keys: "[", words: "The night before", key: "[" },
  nightAfter: { keys: "]", words: "The night after", key: "]" },
  tonight: { keys: "T", words: "Back to tonight's date", key: "t" },
  help: { keys: "?", words: "This sheet", key: "?" },
  undo: { keys: "Ctrl Z", words: "In Frame and skyline: undo", key: "z", isCtrl: true },
  redo: { keys: "Ctrl Shift Z", words: "In Frame and skyline: do it again", key: "z", isCtrl: true, isShift: true },
  nudge: { keys: "Arrows", words: "In the chart: nudge the frame by 1′ (with Shift 10′)" },
  turn: { keys: ", and .", words: "In the chart: turn the frame by 1° (with Shift 0.1°)" },
  zoom: { keys: "+ and −", words: "In the chart: closer, wider" },
  picture: { keys: "P", words: "In Frame: the picture of the sky on and off", key: "p" },
  leaf: { keys: "Arrows", words: "In the season: from night to night, Enter opens it" },
} as const satisfies Readonly<Record<string, Shortcut>>;

interface Shortcut {
  readonly keys: string;
  readonly words: string;
  readonly key?: string;
  readonly isCtrl?: boolean;
  readonly isShift?: boolean;
}

interface KeyPress {
  readonly key: string;
  readonly ctrlKey: boolean;
  readonly metaKey: boolean;
  readonly altKey: boolean;
  readonly shiftKey: boolean;
  readonly target: EventTarget | null;
}

const TYPED_IN = "input, textarea, select, [role=dialog]";

/** Whether somebody is typing, so that letters are letters. */
export const isTyping = (event: Pick<KeyPress, "target">): boolean =>
  event.target instanceof Element && event.target.closest(TYPED_IN) !== null;

/** Whether a key press is a shortcut; Shift matters only where the table says so. */
export function isShortcut(event: KeyPress, name: keyof typeof SHORTCUTS): boolean {
  const { key, isCtrl, isShift } = SHORTCUTS[name] as Shortcut;
  const isHeld = event.ctrlKey || event.metaKey;
  return (
    key !== undefined &&
    !event.altKey &&
    isHeld === (isCtrl ?? false) &&
    (!isCtrl || event.shiftKey === (isShift ?? false)) &&
    event.key.toLowerCase() === key
  );
}
