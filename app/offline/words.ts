/** Stands in the shell and in its policy where each page gets a nonce of its own. */
export const DROP_IN_NONCE = "nonce-of-this-page";
/** What a tab says to a new version that waits, for it to take over. */
export const TAKE_OVER = "SKIP_WAITING";
/** Stands in the worker where the server names its shell. */
export const SHELL_URL = "/shell/version-of-this-server";
