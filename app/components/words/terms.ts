import { HELP, HOUR_WORDS } from "./help";

/** A word of the app, and what it means. */
export interface Term {
  readonly word: string;
  readonly says: string;
}

/** Words that the pages use, one a thing, as one imager would explain them to another. */
const PAGE_TERMS: Readonly<Record<string, string>> = {
  "as kept, by light": "Two ways to count towards a goal: every kept hour as one, or by what it is worth at the project’s reference with the target at its best.",
  "bias frame": "The shortest exposure with the cap on: what the camera adds to every readout.",
  budget: "All goals of a project: hours a panel in every channel, with the length of the subs.",
  "camera angle": "Direction of the frame’s up side on the sky, degrees from north through east. Also called position angle, PA.",
  card: "The picture that tells, beside a finished one, what it was made from.",
  channel: "What a filter records: L all light, R G B colours, Ha OIII SII lines of gas, Colour a bare colour camera, Dual a colour camera behind a dual-band filter.",
  "clear run": "Several clear nights in a row, which a project may wait for.",
  copies: "Two versions of one thing, changed in two places at once: nothing is lost, and you choose.",
  crew: "All who share a project. Everybody keeps their own log; files bring them together.",
  crop: "The rectangle that is cut out of the panels in the end. Panels are only as good as what falls into it.",
  "dark frame": "An exposure with the cap on, as long and as cold as the subs: what warmth alone puts into a pixel.",
  "dark flat": "A dark as long as the flats: takes the bias and the dark current off them.",
  dither: "A small shift between subs. Faults of the sensor fall on other pixels each time, and stacking removes them.",
  eccentricity: "How long a star is one way: 0 round, 0.4 still looks round, 0.6 is plainly long.",
  evening: "What one rig does on one night of the plan.",
  "flat frame": "An exposure of an even light through the same optics: shows dust and how the corners darken.",
  frame: "Where a project points: centre, camera angle and grid of panels. A project can have several.",
  FWHM: "How wide a star is at half of its brightness, in pixels or arcseconds: smaller is sharper.",
  goal: "Hours wanted for a panel in a channel.",
  "idle night": "A night that the plan has no use for though you are free.",
  kit: "Places, rigs and filters: what everything else is computed from.",
  landmark: "Something named on the skyline: a tree, a shed, a chimney.",
  lock: "A night, a place or a project that you keep or rule out by hand. The plan works round it.",
  loom: "The drawing of a project as threads: a column a panel, a band a channel, each cell filling to its goal.",
  "meridian flip": "Past due south (due north in the southern hemisphere) an equatorial mount swaps sides. Nothing is exposed meanwhile.",
  mosaic: "A picture of several panels, joined in the end.",
  night: "From noon to noon, named by the date of its evening.",
  panel: "One pointing of a mosaic, called P1, P2 … from the top left of the frame.",
  part: "Your own share of a project: the place, rig and frame you shoot it with, and the channels you promised.",
  "plan, season": "What all your rigs do on the coming 180 nights. It is made anew when something changes, and stays as it was where a change is not worth it.",
  "pooled chance": "One chance of a clear hour from all forecasts, each weighed by how right it was here before.",
  reference: "The place, rig and frame that hours of everybody are told for.",
  "reference frame": "The frame by which the others of a project are measured. A tighter one covers only a part of it.",
  reserve: "A planned night that is wanted only if others are clouded out.",
  rig: "A telescope or lens with its camera, filters and mount.",
  "run sheet": "One night by the clock: what to do when.",
  seam: "Where two panels overlap.",
  shelf: "Calibration frames you have at hand, and for which settings they serve.",
  "signal to noise": "How far something stands out of the grain, SNR. Four times the hours double it.",
  skyline: "The line of what hides the sky around a place: trees, roofs, hills.",
  "solved exposure": "One in which a program has found the stars: it tells where the camera points, how it is turned and how large a pixel is.",
  step: "An edge in a picture along which depth jumps, since other hours went into the two sides. It shows from about a fifth more noise on.",
  stretch: "A part of an evening that one rig spends on one project in one channel.",
  sub: "One exposure. Many are stacked to a picture.",
  teeth: "Short strokes along a step on the map of depth: they point to the side that is shallow, or empty.",
  transparency: "How much light the air lets through: haze and thin cloud take it, with steady stars.",
  "usable": "Dark enough for the channel, above your skyline and lowest altitude, and with the Moon as your rule allows.",
  verdict: "Whether to go out tonight, with the reasons, and what would change it.",
  worth: "What a minute gives, against the same minute with the target at its best and no Moon. Four minutes worth a quarter give as much as one.",
}; // prettier-ignore

const asTerms = (from: Readonly<Record<string, string>>): readonly Term[] =>
  Object.entries(from).map(([word, says]) => ({ word, says }));

/** All that is explained anywhere, in the order of the alphabet: words of the pages, kinds of hour, boxes of forms. */
export const TERMS: readonly Term[] = [
  ...new Map(
    [...asTerms(HELP), ...asTerms(HOUR_WORDS), ...asTerms(PAGE_TERMS)].map((t) => [t.word.toLowerCase(), t]),
  ).values(),
].sort((a, b) => a.word.localeCompare(b.word, "en"));

/** What a word means. Throws where the glossary does not have it: a fault of the page that asks. */
export function termOf(word: string): Term {
  const term = TERMS.find((t) => t.word.toLowerCase() === word.toLowerCase());
  if (!term) throw new Error(`the glossary has no “${word}”`);
  return term;
}
