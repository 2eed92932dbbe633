/** How many files are on their way at once: few, so that what a person asks for comes first. */
const AT_ONCE = 3;
const AFTER_MS = 4000;

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
    const list = (await (await fetch("/assets.json", options)).json()) as unknown;
    const urls = Array.isArray(list) ? list.filter((url): url is string => typeof url === "string") : [];
    const next = async (): Promise<void> => {
      for (let url = urls.pop(); url !== undefined; url = urls.pop()) await (await fetch(url, options)).arrayBuffer();
    };
    await Promise.all(Array.from({ length: AT_ONCE }, next));
    document.documentElement.dataset["ahead"] = "done";
  } catch {
    // The server went away meanwhile, or this is a development build without a list: screens are fetched when they are opened.
  }
}
