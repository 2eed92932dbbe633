const MARGIN = 0.9; // share of a frame an object may fill
const MOST = 4; // more a side is a sweep, not a mosaic to start with
/** Overlap to begin with: 10–25 % is common practice. */
export const USUAL_OVERLAP = 0.15;

function panelsAlong(length: number, side: number, overlap: number): number {
  if (length <= side * MARGIN) return 1;
  return Math.min(MOST, Math.ceil((length / MARGIN - side) / (side * (1 - overlap))) + 1);
}

/** Panels, 1 to 4 a side, that hold an object with a margin of a tenth when its long axis lies along their width. Same units for all lengths. */
export const panelsFor = (
  object: { readonly major: number; readonly minor: number },
  frame: { readonly width: number; readonly height: number },
  overlap = USUAL_OVERLAP,
): { readonly columns: number; readonly rows: number } => ({
  columns: panelsAlong(object.major, frame.width, overlap),
  rows: panelsAlong(object.minor, frame.height, overlap),
});
