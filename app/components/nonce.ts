import { createContext } from "react";

/** The nonce of the page while the server renders it; in the browser, where scripts already run, there is none. */
export const NonceContext = createContext<string | undefined>(undefined);
