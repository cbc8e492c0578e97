import { MantineProvider } from "@mantine/core";
import { fireEvent, render, screen } from "@testing-library/react";
import type { ReactElement } from "react";
import { describe, expect, it, vi } from "vitest";
import { NumberField } from "../../../ui/NumberField";
import { RatioField } from "./RatioField";
import { describeHeight, describeWidth } from "./words";

const show = (element: ReactElement) => render(<MantineProvider>{element}</MantineProvider>);

describe("fields of a frame", () => {
  it("a number is taken as it is typed, and what is none stays with a word", () => {
    const set = vi.fn();
    show(<NumberField label="Width" unit="px" value={600} set={set} />);
    const input = screen.getByLabelText("Width");
    fireEvent.change(input, { target: { value: "72x" } });
    expect(set).not.toHaveBeenCalled();
    expect(screen.getByText("a number")).toBeTruthy();
    fireEvent.change(input, { target: { value: "720" } });
    expect(set).toHaveBeenCalledWith(720);
  });
  it("an optional number can be emptied", () => {
    const set = vi.fn();
    show(<NumberField label="Least" unit="px" optional value={300} set={set} />);
    fireEvent.change(screen.getByLabelText("Least"), { target: { value: "" } });
    expect(set).toHaveBeenCalledWith(undefined);
  });
  it("a ratio is taken in the usual ways of writing it", () => {
    const set = vi.fn();
    show(<RatioField w={16} h={9} set={set} />);
    fireEvent.change(screen.getByLabelText("Ratio, width to height"), { target: { value: "4:" } });
    expect(set).not.toHaveBeenCalled();
    fireEvent.change(screen.getByLabelText("Ratio, width to height"), { target: { value: "4:5" } });
    expect(set).toHaveBeenCalledWith({ w: 4, h: 5 });
  });
  it("rules are said in a few words", () => {
    expect(
      describeWidth({
        kind: "share",
        percent: 50,
        of: "container",
        least_px: null,
        greatest_px: 700,
      }),
    ).toBe("50 % of the container, at most 700");
    expect(describeHeight({ kind: "vh", percent: 60, least_px: 400, greatest_px: null })).toBe(
      "60 vh, at least 400",
    );
    expect(describeHeight({ kind: "natural", least_px: null, greatest_px: null })).toBe("natural");
  });
});
