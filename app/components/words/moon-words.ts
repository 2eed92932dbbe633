import type { MoonSchool } from "~/core/night";

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
