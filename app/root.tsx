import { useContext, type ReactNode } from "react";
import { Links, Meta, Outlet, Scripts, ScrollRestoration, useRouteLoaderData } from "react-router";
import type { Route } from "./+types/root";
import { NonceContext } from "~/components/nonce";
import { FaultPage } from "~/components/FaultPage";
import { nowContext } from "~/server/context.server";
import "./app.css";

const THEMES = ["dusk", "day", "ember"] as const;

export function loader({ request, context }: Route.LoaderArgs) {
  const wanted = /(?:^|;\s*)theme=(\w+)/.exec(request.headers.get("cookie") ?? "")?.[1];
  return { nowMs: context.get(nowContext), theme: THEMES.find((t) => t === wanted) ?? "dusk" };
}

/** The instant and the theme are those of the page that was loaded: the server is not asked again on the way through the app. */
export const shouldRevalidate = () => false;

export const meta: Route.MetaFunction = () => [
  { title: "Zenithar" },
  { name: "description", content: "Plans imaging nights for backyard astrophotographers." },
];

export function Layout({ children }: { readonly children: ReactNode }) {
  const data = useRouteLoaderData<typeof loader>("root");
  const nonce = useContext(NonceContext);
  return (
    <html
      lang="en"
      data-theme={data?.theme ?? "dusk"}
      {...(data?.nowMs != null ? { "data-now": data.nowMs } : {})}
      suppressHydrationWarning
    >
      <head>
        <meta charSet="utf-8" />
        <meta name="viewport" content="width=device-width, initial-scale=1" />
        <link rel="icon" href="/mark.svg" type="image/svg+xml" />
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

export default function Root() {
  return <Outlet />;
}

export function ErrorBoundary({ error }: Route.ErrorBoundaryProps) {
  return <FaultPage error={error} />;
}
