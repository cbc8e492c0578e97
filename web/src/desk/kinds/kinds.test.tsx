import { MantineProvider } from "@mantine/core";
import { cleanup, fireEvent, render, screen } from "@testing-library/react";
import { afterEach, describe, expect, it } from "vitest";
import type { PlacementBody } from "../../api/queries";
import { AS_USUAL } from "../conditions";
import { type Work, WorkContext } from "../context";
import type { Draft } from "../draft";
import { KindChoice, KindNumber, KindSwitch } from "../ground/KindRows";
import { KindValue } from "../ground/KindValue";
import { FIELDS } from "./fields";
import { KINDS } from "./kinds";

describe("kinds", () => {
  it("are those of the core, one folder each", () => {
    const cores = Object.keys(import.meta.glob("../../../../core/skypane/kinds/*/layout.py"));
    const names = cores.map((path) => path.split("/").at(-2));
    expect(KINDS.map((k) => k.name).sort()).toEqual(names.sort());
    expect(KINDS.map((k) => k.name).slice(0, 1)).toEqual(["picture"]);
    expect(Object.keys(FIELDS).every((name) => names.includes(name))).toBe(true);
  });
});

const fact = (name: string, more: object) => ({
  name,
  unit: "",
  least: null,
  most: null,
  whole: false,
  choices: [],
  under: false,
  ...more,
});

/** A kind of two pictures that stand a gap apart. */
const PAIR = {
  gap_px: fact("gap", { unit: "px", least: 0, most: 400 }),
  across: fact("how many across", { least: 1, most: 4, whole: true }),
  stands: fact("where they stand", { choices: ["start", "centre", "end"] }),
  swapped: fact("swapped", {}),
};

function Desk({ set }: { set: (draft: Draft) => void }) {
  const span = { letter: "B", last: 1023 };
  const values = { gap_px: 24, across: 2, stands: "start", swapped: false };
  const origin = { gap_px: { letter: "D", of: "kind" } };
  const placement = {
    kind: "pair",
    layout: { B: { across: 2 } },
    layout_under: [],
    parts: [],
  } as unknown as PlacementBody;
  const draft: Draft = { placement, looks: {} };
  const work = {
    span,
    conditions: AS_USUAL,
    reading: { widest: 2560, values: PAIR, layout: [{ letter: "B", notes: [], values, origin }] },
    handle: { draft, change: (fn: (d: Draft) => Draft) => set(fn(draft)) },
  } as unknown as Work;
  return (
    <MantineProvider>
      <WorkContext.Provider value={work}>
        <KindValue fields={["gap_px"]} label="Gap">
          <KindNumber field="gap_px" before="between" />
        </KindValue>
        <KindValue fields={["across"]} label="Across">
          <KindNumber field="across" unit="across" />
        </KindValue>
        <KindChoice field="stands" words={{ start: "left" }} />
        <KindSwitch field="swapped" says="swapped" />
      </WorkContext.Provider>
    </MantineProvider>
  );
}

describe("a value of a kind that nobody has heard of", () => {
  afterEach(cleanup);
  const desk = () => {
    const now: { layout?: unknown } = {};
    render(<Desk set={(d) => Object.assign(now, { layout: d.placement.layout })} />);
    return now;
  };
  it("is a number with the core's name, unit and bounds, and where it comes from", () => {
    const now = desk();
    const gap = screen.getByLabelText("Gap");
    expect(screen.getByText("px")).toBeTruthy();
    expect(screen.getByText("from D")).toBeTruthy();
    fireEvent.change(gap, { target: { value: "500" } });
    expect(screen.getByText("0 to 400")).toBeTruthy();
    expect(now.layout).toBeUndefined();
    fireEvent.change(gap, { target: { value: "32.5" } });
    expect(now.layout).toEqual({ B: { across: 2, gap_px: 32.5 } });
  });
  it("is rounded where it counts things, and reset where it is the span's own", () => {
    const now = desk();
    fireEvent.change(screen.getByLabelText("How many across"), { target: { value: "2.6" } });
    expect(now.layout).toEqual({ B: { across: 3 } });
    fireEvent.click(screen.getByRole("button", { name: "Reset across of span B" }));
    expect(now.layout).toEqual({ B: {} });
  });
  it("is one of the core's choices, under the words of the screen", () => {
    const now = desk();
    expect(screen.getAllByRole("radio").map((r) => (r as HTMLInputElement).value)).toEqual([
      "start",
      "centre",
      "end",
    ]);
    expect(screen.getByLabelText("left")).toBeTruthy();
    fireEvent.click(screen.getByLabelText("end"));
    expect(now.layout).toEqual({ B: { across: 2, stands: "end" } });
  });
  it("is a switch", () => {
    const now = desk();
    fireEvent.click(screen.getByRole("switch", { name: "swapped" }));
    expect(now.layout).toEqual({ B: { across: 2, swapped: true } });
  });
});
