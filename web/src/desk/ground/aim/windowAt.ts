import type { SpanReading } from "../../../api/queries";
import type { Rect } from "../../../picture/areas";
import { valueAt } from "../../scale";

/**
 * What a span shows of its original at a width inside it; for a width outside, all that it shows
 * anywhere.
 */
export function windowAt(span: SpanReading, width: number): Rect | undefined {
  if (span.first <= width && width <= span.last) {
    const [x0, x1, y0, y1] = [span.x0, span.x1, span.y0, span.y1].map((c) => valueAt(c, width));
    if (x0 !== undefined && x1 !== undefined && y0 !== undefined && y1 !== undefined)
      return { x: x0, y: y0, w: x1 - x0, h: y1 - y0 };
  }
  return span.outline ?? undefined;
}
