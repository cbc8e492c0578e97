/** What the words say: heading, text and buttons, written once for all spans. */
import { Button, Popover, Textarea, TextInput } from "@mantine/core";
import { useDisclosure } from "@mantine/hooks";
import { RankSelect } from "../../../ui/RankSelect";
import { useWork } from "../../context";
import { useWords } from "./useWords";
import classes from "./Words.module.css";

export function WordsForm() {
  const { words, setWords, wordsProblem } = useWords();
  const { site } = useWork();
  const [opened, { toggle, close }] = useDisclosure(false);
  const { buttons } = words;
  const setButton = (i: number, values: Partial<(typeof buttons)[number]>) =>
    setWords(
      { buttons: buttons.map((b, j) => (j === i ? { ...b, ...values } : b)) },
      `button ${i}`,
    );
  return (
    <Popover
      opened={opened}
      onChange={(o) => !o && close()}
      position="top-start"
      shadow="md"
      trapFocus
      width={420}
    >
      <Popover.Target>
        <Button size="compact-xs" variant="default" onClick={toggle} aria-expanded={opened}>
          Edit…
        </Button>
      </Popover.Target>
      <Popover.Dropdown>
        <div className={classes.form}>
          <div className={classes.row}>
            <Textarea
              label="Heading"
              autosize
              minRows={1}
              maxRows={4}
              size="xs"
              style={{ flex: 1 }}
              value={words.heading}
              error={wordsProblem("heading")}
              onChange={(e) => setWords({ heading: e.currentTarget.value }, "heading")}
            />
            <RankSelect
              label="Rank"
              value={words.level}
              set={(level) => setWords({ level })}
              site={site.plan.heading_level}
            />
          </div>
          <Textarea
            label="Text"
            autosize
            minRows={2}
            maxRows={6}
            size="xs"
            value={words.text}
            error={wordsProblem("text")}
            onChange={(e) => setWords({ text: e.currentTarget.value }, "text")}
          />
          {buttons.map((b, i) => (
            // biome-ignore lint/suspicious/noArrayIndexKey: a button is its place while it is typed
            <div key={i} className={classes.link}>
              <TextInput
                label={`Button ${i + 1}`}
                value={b.label}
                error={wordsProblem(`buttons.${i}.label`)}
                onChange={(e) => setButton(i, { label: e.currentTarget.value })}
              />
              <TextInput
                label="leads to"
                style={{ flex: 1 }}
                value={b.href}
                error={wordsProblem(`buttons.${i}.href`)}
                onChange={(e) => setButton(i, { href: e.currentTarget.value })}
              />
              <button
                type="button"
                className="plain"
                onClick={() => setWords({ buttons: buttons.filter((_, j) => j !== i) })}
              >
                remove
              </button>
            </div>
          ))}
          {buttons.length < 2 && (
            <button
              type="button"
              className="plain"
              onClick={() => setWords({ buttons: [...buttons, { label: "More", href: "#" }] })}
            >
              + button
            </button>
          )}
        </div>
      </Popover.Dropdown>
    </Popover>
  );
}
