import { connect } from "node:net";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { startApp, type RunningApp } from "./browser";

/** What the server says to odd, broken, slow and hostile clients. */
describe("the server", () => {
  let app: RunningApp;
  const log: string[] = [];
  beforeAll(async () => {
    app = await startApp({ ZENITHAR_DEMO_NOW: "2026-12-05T16:40:00Z" }, "tern:fine,larch:hang,quartz:fine", log);
  });
  afterAll(() => app.stop());

  /** Sends bytes as they are, and what comes back until the server lets go. */
  const raw = (bytes: string, waitMs = 20_000) =>
    new Promise<string>((resolve, reject) => {
      const socket = connect(Number(new URL(app.url).port), "127.0.0.1", () => socket.write(bytes));
      let text = "";
      socket.on("data", (piece) => (text += piece.toString()));
      socket.on("close", () => resolve(text));
      socket.on("error", () => resolve(text));
      socket.setTimeout(waitMs, () => {
        socket.destroy();
        reject(new Error("the server held on"));
      });
    });
  const statusOf = (answer: string) => Number(/^HTTP\/1\.1 (\d+)/.exec(answer)?.[1]);

  it.each(["POST", "PUT", "DELETE", "PATCH", "OPTIONS", "TRACE", "PROPFIND"])("answers %s with 405", async (method) => {
    const answer = await raw(`${method} / HTTP/1.1\r\nHost: here\r\nConnection: close\r\nContent-Length: 0\r\n\r\n`);
    expect(statusOf(answer)).toBe(405);
    expect(answer).toContain("Allow: GET, HEAD");
  });

  it("answers a method nobody knows with 405 and what is no HTTP with 400, with the headers every answer has", async () => {
    const unknown = await raw("FROB / HTTP/1.1\r\nHost: here\r\n\r\n");
    const nonsense = await raw("\u0000\u0001\r\n\r\n");
    expect([statusOf(unknown), statusOf(nonsense)]).toEqual([405, 405]);
    expect(statusOf(await raw("GET / HTTP/1.1\r\nHost: here\r\nContent-Length: x\r\n\r\n"))).toBe(400);
    expect(statusOf(await raw(`GET / HTTP/1.1\r\nHost: here\r\nX: ${"x".repeat(20_000)}\r\n\r\n`))).toBe(431);
    for (const answer of [unknown, nonsense]) expect(answer).toContain("X-Frame-Options: DENY");
  });

  it.each(["", " ", "a b", "<x>", "x/y", "@", "127.0.0.1:99999", "256.1.1.1", "here:", "a..b:1:2"])(
    "refuses the host “%s”",
    async (host) => {
      const answer = await raw(`GET / HTTP/1.1\r\nHost: ${host}\r\nConnection: close\r\n\r\n`);
      expect(statusOf(answer)).toBe(400);
    },
  );

  it("sends its headers with pages, files, 404s, refusals and errors alike", async () => {
    for (const path of [
      "/",
      "/mark.svg",
      "/no/such/page",
      "/assets/none.js",
      "/services/forecast/none",
      "/%",
      "/healthz",
    ]) {
      const { headers } = await fetch(app.url + path);
      const said = ["content-security-policy", "x-content-type-options", "referrer-policy", "permissions-policy"];
      expect([path, ...said.filter((name) => !headers.has(name))]).toEqual([path]);
      expect(headers.get("content-security-policy")).toContain("frame-ancestors 'none'");
      expect(headers.get("x-frame-options")).toBe("DENY");
      expect(headers.has("x-powered-by")).toBe(false);
    }
    expect((await fetch(`${app.url}/no/such/page`)).status).toBe(404);
    expect((await fetch(`${app.url}/assets/none.js`)).status).toBe(404);
    expect((await fetch(`${app.url}/%`)).status).toBe(400);
  });

  it.each(["", "lat=&lon=", "lat=45&lon=", "lat=x&lon=9", "lat=91&lon=9", "lat=45&lon=9&lat=1", "lat=4e1&lon=9", "lat=0x1&lon=9", "lat=Infinity&lon=9"])(
    "refuses a forecast for “%s”",
    async (query) => {
      expect((await fetch(`${app.url}/services/forecast/tern?${query}`)).status).toBe(400);
    },
  ); // prettier-ignore

  it("gives a forecast for a place that is one", async () => {
    const answer = await fetch(`${app.url}/services/forecast/tern?lat=45.5&lon=-9`);
    expect([answer.status, answer.headers.get("content-type")]).toEqual([
      200,
      expect.stringMatching(/^application\/json/),
    ]);
  });

  it("lets go of a client that is slow to say what it wants", async () => {
    const begun = Date.now();
    const answer = await raw("GET / HTTP/1.1\r\nHost: here\r\nX-Slow: ");
    expect(statusOf(answer)).toBe(408);
    expect(Date.now() - begun).toBeGreaterThan(8000);
  });

  it("writes no stack and nothing of what was asked into its log", () => {
    expect(log.join("\n")).not.toMatch(/\n\s+at /);
    expect(log.join("")).not.toContain("frob");
  });

  it("finishes what is in flight when it is told to stop, and then takes nothing new", async () => {
    const second = await startApp({ ZENITHAR_DEMO_NOW: "2026-12-05T16:40:00Z" }, "tern:fine,larch:fine,quartz:fine");
    await (await fetch(`${second.url}/healthz`)).text(); // the connection stands, so that the question is there at once
    const answer = fetch(`${second.url}/services/forecast/tern?lat=45&lon=9`); // takes a tenth of a second
    await new Promise((r) => setTimeout(r, 50));
    const stopped = second.stop();
    const body = (await (await answer).json()) as { format: string };
    expect(body.format).toBe("zenithar-forecast");
    expect(await stopped).toBe(0);
    await expect(fetch(second.url)).rejects.toThrow();
  });
});
