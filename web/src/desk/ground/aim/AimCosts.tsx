/** What each way to aim comes to in the chosen span, and what percentages alone could do. */
import { Button, Popover, Table } from "@mantine/core";
import { useDisclosure } from "@mantine/hooks";
import { useEffect } from "react";
import type { Schemas, Told } from "../../../api/client";
import type { Treatment } from "../../../api/queries";
import { percent } from "../../../ui/format";
import { Rows } from "../../../ui/states";
import { useWork } from "../../context";
import ground from "../Ground.module.css";

type Cost = Told<Schemas["AimCost"]>;

const name = (c: Cost): string =>
  c.aim.kind === "fixed"
    ? `fixed ${percent(c.aim.x)}, ${percent(c.aim.y)}`
    : !c.aim.areas
      ? "focal point"
      : "areas first";

const comesTo = (c: Cost): string =>
  c.whole_widths === c.widths
    ? "all whole at every width"
    : `all whole at ${c.whole_widths} of ${c.widths} widths${
        c.worst_area
          ? `; ${c.worst_area} ${percent(1 - c.worst_share)} out of view at ${c.worst_at}`
          : ""
      }`;

interface Props {
  set: (values: Treatment) => void;
}

export function AimCosts({ set }: Props) {
  const { span, reading, askCosts } = useWork();
  const [opened, { toggle, close }] = useDisclosure();
  useEffect(() => {
    askCosts(opened);
    return () => askCosts(false);
  }, [opened, askCosts]);
  const detail = reading.detail?.letter === span.letter ? reading.detail : undefined;
  if (!span.outline || !span.keeps?.length) return null;
  return (
    <Popover
      opened={opened}
      onChange={(o) => !o && close()}
      position="top-start"
      shadow="md"
      trapFocus
      width={520}
    >
      <Popover.Target>
        <button
          type="button"
          className="plain"
          onClick={toggle}
          aria-expanded={opened}
          title="What each way to aim costs in this span"
        >
          compare…
        </button>
      </Popover.Target>
      <Popover.Dropdown>
        {detail?.aims?.length ? (
          <div className={ground.stack}>
            <Table verticalSpacing={4}>
              <Table.Tbody>
                {detail.aims.map((c) => (
                  <Table.Tr key={name(c)}>
                    <Table.Td style={{ whiteSpace: "nowrap", fontWeight: 600 }}>{name(c)}</Table.Td>
                    <Table.Td>
                      {comesTo(c)}
                      <br />
                      <code className="soft" style={{ overflowWrap: "anywhere" }}>
                        {c.css.length > 90 ? `${c.css.slice(0, 88)}…` : c.css}
                      </code>
                    </Table.Td>
                  </Table.Tr>
                ))}
              </Table.Tbody>
            </Table>
            <strong>For hand-overs that can only take percentages</strong>
            <Percents by={detail.percents} set={set} />
          </div>
        ) : (
          <Rows n={1} height={190} />
        )}
      </Popover.Dropdown>
    </Popover>
  );
}

function Percents({ by, set }: Props & { by: Schemas["ByPercents"] | null | undefined }) {
  const { addPosts } = useWork();
  if (!by) return null;
  const { x, y, serves, breakpoints: posts } = by;
  if (x == null || y == null)
    return (
      <span>
        At no width here does any percentage keep all areas whole: see the advice for this span.
      </span>
    );
  const pair = `${percent(x)} across and ${percent(y)} down`;
  const where = serves.map(([first, last]) => `from ${first} to ${last}`).join(" and ");
  return (
    <div style={{ display: "flex", flexWrap: "wrap", gap: 10, alignItems: "center" }}>
      <span>
        {pair} keep every area whole {where}.
        {posts.length > 0 &&
          ` At the other widths no percentage does: ${posts.length === 1 ? "a post" : "posts"} at ${posts.join(", ")} would part them.`}
      </span>
      {posts.length > 0 && (
        <Button onClick={() => addPosts([...posts])}>
          Add {posts.length === 1 ? "the post" : "the posts"}
        </Button>
      )}
      <Button variant="default" onClick={() => set({ aim: { kind: "fixed", x, y } })}>
        Use them
      </Button>
    </div>
  );
}
