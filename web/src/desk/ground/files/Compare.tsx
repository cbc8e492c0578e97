/**
 * Two of a file's pictures on each other: the resample without loss, and the files made of it.
 * Wiped by dragging the line, or one after the other; moved together; with a map of where the
 * chosen file differs from the resample.
 */
import { Button, Modal, SegmentedControl, Switch } from "@mantine/core";
import { useElementSize, useMergedRef } from "@mantine/hooks";
import { useDrag } from "@use-gesture/react";
import { type KeyboardEvent, useEffect, useRef, useState } from "react";
import { stepAlong } from "../../../ui/arrows";
import { bytes, FORMATS, size } from "../../../ui/format";
import { useWork } from "../../context";
import classes from "./Compare.module.css";
import type { Format, Row } from "./FileTable";

export interface Compared {
  row: Row;
  format: Format;
}

const WITHOUT_LOSS = "resample";

export function Compare({ of, close }: { of: Compared; close: () => void }) {
  const { delivery } = useWork();
  const { row } = of;
  const made = row.formats.filter((f) => delivery?.files.some((x) => x.key === f.key && x.done));
  const [left, setLeft] = useState<string>(WITHOUT_LOSS);
  const [right, setRight] = useState<string>(of.format);
  const [zoom, setZoom] = useState("1");
  const [wipe, setWipe] = useState(0.5);
  const [flicker, setFlicker] = useState(false);
  const [map, setMap] = useState(false);
  if (!delivery || !made.length) return null;
  const first = made[0]?.key ?? "";
  const keyOf = (what: string) => made.find((f) => f.format === what)?.key ?? first;
  const address = (what: string) =>
    what === WITHOUT_LOSS
      ? `/api/deliveries/${delivery.id}/resample/${first}`
      : `/api/deliveries/${delivery.id}/renditions/${keyOf(what)}`;
  const choices = [
    { value: WITHOUT_LOSS, label: "without loss" },
    ...made.map((f) => ({ value: f.format, label: FORMATS[f.format] })),
  ];
  return (
    <Modal
      opened
      onClose={close}
      fullScreen
      title={`${row.stem} · ${size(row.width_px, row.height_px)}`}
    >
      <div className={classes.bar}>
        <Side label="Left" value={left} set={setLeft} choices={choices} row={row} />
        <Side label="Right" value={right} set={setRight} choices={choices} row={row} />
        <SegmentedControl
          size="xs"
          aria-label="Size of a px"
          value={zoom}
          onChange={setZoom}
          data={[
            { value: "1", label: "100 %" },
            { value: "2", label: "200 %" },
          ]}
        />
        <Button
          variant={flicker ? "filled" : "default"}
          aria-pressed={flicker}
          onClick={() => setFlicker((f) => !f)}
          title="One after the other in the same place"
        >
          Flicker
        </Button>
        <Switch
          size="xs"
          label="where the right one differs"
          checked={map}
          disabled={right === WITHOUT_LOSS}
          onChange={(e) => setMap(e.currentTarget.checked)}
        />
      </div>
      <Stage
        key={row.stem}
        row={row}
        zoom={Number(zoom)}
        left={address(left)}
        right={address(right)}
        over={
          map && right !== WITHOUT_LOSS
            ? `/api/deliveries/${delivery.id}/difference/${keyOf(right)}`
            : undefined
        }
        wipe={wipe}
        setWipe={setWipe}
        flicker={flicker}
      />
    </Modal>
  );
}

interface SideProps {
  label: string;
  value: string;
  set: (what: string) => void;
  choices: { value: string; label: string }[];
  row: Row;
}

function Side({ label, value, set, choices, row }: SideProps) {
  const { delivery } = useWork();
  const file = row.formats.find((f) => f.format === value);
  const facts = delivery?.files.find((f) => f.key === file?.key);
  return (
    <div className={classes.side}>
      <b>{label}</b>
      <SegmentedControl
        size="xs"
        aria-label={`${label} picture`}
        value={value}
        onChange={set}
        data={choices}
      />
      <span className="soft">
        {file?.size_bytes != null && bytes(file.size_bytes)}
        {facts?.ssim != null &&
          facts.ssim < 1 &&
          ` · SSIM ${facts.ssim.toFixed(4)} · quality ${facts.quality}`}
      </span>
    </div>
  );
}

interface StageProps {
  row: Row;
  zoom: number;
  left: string;
  right: string;
  over: string | undefined;
  wipe: number;
  setWipe: (at: number) => void;
  flicker: boolean;
}

/** How long each of the two is seen, in ms. */
const FLICKER_MS = 600;

function Stage({ row, zoom, left, right, over, wipe, setWipe, flicker }: StageProps) {
  const stage = useRef<HTMLDivElement>(null);
  const room = useElementSize();
  const ref = useMergedRef(stage, room.ref);
  /** What lies in the middle, in fractions of the picture. */
  const [middle, setMiddle] = useState({ x: 0.5, y: 0.5 });
  const [loaded, setLoaded] = useState<string[]>([]);
  const [isRight, setRight] = useState(false);
  const [failed, setFailed] = useState<string>();
  useEffect(() => {
    if (!flicker) return;
    const timer = setInterval(() => setRight((r) => !r), FLICKER_MS);
    return () => clearInterval(timer);
  }, [flicker]);
  // biome-ignore lint/correctness/useExhaustiveDependencies: other pictures, another try
  useEffect(() => setFailed(undefined), [left, right, over]);
  const whole = { x: row.width_px * zoom, y: row.height_px * zoom };
  /** Where the picture begins: never further in than the stage does, unless it is smaller. */
  const begins = (middle: number, shown: number, all: number) =>
    all < shown ? (shown - all) / 2 : Math.min(0, Math.max(shown - all, shown / 2 - middle * all));
  const at = {
    x: begins(middle.x, room.width, whole.x),
    y: begins(middle.y, room.height, whole.y),
  };
  const pan = useDrag(
    ({ offset: [x, y] }) =>
      setMiddle({ x: (room.width / 2 - x) / whole.x, y: (room.height / 2 - y) / whole.y }),
    { from: () => [at.x, at.y], pointer: { keys: false } },
  );
  const waits = [left, right, over].some((src) => src && !loaded.includes(src));
  const line = useDrag(
    ({ xy: [x], event }) => {
      event.stopPropagation();
      const box = stage.current?.getBoundingClientRect();
      if (box) setWipe(Math.min(1, Math.max(0, (x - box.left) / box.width)));
    },
    { pointer: { keys: false } },
  );
  const keys = (e: KeyboardEvent) => {
    const by = stepAlong(e);
    if (!by) return;
    e.preventDefault();
    setWipe(Math.min(1, Math.max(0, wipe + by / 100)));
  };
  const picture = (src: string, label: string) => (
    <img
      src={src}
      alt={label}
      draggable={false}
      onLoad={() => setLoaded((known) => [...known, src])}
      onError={() =>
        setFailed(
          "One of the pictures cannot be shown: its original has been removed or replaced since.",
        )
      }
      style={{
        width: whole.x,
        height: whole.y,
        transform: `translate(${at.x}px, ${at.y}px)`,
      }}
    />
  );
  return (
    <div className={classes.stage} ref={ref} aria-busy={waits && !failed} {...pan()}>
      {picture(left, "Left")}
      <div
        className={classes.over}
        style={
          flicker
            ? { visibility: isRight ? "visible" : "hidden" }
            : { clipPath: `inset(0 0 0 ${wipe * 100}%)` }
        }
      >
        {picture(right, "Right")}
        {over && picture(over, "Where it differs")}
      </div>
      {!flicker && (
        <div
          className={classes.line}
          style={{ left: `${wipe * 100}%` }}
          role="slider"
          tabIndex={0}
          aria-label="Where left ends and right begins"
          aria-valuemin={0}
          aria-valuemax={100}
          aria-valuenow={Math.round(wipe * 100)}
          onKeyDown={keys}
          {...line()}
        />
      )}
      {waits && !failed && (
        <p className={classes.told} role="status">
          {over && !loaded.includes(over) ? "Finding where it differs…" : "Getting the pictures…"}
        </p>
      )}
      {failed && (
        <p className={classes.told} role="alert">
          {failed}
        </p>
      )}
    </div>
  );
}
