/**
 * A sentence beside what is pointed at or focused. What draws it is loaded when the first one is
 * asked for.
 */
import { lazy, type ReactNode, Suspense, useEffect, useId, useState } from "react";

const Card = lazy(() => import("./TipCard"));

interface Props {
  label: string;
  /** How long one has to stay there, in ms. */
  openDelay?: number;
  children: ReactNode;
}

export function Tip({ label, openDelay = 0, children }: Props) {
  const id = useId();
  const [here, setHere] = useState<HTMLElement>();
  const [at, setAt] = useState<HTMLElement>();
  const enter = (e: { currentTarget: HTMLElement }) =>
    setHere((e.currentTarget.firstElementChild as HTMLElement | null) ?? undefined);
  const leave = () => {
    setHere(undefined);
    setAt(undefined);
  };
  useEffect(() => {
    if (!here) return;
    const timer = setTimeout(() => setAt(here), openDelay);
    return () => clearTimeout(timer);
  }, [here, openDelay]);
  useEffect(() => {
    at?.setAttribute("aria-describedby", id);
    return () => at?.removeAttribute("aria-describedby");
  }, [at, id]);
  return (
    // biome-ignore lint/a11y/noStaticElementInteractions: it only listens to what happens to the element in it
    <span
      style={{ display: "contents" }}
      onPointerOver={enter}
      onPointerOut={leave}
      onFocus={enter}
      onBlur={leave}
      onPointerDown={leave}
      onKeyDown={(e) => e.key === "Escape" && leave()}
    >
      {children}
      {at && (
        <Suspense>
          <Card id={id} label={label} target={at} />
        </Suspense>
      )}
    </span>
  );
}
