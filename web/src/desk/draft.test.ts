import { describe, expect, it } from "vitest";
import {
  type Draft,
  type HistoryAction,
  history,
  historyToSave,
  NEW_PART,
  treatmentsOf,
  withLayoutUnder,
  withTreatment,
} from "./draft";

const draft = (name: string): Draft => ({
  placement: {
    name,
    kind: "picture",
    lead: true,
    parts: [NEW_PART],
    common: {},
    layout: {},
    layout_under: [],
    frame: null,
    lists: null,
    n_files: null,
    blurred: false,
    substitute: null,
    target: "",
    formats: null,
    page: "",
    words: null,
    title_level: null,
    one_of: null,
    stem: null,
    handed: {},
  },
  looks: {},
});
const start = { past: [], now: draft("a"), future: [], group: null };
const to = (name: string, group?: string): HistoryAction => ({
  kind: "change",
  change: () => draft(name),
  group,
});
const play = (...actions: HistoryAction[]) =>
  actions.reduce(history, start as ReturnType<typeof history>);

describe("history of a draft", () => {
  it("undoes and redoes in order", () => {
    const after = play(to("b"), to("c"), { kind: "undo" });
    expect(after.now.placement.name).toBe("b");
    expect(history(after, { kind: "redo" }).now.placement.name).toBe("c");
  });
  it("takes a drag as one step", () => {
    const after = play(to("b", "focal"), to("c", "focal"), to("d", "focal"));
    expect(after.past).toHaveLength(1);
    expect(history(after, { kind: "undo" }).now.placement.name).toBe("a");
  });
  it("begins a new step once a drag has ended", () => {
    expect(play(to("b", "focal"), { kind: "settle" }, to("c", "focal")).past).toHaveLength(2);
  });
  it("forgets what could be redone when something else is done", () => {
    expect(play(to("b"), { kind: "undo" }, to("c")).future).toEqual([]);
  });
  it("does nothing where there is nothing to undo or redo", () => {
    expect(play({ kind: "undo" }, { kind: "redo" })).toEqual(start);
  });
  it("starts afresh with a version taken from elsewhere", () => {
    const after = play(to("b"), { kind: "take", now: draft("theirs") });
    expect([after.now.placement.name, after.past, after.future]).toEqual(["theirs", [], []]);
  });
});

describe("history beyond the visit", () => {
  const earlier = [draft("x"), draft("y")];
  const later = [draft("z")];
  const names = (s: ReturnType<typeof history>) =>
    [...s.past, s.now, ...s.future].map((d) => d.placement.name);
  const remember: HistoryAction = {
    kind: "remember",
    from: start.now,
    past: earlier,
    future: later,
  };

  it("puts earlier versions before those of this visit", () => {
    expect(names(play(remember))).toEqual(["x", "y", "a", "z"]);
    expect(play(remember, { kind: "undo" }, { kind: "undo" }).now.placement.name).toBe("x");
  });
  it("drops what had been undone when something was changed before the versions arrived", () => {
    expect(names(play(to("b"), remember))).toEqual(["x", "y", "a", "b"]);
  });
  it("goes to any version and keeps the line", () => {
    const there = play(remember, { kind: "go", to: 0 });
    expect([there.now.placement.name, there.future.length]).toEqual(["x", 3]);
    expect(play(remember, { kind: "go", to: 9 }).now.placement.name).toBe("a");
  });
  it("takes no notice of versions that begin elsewhere", () => {
    expect(names(play({ ...remember, from: draft("other") } as HistoryAction))).toEqual(["a"]);
  });

  it("tells the server which versions stay and which are new", () => {
    const [x, y] = earlier as [Draft, Draft];
    const synced = { drafts: [x, y, start.now, ...later], first: 7 };
    const changed = play(remember, to("b"));
    expect(historyToSave(changed, synced)).toMatchObject({
      keep: 9,
      at: 10,
      first: 7,
      add: [changed.now],
    });
    const undone = play(remember, { kind: "undo" });
    expect(historyToSave(undone, synced)).toMatchObject({ keep: 10, at: 8, add: [] });
  });
  it("has nothing to tell where the lines have nothing in common", () => {
    expect(historyToSave(play(to("b")), { drafts: [draft("q")], first: 0 })).toBeUndefined();
    expect(historyToSave(play(to("b")), undefined)).toBeUndefined();
  });
});

describe("treatments", () => {
  it("set one span's own values and hand down again what is taken back", () => {
    const own = withTreatment(draft("a"), 0, "B", { fit: "contain", whole: true });
    expect(treatmentsOf(own, 0).B).toEqual({ fit: "contain", whole: true });
    expect(treatmentsOf(withTreatment(own, 0, "B", { fit: undefined }), 0).B).toEqual({
      whole: true,
    });
  });
});

describe("values of the kind under conditions", () => {
  it("stand beside those that usually hold, and go with the last of them", () => {
    const dark = withLayoutUnder(draft("a"), ["dark"], "D", { colour: "#cccccc" });
    expect(dark.placement.layout_under).toEqual([
      { when: ["dark"], layout: { D: { colour: "#cccccc" } } },
    ]);
    expect(dark.placement.layout).toEqual(draft("a").placement.layout);
    const both = withLayoutUnder(dark, ["dark", "still"], "B", { strength: 0.4 });
    expect(both.placement.layout_under.map((u) => u.when)).toEqual([["dark"], ["dark", "still"]]);
    const back = withLayoutUnder(both, ["dark"], "D", { colour: undefined });
    expect(back.placement.layout_under.map((u) => u.when)).toEqual([["dark", "still"]]);
  });
});
