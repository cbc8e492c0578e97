import { ActionIcon, Menu } from "@mantine/core";
import { IconDots } from "@tabler/icons-react";

/** What else can be done with a thing, under three dots. */
export function More({ label, items }: { label: string; items: [string, () => void][] }) {
  return (
    <Menu position="bottom-end">
      <Menu.Target>
        <ActionIcon variant="subtle" aria-label={label} color="gray">
          <IconDots size={16} />
        </ActionIcon>
      </Menu.Target>
      <Menu.Dropdown>
        {items.map(([text, run]) => (
          <Menu.Item key={text} onClick={run} color={text.startsWith("Remove") ? "red" : undefined}>
            {text}
          </Menu.Item>
        ))}
      </Menu.Dropdown>
    </Menu>
  );
}
