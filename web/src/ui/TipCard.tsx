import { Tooltip } from "@mantine/core";

export default function TipCard({
  id,
  label,
  target,
}: {
  id: string;
  label: string;
  target: HTMLElement;
}) {
  return <Tooltip id={id} label={label} target={target} opened multiline maw={320} />;
}
