import { TextInput } from "@mantine/core";
import { useEffect, useRef, useState } from "react";
import { typedRatio } from "../../../ui/format";

const USUAL = ["1:1", "4:5", "3:2", "16:9", "2:1"];

interface Props {
  w: number;
  h: number;
  set: (r: { w: number; h: number }) => void;
  /** It has just been asked for: what is typed takes the place of what stands there. */
  asks?: boolean;
}

/** A ratio as `4:5` or `2.4`. */
export function RatioField({ w, h, set, asks = false }: Props) {
  const input = useRef<HTMLInputElement>(null);
  useEffect(() => {
    if (asks) input.current?.select();
  }, [asks]);
  const [text, setText] = useState(`${w}:${h}`);
  useEffect(() => {
    setText((t) => {
      const r = typedRatio(t);
      return r && r.w === w && r.h === h ? t : `${w}:${h}`;
    });
  }, [w, h]);
  return (
    <>
      <TextInput
        ref={input}
        aria-label="Ratio, width to height"
        value={text}
        list="usual-ratios"
        error={typedRatio(text) ? undefined : "like 4:5"}
        onChange={(e) => {
          setText(e.currentTarget.value);
          const r = typedRatio(e.currentTarget.value);
          if (r) set(r);
        }}
        styles={{ input: { width: 72 }, error: { fontSize: 11 } }}
      />
      <datalist id="usual-ratios">
        {USUAL.map((u) => (
          <option key={u} value={u} />
        ))}
      </datalist>
    </>
  );
}
