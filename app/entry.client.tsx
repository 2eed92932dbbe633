import { setNonce } from "get-nonce";
import { StrictMode, startTransition } from "react";
import { hydrateRoot } from "react-dom/client";
import { HydratedRouter } from "react-router/dom";

// Style sheets that dialogs insert while they are open need the page's nonce under the Content-Security-Policy.
setNonce(document.querySelector<HTMLScriptElement>("script[nonce]")?.nonce ?? "");

startTransition(() => {
  hydrateRoot(
    document,
    <StrictMode>
      <HydratedRouter />
    </StrictMode>,
  );
});
