/** The site: breakpoints, range, style of conditions, formats and densities, qualities, names, container, heights. */
import { Button, Checkbox, Group, SegmentedControl, TextInput } from "@mantine/core";
import { type ReactNode, useState } from "react";
import { useNavigate, useParams } from "react-router";
import { ProblemError } from "../api/client";
import { type Site, type SitePlan, useChangeSite, useRemoveSite, useSite } from "../api/queries";
import { NumberField } from "../desk/ground/frame/NumberField";
import { PeopleSection } from "../people/PeopleSection";
import { range } from "../ui/format";
import { Letter } from "../ui/Letter";
import { Bar } from "../ui/Shell";
import { Failure, Rows } from "../ui/states";
import { BreakpointsInput, parseBreakpoints } from "./BreakpointsInput";
import classes from "./Settings.module.css";

export function SettingsPage() {
  const id = Number(useParams().siteId);
  const site = useSite(id);
  const change = useChangeSite(id);
  if (site.isError) return <Failure error={site.error} again={() => site.refetch()} />;
  if (!site.data) return <Rows n={5} />;
  return <Settings key={site.data.revision} site={site.data} change={change} />;
}

/** `change` outlives the form, which begins anew with what was saved. */
function Settings({ site, change }: { site: Site; change: ReturnType<typeof useChangeSite> }) {
  const remove = useRemoveSite();
  const navigate = useNavigate();
  const [name, setName] = useState(site.name);
  const [plan, setPlan] = useState<SitePlan>(site.plan);
  const [breakpoints, setBreakpoints] = useState((site.plan.breakpoints ?? []).join(", "));
  const [sure, setSure] = useState(false);
  const touched = name !== site.name || plan !== site.plan || breakpoints !== (site.plan.breakpoints ?? []).join(", ");
  const set = (values: Partial<SitePlan>) => setPlan((p) => ({ ...p, ...values }));
  const error = change.error instanceof ProblemError ? change.error : undefined;
  const save = () =>
    change.mutate({
      name,
      revision: site.revision,
      plan: { ...plan, breakpoints: parseBreakpoints(breakpoints) } as never,
    });
  return (
    <>
      <Bar
        title="Site"
        right={
          <Button onClick={save} loading={change.isPending}>
            Save
          </Button>
        }
      >
        <span className="soft" role="status">
          {touched ? "Not saved yet" : change.isSuccess ? "Saved" : ""}
        </span>
      </Bar>
      <div className={classes.form}>
        {error && (
          <div className={classes.error} role="alert">
            {error.message}
            {error.status === 409 && (
              <Button variant="default" onClick={() => window.location.reload()}>
                Load theirs
              </Button>
            )}
          </div>
        )}
        <Row label="Name">
          <TextInput
            aria-label="Name"
            value={name}
            onChange={(e) => setName(e.currentTarget.value)}
            error={error?.at("name")}
            maxLength={80}
          />
        </Row>
        <Row label="Widths">
          <div className={classes.inline}>
            <NumberField
              label="Narrowest viewport"
              before="from"
              unit="px"
              value={plan.narrowest ?? 320}
              set={(v) => set({ narrowest: v })}
            />
            <NumberField
              label="Widest viewport"
              before="to"
              unit="px"
              value={plan.widest ?? 2560}
              set={(v) => set({ widest: v })}
            />
          </div>
          <BreakpointsInput value={breakpoints} onChange={setBreakpoints} error={error?.at("plan", "breakpoints")} />
          <div className={classes.inline}>
            {site.spans.map((s) => (
              <label key={s.letter} className={classes.title}>
                <Letter of={s.letter} />
                <span>{range(s.first, s.last)}</span>
                <TextInput
                  aria-label={`Title of span ${s.letter}, used in file names`}
                  placeholder={s.letter.toLowerCase()}
                  value={plan.titles?.[s.letter] ?? ""}
                  onChange={(e) => set({ titles: { ...plan.titles, [s.letter]: e.currentTarget.value } })}
                  styles={{ input: { width: 100 } }}
                />
              </label>
            ))}
          </div>
          <p className="soft">A title takes the letter's place in file names: lighthouse--narrow@2x.avif.</p>
        </Row>
        <Row label="Media conditions">
          <SegmentedControl
            size="xs"
            aria-label="Style of media conditions"
            value={plan.media_style ?? "max-width"}
            onChange={(v) => set({ media_style: v as SitePlan["media_style"] })}
            data={[
              { value: "max-width", label: "max-width" },
              { value: "min-width", label: "min-width" },
              { value: "range", label: "range" },
            ]}
          />
          <p className="soft">
            {
              {
                "max-width": "Tested narrowest first: (max-width: 599px).",
                "min-width": "Tested widest first: (min-width: 600px).",
                range: "Tested narrowest first and without a hole for fractional widths: (width < 600px).",
              }[plan.media_style ?? "max-width"]
            }
          </p>
        </Row>
        <Row label="Files">
          <Checkbox.Group value={plan.formats} onChange={(v) => set({ formats: v as SitePlan["formats"] })}>
            <Group>
              <Checkbox value="avif" label="AVIF" />
              <Checkbox value="webp" label="WebP" />
              <Checkbox value="jpeg" label="JPEG (PNG where there is transparency)" />
            </Group>
          </Checkbox.Group>
          <Checkbox.Group
            value={(plan.densities ?? [1, 2]).map(String)}
            onChange={(v) => set({ densities: v.map(Number).sort((a, b) => a - b) })}
          >
            <Group>
              <Checkbox value="1" label="1x" />
              <Checkbox value="2" label="2x" />
              <Checkbox value="3" label="3x, bytes that few can see" />
            </Group>
          </Checkbox.Group>
          <div className={classes.inline}>
            {(["avif", "webp", "jpeg"] as const).map((f) => (
              <NumberField
                key={f}
                label={`Quality of ${f}`}
                before={{ avif: "AVIF", webp: "WebP", jpeg: "JPEG" }[f]}
                unit="quality"
                value={plan.quality?.[f] ?? 0}
                set={(v) => set({ quality: { ...plan.quality, [f]: v } as SitePlan["quality"] })}
              />
            ))}
          </div>
          <NumberField
            label="Budget of a picture"
            before="Budget of one picture"
            unit="kB"
            value={(plan.budget_bytes ?? 150000) / 1000}
            set={(v) => set({ budget_bytes: Math.round(v * 1000) })}
          />
        </Row>
        <Row label="Container">
          <div className={classes.inline}>
            <NumberField
              label="Greatest width of the container"
              before="at most"
              unit="px"
              value={plan.container?.max_width_px ?? 1080}
              set={(v) => set({ container: { ...plan.container, max_width_px: v } })}
            />
            <NumberField
              label="Margin of the container"
              before="margin"
              unit="px on both sides"
              value={plan.container?.margin_px ?? 20}
              set={(v) => set({ container: { ...plan.container, margin_px: v } })}
            />
          </div>
        </Row>
        <Row label="Screen heights">
          {(plan.heights ?? []).map((h, i) => (
            <div key={h.to_px} className={classes.inline}>
              <span style={{ width: 130 }}>
                {i === (plan.heights?.length ?? 0) - 1 ? "wider" : `up to ${h.to_px} px wide`}
              </span>
              {(["least_px", "typical_px", "greatest_px"] as const).map((k) => (
                <NumberField
                  key={k}
                  label={`${k.replace("_px", "")} height up to ${h.to_px}`}
                  before={k.replace("_px", "")}
                  unit="px"
                  value={h[k]}
                  set={(v) => set({ heights: plan.heights?.map((x, n) => (n === i ? { ...x, [k]: v } : x)) })}
                />
              ))}
            </div>
          ))}
          <p className="soft">Frames in vh are read over this range; panes show the typical height.</p>
        </Row>
        <Row label="People">
          <PeopleSection siteId={site.id} />
        </Row>
        <Row label="Remove">
          {sure ? (
            <div className={classes.inline}>
              <Button color="red" onClick={() => remove.mutate(site.id, { onSuccess: () => navigate("/") })}>
                Remove {site.name} for good
              </Button>
              <Button variant="default" onClick={() => setSure(false)}>
                Keep it
              </Button>
            </div>
          ) : (
            <Button variant="default" onClick={() => setSure(true)} style={{ justifySelf: "start" }}>
              Remove this site…
            </Button>
          )}
        </Row>
      </div>
    </>
  );
}

function Row({ label, children }: { label: string; children: ReactNode }) {
  return (
    <section className={classes.row} aria-label={label}>
      <h2>{label}</h2>
      <div className={classes.fields}>{children}</div>
    </section>
  );
}
