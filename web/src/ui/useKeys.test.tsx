import { fireEvent, render, screen } from "@testing-library/react";
import { describe, expect, it, vi } from "vitest";
import { leaveField, useKeys } from "./useKeys";

function Screen({ act }: { act: () => void }) {
  useKeys([["2", act]]);
  return (
    <section onKeyDown={leaveField} aria-label="Ground">
      <input aria-label="words" />
      <textarea aria-label="more words" />
      <input type="radio" aria-label="choice" />
      <input type="checkbox" aria-label="tick" />
      <button type="button">press</button>
    </section>
  );
}

describe("keys of a screen", () => {
  it("are heard wherever the focus is, except where one types", () => {
    const act = vi.fn();
    render(<Screen act={act} />);
    for (const name of ["words", "more words"]) {
      const event = fireEvent.keyDown(screen.getByLabelText(name), { key: "2", code: "Digit2" });
      expect(event).toBe(true); // the digit goes into the field
    }
    expect(act).not.toHaveBeenCalled();
    for (const at of [
      screen.getByLabelText("choice"),
      screen.getByLabelText("tick"),
      screen.getByText("press"),
    ])
      fireEvent.keyDown(at, { key: "2", code: "Digit2" });
    expect(act).toHaveBeenCalledTimes(3);
  });
  it("are heard again once Escape has left the field", () => {
    render(<Screen act={vi.fn()} />);
    const field = screen.getByLabelText("words");
    field.focus();
    fireEvent.keyDown(field, { key: "Escape" });
    expect(document.activeElement).not.toBe(field);
  });
});
