import { describe, expect, it } from "vitest";
import { type Draft, type HistoryAction, history, withTreatment } from "./useDraft";

const draft = (name: string): Draft => ({ placement: { name, lead: true, treatments: {} }, looks: {} });
const start = { past: [], now: draft("a"), future: [], group: null };
const to = (name: string, group?: string): HistoryAction => ({ kind: "change", change: () => draft(name), group });
const play = (...actions: HistoryAction[]) => actions.reduce(history, start as ReturnType<typeof history>);

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
    const after = play(to("b"), { kind: "take", draft: draft("theirs") });
    expect([after.now.placement.name, after.past, after.future]).toEqual(["theirs", [], []]);
  });
});

describe("treatments", () => {
  it("set one span's own values and hand down again what is taken back", () => {
    const own = withTreatment(draft("a"), "B", { fit: "contain", whole: true });
    expect(own.placement.treatments?.B).toEqual({ fit: "contain", whole: true });
    expect(withTreatment(own, "B", { fit: undefined }).placement.treatments?.B).toEqual({ whole: true });
  });
});
