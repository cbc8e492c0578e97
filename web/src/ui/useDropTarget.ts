import { type DragEvent, useState } from "react";

/**
 * Files may be dropped on the element that gets these props; `data-over` while they are held over
 * it.
 */
export function useDropTarget(take: (files: File[]) => void) {
  const [over, setOver] = useState(false);
  return {
    "data-over": over || undefined,
    onDragOver: (e: DragEvent) => {
      e.preventDefault();
      setOver(true);
    },
    onDragLeave: () => setOver(false),
    onDrop: (e: DragEvent) => {
      e.preventDefault();
      setOver(false);
      take([...e.dataTransfer.files]);
    },
  };
}
