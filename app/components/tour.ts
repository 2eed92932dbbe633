/** Four steps round the app, in the order of the work; what is not on the page at its size is left out. */
const STEPS: readonly { readonly at: string; readonly title: string; readonly words: string }[] = [
  {
    at: "[data-tour=ribbon]",
    title: "The nights to come",
    words:
      "Each column is a night: black is dark, pale is moonlit, green the chance of a clear sky. The one you choose governs every screen.",
  },
  {
    at: "nav[aria-label=Stations]",
    title: "Stations, in the order of the work",
    words:
      "Tonight says whether to go. Targets and Projects are what you shoot, Season when, Nights the sheet to take out, Log what came of it, Kit what all of it is computed from.",
  },
  {
    at: "main h1",
    title: "Sentences first",
    words:
      "Every screen begins with its answer. A dotted line under a number opens what went in and how sure it is; a ? beside a box says what the word means.",
  },
  {
    at: "[data-tour=tools]",
    title: "Search, light, keys",
    words:
      "Search finds anything by name. Day, Dusk and Ember set the light: Ember is red only, for dark-adapted eyes. Keys lists what the keyboard does.",
  },
];

/** Takes somebody round the page they are on. */
export async function showRound(): Promise<void> {
  const [{ driver }] = await Promise.all([import("driver.js"), import("driver.js/dist/driver.css")]);
  const seen = STEPS.filter(({ at }) =>
    [...document.querySelectorAll<HTMLElement>(at)].some((e) => e.checkVisibility()),
  );
  driver({
    popoverClass: "tour",
    animate: false,
    showProgress: true,
    progressText: "{{current}} of {{total}}",
    nextBtnText: "Next",
    prevBtnText: "Back",
    doneBtnText: "Done",
    overlayOpacity: 0.55,
    steps: seen.map(({ at, title, words }) => ({
      element: () => [...document.querySelectorAll<HTMLElement>(at)].find((e) => e.checkVisibility())!,
      popover: { title, description: words },
    })),
  }).drive();
}
