import { setNonce } from "get-nonce";
import { StrictMode, startTransition } from "react";
import { hydrateRoot } from "react-dom/client";
import { matchRoutes, RouterContextProvider, type RouteObject } from "react-router";
import { HydratedRouter } from "react-router/dom";
import { deskContext, DeskContext, deskOfThisTab } from "./at-desk";
import { isInRing, wasGoing } from "./offline/rescue";

// Style sheets that dialogs insert while they are open need the page's nonce under the Content-Security-Policy.
setNonce(document.querySelector<HTMLScriptElement>("script[nonce]")?.nonce ?? "");

/** Takes the page over. */
function begin() {
  const desk = deskOfThisTab();
  startTransition(() => {
    hydrateRoot(
      document,
      <StrictMode>
        <DeskContext value={desk}>
          <HydratedRouter getContext={() => new RouterContextProvider(new Map([[deskContext, desk]]))} />
        </DeskContext>
      </StrictMode>,
    );
  });
}

/** What the router writes into every page: its routes, each with its script. */
interface RouteList {
  readonly routes: Readonly<
    Record<
      string,
      {
        readonly id: string;
        readonly parentId?: string;
        readonly path?: string;
        readonly index?: boolean;
        readonly module: string;
      }
    >
  >;
}

/** The scripts of the screens at an address, from the list of all that the page carries. */
function screensAt(pathname: string): readonly string[] {
  const list = (window as { readonly __reactRouterManifest?: RouteList }).__reactRouterManifest;
  const routes = Object.values(list?.routes ?? {});
  const under = (parentId: string | undefined): RouteObject[] =>
    routes
      .filter((route) => route.parentId === parentId)
      .map(({ id, path, index, module }) =>
        index ? { id, index, handle: module } : { id, ...(path ? { path } : {}), handle: module, children: under(id) },
      );
  const screens = matchRoutes(under(undefined), pathname, import.meta.env.BASE_URL) ?? [];
  return screens.map(({ route }) => String(route.handle));
}

/**
 * Takes the page over, unless a screen of it does not load: the router then loads the page anew and says nothing, at once or as soon as
 * one goes there. Where pages come round and round, or one was going somewhere, the screens in question are tried first.
 */
async function beginIfWhole() {
  const going = wasGoing(sessionStorage);
  const asked = isInRing(sessionStorage, Date.now()) ? location.pathname : going;
  if (asked === null) return begin();
  const tried = await Promise.allSettled(screensAt(asked).map((url) => import(/* @vite-ignore */ url)));
  if (tried.every((one) => one.status === "fulfilled")) return begin();
  document.documentElement.dataset["unloaded"] = "";
}

// Over plain http from elsewhere a browser gives an app neither names nor a place to keep things: the page as it came says so.
if (isSecureContext) void beginIfWhole();
