import { fireEvent, render, screen, waitFor } from "@testing-library/react";
import { describe, expect, it } from "vitest";
import { factUnder, TapFacts } from "./TapFacts";

const tap = (on: Element, pointerType: string) => {
  const click = new MouseEvent("click", { bubbles: true });
  Object.setPrototypeOf(click, PointerEvent.prototype);
  Object.defineProperty(click, "pointerType", { value: pointerType });
  fireEvent(on, click);
};

const Page = () => (
  <>
    <p>
      Dark from <time title="17:41 UTC">18:41</time>
      <button type="button" title="Copies it">
        copy <i>now</i>
      </button>
    </p>
    <table>
      <tbody>
        <tr>
          <td title="P1 Ha: 3 h taken, 2 h kept">
            <i data-testid="bar" />
          </td>
        </tr>
      </tbody>
    </table>
    <TapFacts />
  </>
);

describe("what only a hover tells", () => {
  it("is told to a finger that taps, and not again to a mouse", async () => {
    render(<Page />);
    tap(screen.getByText("18:41"), "mouse");
    expect(screen.queryByText("17:41 UTC")).toBeNull();
    tap(screen.getByText("18:41"), "touch");
    await waitFor(() => expect(screen.getByText("17:41 UTC")).toBeTruthy());
    tap(screen.getByTestId("bar"), "touch");
    await waitFor(() => expect(screen.getByText("P1 Ha: 3 h taken, 2 h kept")).toBeTruthy());
    expect(screen.queryByText("17:41 UTC")).toBeNull();
  });

  it("leaves alone what acts when pressed", () => {
    render(<Page />);
    expect(factUnder(screen.getByText("now"))).toBeNull();
    expect(factUnder(screen.getByText("18:41"))?.words).toBe("17:41 UTC");
    expect(factUnder(screen.getByText(/Dark from/))).toBeNull();
    expect(factUnder(null)).toBeNull();
  });
});
