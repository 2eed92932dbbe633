import { useContext, type ReactNode } from "react";
import { Links, Meta, Outlet, Scripts, ScrollRestoration, useRouteLoaderData } from "react-router";
import type { Route } from "./+types/root";
import { NonceContext } from "~/components/nonce";
import { FaultPage } from "~/components/FaultPage";
import { NOT_LOADED } from "~/components/FetchAnew";
import { rescueScript } from "~/offline/rescue";
import { forecastNotice, isOfflineOn, isStatic, nowContext, surveyNames } from "~/server/context.server";
import { ShellLoading } from "~/screens/shell/ShellLoading";
import styles from "./app.css?inline";

/** The path under which the app lies, with its slashes. */
const BASE = import.meta.env.BASE_URL;

const THEMES = ["dusk", "day", "ember"] as const;

export function loader({ request, context }: Route.LoaderArgs) {
  const wanted = /(?:^|;\s*)theme=(\w+)/.exec(request.headers.get("cookie") ?? "")?.[1];
  return {
    nowMs: context.get(nowContext),
    theme: THEMES.find((t) => t === wanted) ?? "dusk",
    isOffline: isOfflineOn(),
    forecast: forecastNotice(),
    surveys: surveyNames().join(" "),
    isStatic: isStatic(),
  };
}

/** The instant and the theme are those of the page that was loaded: the server is not asked again on the way through the app. */
export const shouldRevalidate = () => false;

/** Marks a page that came over plain http from elsewhere: there browsers keep nothing for an app. */
const IS_INSECURE = `if(!isSecureContext)document.documentElement.dataset.insecure=""`;

/** The page that is kept for use without the server was made before anybody chose a theme. */
const THEME_FROM_COOKIE = `document.documentElement.dataset.theme=(document.cookie.match(/(?:^|; )theme=(${THEMES.join("|")})(?:;|$)/)||[])[1]||"dusk"`;

const RESCUE = rescueScript(BASE, NOT_LOADED);

export const meta: Route.MetaFunction = () => [{ title: "Zenithar" }];

export function Layout({ children }: { readonly children: ReactNode }) {
  const data = useRouteLoaderData<typeof loader>("root");
  const nonce = useContext(NonceContext);
  return (
    <html
      lang="en"
      data-theme={data?.theme ?? "dusk"}
      {...(data?.nowMs != null ? { "data-now": data.nowMs } : {})}
      {...(data?.forecast ? { "data-forecast": JSON.stringify(data.forecast) } : {})}
      {...(data?.surveys ? { "data-surveys": data.surveys } : {})}
      {...(data?.isStatic ? { "data-static": "" } : {})}
      {...(data?.isOffline === false ? { "data-offline": "off" } : {})}
      suppressHydrationWarning
    >
      <head>
        <meta charSet="utf-8" />
        <meta name="viewport" content="width=device-width, initial-scale=1" />
        <link rel="icon" href={`${BASE}mark.svg`} type="image/svg+xml" />
        <link rel="apple-touch-icon" href={`${BASE}icon-192.png`} />
        <link rel="manifest" href={`${BASE}app.webmanifest`} />
        {/* In the page itself, before the scripts: it is painted while they come. In the browser it is found by its name and left alone. */}
        <style href="app" precedence="first" nonce={nonce}>
          {import.meta.env.SSR ? styles : ""}
        </style>
        {/* Not a route's: what a screen says of itself takes its place. */}
        <meta name="description" content="Plans imaging nights for backyard astrophotographers." />
        <meta name="theme-color" content="#1c1815" />
        <script
          nonce={nonce}
          suppressHydrationWarning
          dangerouslySetInnerHTML={{ __html: `${THEME_FROM_COOKIE};${IS_INSECURE};${RESCUE}` }}
        />
        <Meta />
        <Links />
      </head>
      <body>
        {children}
        <ScrollRestoration nonce={nonce} />
        <Scripts nonce={nonce} />
      </body>
    </html>
  );
}

export { ShellLoading as HydrateFallback };

export default function Root() {
  return <Outlet />;
}

export function ErrorBoundary({ error }: Route.ErrorBoundaryProps) {
  return <FaultPage error={error} />;
}
