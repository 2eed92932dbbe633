import type { MoonSchool, TwilightSchool } from "~/core/night";

/** The three ways to take the Moon, in words. */
export const MOON_SCHOOL_WORDS: Readonly<Record<MoonSchool, { readonly name: string; readonly about: string }>> = {
  count: {
    name: "count it",
    about: "A minute is used while the Moon leaves it at least a share of its moonless worth; lists say what it costs.",
  },
  keepAway: {
    name: "keep away",
    about: "A minute is used when the target stands far enough from the Moon, by its phase.",
  },
  noMoon: { name: "no Moon up", about: "Only minutes with the Moon below the horizon are used." },
};

/** The ways to take twilight, in words. */
export const TWILIGHT_WORDS: Readonly<Record<TwilightSchool, { readonly name: string; readonly about: string }>> = {
  count: {
    name: "count it",
    about:
      "Twilight is sky like moonlight: a minute is used while it leaves half of its worth. In a city an hour more each side; under a dark sky nothing changes.",
  },
  below18: { name: "Sun below −18°", about: "Only astronomical darkness. In summer there is none north of 48.5°." },
  below15: { name: "Sun below −15°", about: "A compromise for narrow bands." },
  below12: { name: "Sun below −12°", about: "From the end of nautical twilight, for stars and bright objects." },
};
