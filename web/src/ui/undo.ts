/** Undo and redo as a line of values and a place on it, as plain functions. */

/** What was, what is, what was undone. */
export interface Undoable<T> {
  past: T[];
  now: T;
  future: T[];
  group: string | null;
}

export type UndoAction<T> =
  | { kind: "change"; change: (now: T) => T; group?: string }
  | { kind: "undo" }
  | { kind: "redo" }
  | { kind: "go"; to: number }
  | { kind: "take"; now: T }
  | { kind: "remember"; from: T; past: T[]; future: T[] }
  | { kind: "settle" };

const MOST_VERSIONS = 200;

/** Changes of one group (a drag) undo as one. */
export function undoable<T>(state: Undoable<T>, action: UndoAction<T>): Undoable<T> {
  switch (action.kind) {
    case "change": {
      const now = action.change(state.now);
      if (now === state.now) return state;
      const joined = action.group !== undefined && action.group === state.group;
      const past = joined ? state.past : [...state.past, state.now].slice(-MOST_VERSIONS);
      return { past, now, future: [], group: action.group ?? null };
    }
    case "undo": {
      const before = state.past[state.past.length - 1];
      if (!before) return state;
      return {
        past: state.past.slice(0, -1),
        now: before,
        future: [state.now, ...state.future],
        group: null,
      };
    }
    case "redo": {
      const [next, ...rest] = state.future;
      if (!next) return state;
      return { past: [...state.past, state.now], now: next, future: rest, group: null };
    }
    case "go": {
      const line = lineOf(state);
      const now = line[action.to];
      if (!now || now === state.now) return state;
      return {
        past: line.slice(0, action.to),
        now,
        future: line.slice(action.to + 1),
        group: null,
      };
    }
    case "take":
      return { past: [], now: action.now, future: [], group: null };
    case "remember": {
      // what was done before this visit goes before what has been done in it
      const line = lineOf(state);
      if (!line.includes(action.from)) return state;
      const changed = state.now !== action.from || state.past.length > 0;
      const past = state.past[0] === action.from || state.now === action.from ? action.past : [];
      return {
        ...state,
        past: [...past, ...state.past],
        future: changed ? state.future : action.future,
      };
    }
    case "settle":
      return state.group === null ? state : { ...state, group: null };
  }
}

/** The whole line of versions: done, present, undone. */
export const lineOf = <T>(state: Undoable<T>): T[] => [...state.past, state.now, ...state.future];
