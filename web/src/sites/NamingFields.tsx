/** What files are called: parts in their order, their leads, folders, with examples of it. */
import { SegmentedControl, TextInput } from "@mantine/core";
import { type Site, type SitePlan, useNameExamples } from "../api/queries";
import type { PlanProps } from "./planProps";
import { Row } from "./Row";
import classes from "./Settings.module.css";

type Parts = SitePlan["naming"]["parts"];
const ORDERS: Record<string, Parts> = {
  "name, span, size": ["name", "span", "size"],
  "name, size, span": ["name", "size", "span"],
  "span, name, size": ["span", "name", "size"],
};
const LEADS = [
  ["span_lead", "span"],
  ["density_lead", "density"],
  ["width_lead", "width"],
] as const;

export function NamingFields({ plan, set, site }: PlanProps & { site: Site }) {
  const { naming } = plan;
  const titles = site.spans.map((s) => plan.titles[s.letter] ?? "").filter(Boolean);
  const examples = useNameExamples(site.id, naming, titles, plan.hand_over.hashed);
  const put = (values: Partial<SitePlan["naming"]>) => set({ naming: { ...naming, ...values } });
  return (
    <Row label="Names">
      <div className={classes.inline}>
        <SegmentedControl
          size="xs"
          aria-label="Order of the parts of a file name"
          value={naming.parts.join(", ")}
          onChange={(order) => put({ parts: ORDERS[order] as Parts })}
          data={Object.keys(ORDERS)}
        />
        {LEADS.map(([field, word]) => (
          <label key={field} className={classes.title}>
            <span>before the {word}</span>
            <TextInput
              aria-label={`What stands before the ${word}`}
              value={naming[field]}
              maxLength={8}
              onChange={(e) => put({ [field]: e.currentTarget.value })}
              styles={{ input: { width: 56 } }}
              classNames={{ input: "num" }}
            />
          </label>
        ))}
      </div>
      <SegmentedControl
        size="xs"
        aria-label="Folders"
        value={naming.folder}
        onChange={(v) => put({ folder: v as SitePlan["naming"]["folder"] })}
        data={[
          { value: "none", label: "all in one folder" },
          { value: "page", label: "a folder per page" },
          { value: "placement", label: "a folder per placement" },
        ]}
      />
      {examples.error ? (
        <p className={classes.refused} role="alert">
          {examples.error.message}
        </p>
      ) : (
        <p className={classes.examples}>
          {examples.data?.map((name) => (
            <code key={name}>{name}</code>
          ))}
        </p>
      )}
    </Row>
  );
}
