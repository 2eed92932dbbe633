const AFTER_MS = 4000;
/** Between two files, so that what a person asks for comes first. */
const PAUSE_MS = 15;

/**
 * Fetches what other screens will need, once the page has been quiet for a while: then they open without the server too. The
 * files bear the hash of their contents and are kept by the browser for good, so it is done once a version of the app.
 */
export function fetchAhead(): () => void {
  const stop = new AbortController();
  const { connection } = navigator as { readonly connection?: { readonly saveData?: boolean } };
  const timer = setTimeout(() => {
    if (!connection?.saveData) void fetchAll(stop.signal);
  }, AFTER_MS);
  return () => {
    clearTimeout(timer);
    stop.abort();
  };
}

async function fetchAll(signal: AbortSignal): Promise<void> {
  const options: RequestInit = { signal, priority: "low" };
  try {
    const text = await (await fetch("/assets.json", options)).text();
    if (recall() !== text) {
      await fetchEach(JSON.parse(text) as unknown, options);
      remember(text);
    }
    document.documentElement.dataset["ahead"] = "done";
  } catch {
    // The server went away meanwhile, or this is a development build without a list: screens are fetched when they are opened.
  }
}

async function fetchEach(list: unknown, options: RequestInit): Promise<void> {
  const urls = Array.isArray(list) ? list.filter((url): url is string => typeof url === "string") : [];
  for (const url of urls) {
    const { body } = await fetch(url, options);
    await body?.pipeTo(new WritableStream()); // into the browser's cache, not into memory
    await new Promise((resolve) => setTimeout(resolve, PAUSE_MS));
  }
}

/** The list that was fetched last in this browser: with the same one, everything is there already. */
const KEY = "zenithar.fetched-ahead";
function recall(): string | null {
  try {
    return localStorage.getItem(KEY);
  } catch {
    return null;
  }
}
function remember(text: string): void {
  try {
    localStorage.setItem(KEY, text);
  } catch {
    // Fetched again next time, from the browser's own cache.
  }
}
