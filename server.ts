import { randomBytes } from "node:crypto";
import { createServer } from "node:http";
import { createRequestHandler } from "@react-router/express";
import compression from "compression";
import express, { type NextFunction, type Request, type Response } from "express";
import expressStaticGzip from "express-static-gzip";
import helmet from "helmet";
import type { RouterContextProvider, ServerBuild } from "react-router";

/** Serves the built app: assets precompressed and immutable, pages under a strict Content-Security-Policy with a nonce. */
const PORT = Number(process.env["PORT"] ?? 4173);
const HOST = process.env["HOST"] ?? "127.0.0.1";
const CLIENT = new URL("./build/client", import.meta.url).pathname;

/** The bundle has its own copies of everything, so it also makes the context that its loaders read. */
type AppEntry = ServerBuild["entry"]["module"] & { readonly requestContext: (nonce: string) => RouterContextProvider };

const build = (await import(new URL("./build/server/index.js", import.meta.url).href)) as ServerBuild;
const { requestContext } = build.entry.module as AppEntry;
const app = express();
app.disable("x-powered-by");

app.get("/healthz", (_req, res) => {
  res.type("text/plain").set("Cache-Control", "no-store").send("ok\n");
});

app.get("/favicon.ico", (_req, res) => res.redirect(301, "/mark.svg"));

app.use((_req: Request, res: Response, next: NextFunction) => {
  res.locals["nonce"] = randomBytes(16).toString("base64");
  next();
});
app.use(
  helmet({
    contentSecurityPolicy: {
      useDefaults: false,
      directives: {
        defaultSrc: ["'none'"],
        scriptSrc: ["'self'", (_req, res) => `'nonce-${(res as Response).locals["nonce"] as string}'`],
        styleSrc: ["'self'", (_req, res) => `'nonce-${(res as Response).locals["nonce"] as string}'`],
        styleSrcAttr: ["'unsafe-inline'"], // positions of drawings; no style sheet can come in this way
        imgSrc: ["'self'", "data:", "blob:"],
        fontSrc: ["'self'"],
        connectSrc: ["'self'"],
        workerSrc: ["'self'"],
        manifestSrc: ["'self'"],
        formAction: ["'self'"],
        baseUri: ["'none'"],
        frameAncestors: ["'none'"],
        objectSrc: ["'none'"],
      },
    },
    referrerPolicy: { policy: "no-referrer" },
    strictTransportSecurity: false, // the front that terminates TLS decides
  }),
);
app.use((_req, res, next) => {
  res.set("Permissions-Policy", "camera=(), geolocation=(), microphone=(), payment=(), usb=()");
  next();
});

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

const server = createServer(app);
server.listen(PORT, HOST, () => {
  const address = server.address();
  const port = typeof address === "object" && address ? address.port : PORT;
  console.log(`Zenithar is ready: http://${HOST === "0.0.0.0" ? "localhost" : HOST}:${port}/`);
});

for (const signal of ["SIGTERM", "SIGINT"] as const)
  process.once(signal, () => {
    server.close(() => process.exit(0));
    server.closeIdleConnections();
    setTimeout(() => server.closeAllConnections(), 2000).unref();
  });
