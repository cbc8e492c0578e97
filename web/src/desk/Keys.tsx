import { Kbd, Modal, Table } from "@mantine/core";

const KEYS: [string[], string][] = [
  [["1", "…", "6"], "Frame, Aim, Words, Files, Code, Proof"],
  [["S"], "Lower the sky to a strip, or raise it again"],
  [["N"], "See the page in the dark, or as usual"],
  [["R"], "See it at rest, where less motion is asked for"],
  [["T"], "See it on screens that all stand upright, that all lie, or as they stand"],
  [["P"], "See it with pictures on their way, with pictures that failed, or with all of them"],
  [["F"], "See what browsers take that know no AVIF, nor WebP, or all formats"],
  [["G"], "On the stage: lay the design over it, or take it away"],
  [["Tab"], "On the stage: from handle to handle, in reading order"],
  [["[", "]"], "Previous and next span"],
  [["Ctrl", "Z"], "Undo"],
  [["Ctrl", "Shift", "Z"], "Redo"],
  [
    ["←", "→"],
    "Move the focused cursor, post, focal point, area or crop; with Shift ten times as far",
  ],
  [["↑", "↓"], "With the line between sky and ground focused: move it"],
  [["Alt", "←", "→"], "Resize the focused area or crop"],
  [["Alt", "↑", "↓"], "Move the focused handle to the next place to stop at"],
  [["D"], "Duplicate the focused area"],
  [["Delete"], "Remove the focused post or area"],
  [["Enter"], "Open the focused pane large"],
  [["Esc"], "Leave a field, so that keys are heard again"],
  [["?"], "This list"],
];

/** What can be done by keys. */
export function Keys({ close }: { close: () => void }) {
  return (
    <Modal opened onClose={close} title="Keys">
      <Table>
        <Table.Tbody>
          {KEYS.map(([keys, what]) => (
            <Table.Tr key={what}>
              <Table.Td style={{ whiteSpace: "nowrap" }}>
                {keys.map((k) => (k === "…" ? " … " : <Kbd key={k}>{k}</Kbd>))}
              </Table.Td>
              <Table.Td>{what}</Table.Td>
            </Table.Tr>
          ))}
        </Table.Tbody>
      </Table>
    </Modal>
  );
}
