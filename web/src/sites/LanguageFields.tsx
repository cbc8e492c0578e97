/** The language of the site's pages, and what slideshows say to screen readers in it. */
import { TextInput } from "@mantine/core";
import type { ProblemError } from "../api/client";
import type { SitePlan } from "../api/queries";
import type { PlanProps } from "./planProps";
import { Row } from "./Row";
import classes from "./Settings.module.css";

const PHRASES: [keyof SitePlan["spoken"], string][] = [
  ["stop", "To stop the slides"],
  ["start", "To start them"],
  ["previous", "To the previous slide"],
  ["next", "To the next slide"],
  ["go_to", "To a slide"],
  ["pages", "Rows that are turned"],
  ["previous_page", "To the page before"],
  ["next_page", "To the next page"],
  ["place", "Which slide it is"],
  ["controls", "All controls"],
  ["slides", "All slides"],
  ["carousel", "What a slideshow is"],
  ["slide", "What one of its pictures is"],
];

export function LanguageFields({
  plan,
  set,
  error,
}: PlanProps & { error: ProblemError | undefined }) {
  const wrong = PHRASES.some(([field]) => error?.at(`spoken.${field}`));
  return (
    <Row label="Language">
      <TextInput
        label="Language of the pages"
        description="A language tag, such as en, de or pt-BR: exported pages say it, and screen readers speak it."
        w={260}
        maxLength={60}
        value={plan.language}
        onChange={(e) => set({ language: e.currentTarget.value })}
        error={error?.at("language")}
      />
      <details open={wrong || undefined}>
        <summary>What slideshows say to screen readers</summary>
        <p className="soft">
          In the language of the pages. {"{n}"} is the number of a slide, {"{all}"} how many there
          are, {"{name}"} the slideshow's name.
        </p>
        <div className={classes.phrases}>
          {PHRASES.map(([field, label]) => (
            <TextInput
              key={field}
              label={label}
              maxLength={80}
              value={plan.spoken[field]}
              onChange={(e) => set({ spoken: { ...plan.spoken, [field]: e.currentTarget.value } })}
              error={error?.at(`spoken.${field}`)}
            />
          ))}
        </div>
      </details>
    </Row>
  );
}
