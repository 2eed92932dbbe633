import { createHash } from "node:crypto";
import { describe, expect, it } from "vitest";
import { DROP_IN_NONCE } from "../../app/offline/words";
import { fixedPaths, withPolicy } from "./page";

const head = (...scripts: readonly string[]) =>
  `<!DOCTYPE html><html><head><meta charSet="utf-8"/><meta name="x"/>${scripts.join("")}</head><body></body></html>`;
const sumOf = (script: string) => `'sha256-${createHash("sha256").update(script).digest("base64")}'`;
/** The policy that stands in a page, by directive. */
const policyIn = (page: string): Record<string, string> =>
  Object.fromEntries(
    /Content-Security-Policy" content="([^"]*)"/
      .exec(page)![1]!
      .split("; ")
      .map((part) => [part.slice(0, part.indexOf(" ")), part.slice(part.indexOf(" ") + 1)]),
  );

describe("the page of an export", () => {
  it("names its own scripts by their sums and lets in no other, whatever nonce it has", () => {
    const page = head(
      `<script nonce="${DROP_IN_NONCE}">one()</script>`,
      `<script nonce="${DROP_IN_NONCE}" type="module">import "/a.js";\ntwo()</script>`,
      `<script type="module" src="/night/assets/b.js"></script>`,
      "<script>one()</script>",
    );
    const policy = policyIn(withPolicy(page, []));
    expect(policy["script-src"]).toBe(`'self' ${sumOf("one()")} ${sumOf('import "/a.js";\ntwo()')}`);
    expect(policy["default-src"]).toBe("'none'");
    expect(policy["connect-src"]).toBe("'self'");
    expect(policy["object-src"]).toBe("'none'");
  });
  it("may ask a forecast service, and nobody else", () => {
    const page = withPolicy(head("<script>one()</script>"), ["https://weather.example"]);
    expect(policyIn(page)["connect-src"]).toBe("'self' https://weather.example");
  });
  it("keeps the character set within the first kilobyte and its policy before any script", () => {
    const page = withPolicy(head(...Array.from({ length: 40 }, (_, i) => `<script>f(${i})</script>`)), []);
    expect(page.indexOf("charSet")).toBeLessThan(1024); // HTML Standard, 4.2.5.4
    expect(page.indexOf("Content-Security-Policy")).toBeLessThan(page.indexOf("<script"));
  });
  it("refuses a script that would not keep its sum, and a page without a head", () => {
    expect(() => withPolicy(head(`<script>say("${DROP_IN_NONCE}")</script>`), [])).toThrow("would not stay");
    expect(() => withPolicy("<p>down for repairs</p>", [])).toThrow("no head");
  });
});

it("a file stands for every address that is the same for everybody, and for no other", () => {
  const routes = {
    root: { path: "" },
    shell: { parentId: "root" },
    tonight: { parentId: "shell" },
    targets: { parentId: "shell", path: "targets" },
    target: { parentId: "shell", path: "targets/:targetId" },
    kit: { parentId: "shell", path: "kit" },
    places: { parentId: "kit" },
    rigs: { parentId: "kit", path: "rigs" },
    nowhere: { parentId: "shell", path: "*" },
    gone: undefined,
  };
  expect(fixedPaths(routes)).toEqual(["kit", "kit/rigs", "targets"]);
});
