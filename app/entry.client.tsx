import { setNonce } from "get-nonce";
import { StrictMode, startTransition } from "react";
import { hydrateRoot } from "react-dom/client";
import { RouterContextProvider } from "react-router";
import { HydratedRouter } from "react-router/dom";
import { deskContext, DeskContext, deskOfThisTab } from "./at-desk";

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

// Over plain http from elsewhere a browser gives an app neither names nor a place to keep things: the page as it came says so.
if (isSecureContext) begin();
