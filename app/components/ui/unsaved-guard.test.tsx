import { render, screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { createMemoryRouter, Form, Link, redirect, RouterProvider } from "react-router";
import { beforeEach, describe, expect, it } from "vitest";
import { UnsavedGuard } from "./UnsavedGuard";

const user = userEvent.setup();

const FormPage = () => (
  <>
    <Form method="post">
      <UnsavedGuard />
      <label>
        Name <input name="name" defaultValue="Orchard" />
      </label>
      <button type="submit">Save</button>
    </Form>
    <Link to="/elsewhere">Elsewhere</Link>
    <Link to="/?night=2026-12-06">Next night</Link>
  </>
);

beforeEach(() => {
  const router = createMemoryRouter([
    { path: "/", element: <FormPage />, action: () => redirect("/kept") },
    { path: "/elsewhere", element: <p>Another page</p> },
    { path: "/kept", element: <p>Kept</p> },
  ]);
  render(<RouterProvider router={router} />);
});
const unload = () => {
  const event = new Event("beforeunload", { cancelable: true });
  window.dispatchEvent(event);
  return event.defaultPrevented;
};

describe("a form that is kept only when saved", () => {
  it("lets go who has changed nothing, or has changed it back", async () => {
    const box = screen.getByLabelText("Name");
    await user.type(box, "x{Backspace}");
    expect(unload()).toBe(false);
    await user.click(screen.getByRole("link", { name: "Elsewhere" }));
    expect(await screen.findByText("Another page")).toBeTruthy();
  });

  it("asks who leaves with changes, and keeps them for who stays", async () => {
    await user.type(screen.getByLabelText("Name"), " wall");
    expect(unload()).toBe(true);
    await user.click(screen.getByRole("link", { name: "Elsewhere" }));
    await user.click(await screen.findByRole("button", { name: "Stay here" }));
    expect(screen.getByLabelText<HTMLInputElement>("Name").value).toBe("Orchard wall");
    await user.click(screen.getByRole("link", { name: "Elsewhere" }));
    await user.click(await screen.findByRole("button", { name: "Leave without saving" }));
    expect(await screen.findByText("Another page")).toBeTruthy();
    expect(unload()).toBe(false);
  });

  it("does not ask about saving, nor about another night on the same page", async () => {
    await user.type(screen.getByLabelText("Name"), " wall");
    await user.click(screen.getByRole("link", { name: "Next night" }));
    expect(screen.queryByRole("alertdialog")).toBeNull();
    expect(screen.getByLabelText<HTMLInputElement>("Name").value).toBe("Orchard wall");
    await user.click(screen.getByRole("button", { name: "Save" }));
    expect(await screen.findByText("Kept")).toBeTruthy();
  });
});
