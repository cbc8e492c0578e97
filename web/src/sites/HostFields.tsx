/** What the system takes that shows the pages. */
import { Button, NativeSelect, NumberInput, TextInput } from "@mantine/core";
import type { ProblemError } from "../api/client";
import type { SitePlan } from "../api/queries";
import type { PlanProps } from "./planProps";
import classes from "./Settings.module.css";

type Host = SitePlan["hand_over"]["host"];

const TAKES: { value: Host["takes"]; label: string }[] = [
  { value: "markup", label: "HTML of our own" },
  { value: "rules", label: "style rules for an element that it has" },
  { value: "views", label: "another file for each of its views" },
  { value: "one", label: "one file and a place in it that stays in view" },
];
const MOST_VIEWS = 8;

export function HostFields({ plan, set, error }: PlanProps & { error: ProblemError | undefined }) {
  const { host } = plan.hand_over;
  const put = (values: Partial<Host>) =>
    set({ hand_over: { ...plan.hand_over, host: { ...host, ...values } } });
  const putView = (at: number, values: Partial<Host["views"][number]>) =>
    put({ views: host.views.map((v, i) => (i === at ? { ...v, ...values } : v)) });
  const problem = error?.at("plan", "hand_over", "host", "views");
  return (
    <>
      <NativeSelect
        label="What shows the pages takes"
        description="Code, and deliveries, have it as it is wanted there, and say what it cannot do."
        value={host.takes}
        onChange={(e) => put({ takes: e.currentTarget.value as Host["takes"] })}
        data={TAKES}
      />
      {host.takes === "views" && (
        <fieldset className={classes.views}>
          <legend>Its views, from the narrowest</legend>
          {host.views.map((view, i) => (
            // biome-ignore lint/suspicious/noArrayIndexKey: a view is its place
            <div key={i} className={classes.inline}>
              <TextInput
                size="xs"
                aria-label={`Name of view ${i + 1}`}
                value={view.name}
                maxLength={40}
                onChange={(e) => putView(i, { name: e.currentTarget.value })}
              />
              {i < host.views.length - 1 ? (
                <NumberInput
                  size="xs"
                  w={110}
                  hideControls
                  aria-label={`Greatest width of view ${i + 1}`}
                  prefix="to "
                  suffix=" px"
                  value={view.to_px ?? ""}
                  onChange={(v) => putView(i, { to_px: typeof v === "number" ? v : null })}
                />
              ) : (
                <span className="soft">all wider</span>
              )}
              {i < host.views.length - 1 && (
                <button
                  type="button"
                  className="plain"
                  aria-label={`Remove view ${i + 1}`}
                  onClick={() => put({ views: host.views.filter((_, at) => at !== i) })}
                >
                  remove
                </button>
              )}
            </div>
          ))}
          <Button
            size="compact-xs"
            variant="default"
            disabled={host.views.length >= MOST_VIEWS}
            onClick={() =>
              put({
                views: [
                  { name: "View", to_px: Math.max(320, (host.views[0]?.to_px ?? 961) - 200) },
                  ...host.views,
                ],
              })
            }
          >
            Add a view
          </Button>
          {problem && (
            <p className={classes.refused} role="alert">
              {problem}
            </p>
          )}
        </fieldset>
      )}
    </>
  );
}
