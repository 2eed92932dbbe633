import { createHash, randomBytes } from "node:crypto";
import { readFileSync } from "node:fs";
import { createServer } from "node:http";
import { createRequestHandler } from "@react-router/express";
import compression from "compression";
import express, { type NextFunction, type Request, type Response } from "express";
import expressStaticGzip from "express-static-gzip";
import helmet from "helmet";
import { createRequestHandler as createPageHandler, type RouterContextProvider, type ServerBuild } from "react-router";
import { pagePolicy } from "./app/offline/policy";
import { DROP_IN_NONCE, SHELL_URL } from "./app/offline/words";

/** Serves the built app: assets precompressed and immutable, pages under a strict Content-Security-Policy with a nonce. */
const PORT = Number(process.env["PORT"] ?? 4173);
const HOST = process.env["HOST"] ?? "127.0.0.1";
const CLIENT = new URL("./build/client", import.meta.url).pathname;

/** The bundle has its own copies of everything, so it also makes the context that its loaders read. */
type AppEntry = ServerBuild["entry"]["module"] & { readonly requestContext: (nonce: string) => RouterContextProvider };

const SERVER_BUNDLE = new URL("./build/server/index.js", import.meta.url);
const build = (await import(SERVER_BUNDLE.href)) as ServerBuild;
const { requestContext } = build.entry.module as AppEntry;
const app = express();
app.disable("x-powered-by");

/** One line in the log for a fault; never a stack, never what the request held. */
const logFault = (what: string) => console.error(`${new Date().toISOString()} ${what}`);

/**
 * The page that the service worker keeps and answers every address with; each page it gives out gets a nonce of its own. Its address
 * names what it was made from, so that a server of another version is never asked for it in vain.
 */
const version = createHash("sha256")
  .update(readFileSync(SERVER_BUNDLE))
  .update(
    ["ZENITHAR_DEMO_NOW", "ZENITHAR_EDR_URL", "ZENITHAR_EDR_NAME", "ZENITHAR_EDR_CREDIT", "ZENITHAR_HIPS"]
      .map((name) => process.env[name] ?? "")
      .join("\n"),
  )
  .digest("hex")
  .slice(0, 16);
const shellUrl = `/shell/${version}`;
let shell: Promise<string> | null = null;
/** The shell, made once; one that failed is made anew for the next who asks. */
const shellPage = () =>
  (shell ??= createPageHandler({ ...build, ssr: false, prerender: [] }, "production")(
    new globalThis.Request("http://localhost/"),
    requestContext(DROP_IN_NONCE),
  )
    .then((page) => {
      if (page.status !== 200) throw new Error(`the shell came out as ${page.status}`);
      return page.text();
    })
    .catch((error: unknown) => {
      shell = null;
      throw error;
    }));

app.use((req: Request, res: Response, next: NextFunction) => {
  res.locals["nonce"] = req.path === shellUrl ? DROP_IN_NONCE : randomBytes(16).toString("base64");
  next();
});
const nonce = (_req: unknown, res: unknown) => `'nonce-${(res as Response).locals["nonce"] as string}'`;
app.use(
  helmet({
    contentSecurityPolicy: {
      useDefaults: false,
      directives: {
        ...pagePolicy({ scripts: [nonce], styles: [nonce], reaches: [] }),
        "frame-ancestors": ["'none'"],
      },
    },
    referrerPolicy: { policy: "no-referrer" },
    xFrameOptions: { action: "deny" }, // as frame-ancestors has it
    strictTransportSecurity: false, // the front that terminates TLS decides
  }),
);
app.use((_req, res, next) => {
  res.set("Permissions-Policy", "camera=(self), geolocation=(self), microphone=(), payment=(), usb=()");
  next();
});

const METHODS = ["GET", "HEAD"];
const HOST_NAME = /^[A-Za-z0-9.-]+(?::\d{1,5})?$|^\[[0-9A-Fa-f:.]+\](?::\d{1,5})?$/;
/** Whether a Host header names one: its letters, and a port and an address that there can be. */
const isHost = (host: string): boolean => HOST_NAME.test(host) && URL.canParse(`http://${host}/`);
const refuse = (res: Response, status: number, words: string) =>
  res.status(status).set("Cache-Control", "no-store").type("text/plain").send(`${words}\n`);

app.use((req, res, next) => {
  if (!METHODS.includes(req.method)) {
    res.set("Allow", METHODS.join(", "));
    refuse(res, 405, "Only GET and HEAD are answered here.");
  } else if (!isHost(req.headers.host ?? "")) refuse(res, 400, "The request names no host.");
  else next();
});

app.get("/healthz", (_req, res) => {
  res.type("text/plain").set("Cache-Control", "no-store").send("ok\n");
});

/** Takes itself away again, and what it kept: for a server that switches offline use off. */
const NO_WORKER = `addEventListener("install", () => skipWaiting());
addEventListener("activate", (e) => e.waitUntil(caches.keys().then((all) => Promise.all(all.map((c) => caches.delete(c)))).then(() => registration.unregister())));
`;
app.get("/sw.js", (_req, res) => {
  res.type("text/javascript").set("Cache-Control", "no-cache");
  if (process.env["ZENITHAR_OFFLINE"] === "off") res.send(NO_WORKER);
  else res.send(readFileSync(`${CLIENT}/sw.js`, "utf8").replaceAll(SHELL_URL, shellUrl));
});
app.get("/shell/:version", async (req, res) => {
  if (req.path !== shellUrl) return refuse(res, 404, "Nothing is here.");
  res
    .type("text/html")
    .set("Cache-Control", "no-store")
    .send(await shellPage());
});

app.get("/favicon.ico", (_req, res) => res.redirect(301, "/mark.svg"));

app.use(
  "/assets",
  expressStaticGzip(`${CLIENT}/assets`, {
    enableBrotli: true,
    orderPreference: ["br", "gz"],
    serveStatic: { immutable: true, maxAge: "1y", fallthrough: false },
  }),
);
app.use(
  expressStaticGzip(CLIENT, {
    index: false,
    enableBrotli: true,
    orderPreference: ["br", "gz"],
    serveStatic: { maxAge: "1h" },
  }),
);
app.use(compression());
app.use((_req, res, next) => {
  res.set("Cache-Control", "no-store"); // pages carry a nonce
  next();
});
app.all(
  "/{*path}",
  createRequestHandler({
    build,
    getLoadContext: (_req, res) => requestContext(res.locals["nonce"] as string),
  }),
);

// Express knows an error handler by its four arguments.
app.use((error: unknown, req: Request, res: Response, next: NextFunction) => {
  const { status = 500 } = (error ?? {}) as { readonly status?: number };
  if (status >= 500)
    logFault(
      `${req.method} ${req.path.slice(0, 120)}: ${error instanceof Error ? error.message.split("\n")[0] : "fault"}`,
    );
  if (res.headersSent) next(error);
  else
    refuse(
      res,
      status,
      status === 404 ? "Nothing is here." : status < 500 ? "That request does not read." : "Something went wrong here.",
    );
});

/** A client has so long to send its headers, its request, and to take the next piece of an answer, in ms. */
const [HEADERS_WITHIN_MS, REQUEST_WITHIN_MS, IDLE_MS] = [10_000, 15_000, 30_000];
const server = createServer(
  {
    headersTimeout: HEADERS_WITHIN_MS,
    requestTimeout: REQUEST_WITHIN_MS,
    connectionsCheckingInterval: 1000,
    maxHeaderSize: 16_384,
  },
  app,
);
server.keepAliveTimeout = 5000;
server.setTimeout(IDLE_MS);
server.maxRequestsPerSocket = 1000;

/** What is no HTTP at all is answered in one line, with the headers every answer has. */
server.on("clientError", (error: NodeJS.ErrnoException, socket) => {
  if (error.code === "ECONNRESET" || !socket.writable) return void socket.destroy();
  const status =
    error.code === "HPE_INVALID_METHOD"
      ? "405 Method Not Allowed\r\nAllow: GET, HEAD"
      : error.code === "HPE_HEADER_OVERFLOW"
        ? "431 Request Header Fields Too Large"
        : error.code === "ERR_HTTP_REQUEST_TIMEOUT"
          ? "408 Request Timeout"
          : "400 Bad Request";
  socket.end(
    `HTTP/1.1 ${status}\r\nContent-Type: text/plain\r\nX-Content-Type-Options: nosniff\r\nX-Frame-Options: DENY\r\nContent-Security-Policy: default-src 'none'; frame-ancestors 'none'\r\nConnection: close\r\nContent-Length: 0\r\n\r\n`,
  );
});

server.listen(PORT, HOST, () => {
  const address = server.address();
  const port = typeof address === "object" && address ? address.port : PORT;
  console.log(`Zenithar is ready: http://${HOST === "0.0.0.0" ? "localhost" : HOST}:${port}/`);
});

/** How long what is in flight may take to end once the server is told to stop, ms. */
const GRACE_MS = 10_000;
for (const signal of ["SIGTERM", "SIGINT"] as const)
  process.once(signal, () => {
    server.close(() => process.exit(0));
    // Connections fall idle one by one as what is in flight ends.
    setInterval(() => server.closeIdleConnections(), 50).unref();
    setTimeout(() => server.closeAllConnections(), GRACE_MS).unref();
  });
