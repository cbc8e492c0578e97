/** What a large map is worked with: how large it is drawn, and what the next drag draws. */
import { Button, SegmentedControl } from "@mantine/core";
import { useState } from "react";

export type Drawing = "keep" | "quiet" | undefined;

export function useMapTools() {
  const [zoom, setZoom] = useState("1");
  const [drawing, setDrawing] = useState<Drawing>();
  return {
    zoom,
    setZoom,
    drawing,
    setDrawing,
    /** What the map is to be told. */
    map: { zoom: Number(zoom), drawing, drawn: () => setDrawing(undefined) },
  };
}

export function MapTools({ zoom, setZoom, drawing, setDrawing }: ReturnType<typeof useMapTools>) {
  return (
    <>
      <SegmentedControl
        size="xs"
        aria-label="Zoom"
        value={zoom}
        onChange={setZoom}
        data={[
          { value: "1", label: "fit" },
          { value: "2", label: "2×" },
          { value: "4", label: "4×" },
        ]}
      />
      {(["keep", "quiet"] as const).map((kind) => (
        <Button
          key={kind}
          variant={drawing === kind ? "filled" : "default"}
          aria-pressed={drawing === kind}
          onClick={() => setDrawing(drawing === kind ? undefined : kind)}
        >
          Draw a {kind} area
        </Button>
      ))}
    </>
  );
}
