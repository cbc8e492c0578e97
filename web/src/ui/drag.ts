/** Dragging as all decks want it: arrow keys are theirs, not the gesture's. */
export const DRAG = { pointer: { keys: false } } as const;
