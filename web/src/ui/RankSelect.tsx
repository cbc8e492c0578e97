/** The rank of a heading in its page; without one of its own it has the site's. */
import { Select } from "@mantine/core";

interface Props {
  label: string;
  value: number | null | undefined;
  set: (rank: number | null) => void;
  /** The site's own, where a placement may leave it to the site. */
  site?: number;
}

export function RankSelect({ label, value, set, site }: Props) {
  const ranks = [1, 2, 3, 4, 5, 6].map((n) => ({ value: String(n), label: `h${n}` }));
  const left = site ? [{ value: "", label: `h${site}, the site's` }] : [];
  return (
    <Select
      size="xs"
      label={label}
      w={site ? 130 : 90}
      allowDeselect={false}
      value={value ? String(value) : ""}
      onChange={(v) => set(v ? Number(v) : null)}
      data={[...left, ...ranks]}
    />
  );
}
