/**
 * The site: breakpoints, range, style of conditions, formats and densities, qualities, names,
 * container, heights.
 */
import { Button, TextInput } from "@mantine/core";
import { useState } from "react";
import { useParams } from "react-router";
import { ProblemError } from "../api/client";
import { type Site, type SitePlan, useChangeSite, useSite } from "../api/queries";
import { PeopleSection } from "../people/PeopleSection";
import { Bar } from "../ui/Shell";
import { Failure, Rows } from "../ui/states";
import { AudienceTable } from "./AudienceTable";
import { parseBreakpoints } from "./BreakpointsInput";
import { Files } from "./Files";
import { FoundWidths } from "./FoundWidths";
import { HandOverFields } from "./HandOverFields";
import { Ladders } from "./Ladders";
import { LanguageFields } from "./LanguageFields";
import { NamedFrames } from "./NamedFrames";
import { NamingFields } from "./NamingFields";
import { PageColours } from "./PageColours";
import { RemoveSite } from "./RemoveSite";
import { Row } from "./Row";
import { ServiceFields } from "./ServiceFields";
import classes from "./Settings.module.css";
import { Container, ScreenHeights } from "./Surroundings";
import { TypefaceField } from "./TypefaceField";
import { MediaConditions, Widths } from "./Widths";

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
  const [name, setName] = useState(site.name);
  const [plan, setPlan] = useState<SitePlan>(site.plan);
  const [breakpoints, setBreakpoints] = useState(site.plan.breakpoints.join(", "));
  const touched =
    name !== site.name || plan !== site.plan || breakpoints !== site.plan.breakpoints.join(", ");
  const set = (values: Partial<SitePlan>) => setPlan((p) => ({ ...p, ...values }));
  const error = change.error instanceof ProblemError ? change.error : undefined;
  const save = () =>
    change.mutate({
      name,
      revision: site.revision,
      plan: { ...plan, breakpoints: parseBreakpoints(breakpoints) },
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
        <Widths
          plan={plan}
          set={set}
          breakpoints={breakpoints}
          setBreakpoints={setBreakpoints}
          error={error?.at("plan", "breakpoints")}
        />
        <FoundWidths
          plan={{ ...plan, breakpoints: parseBreakpoints(breakpoints) }}
          set={set}
          siteId={site.id}
          setBreakpoints={setBreakpoints}
        />
        <MediaConditions plan={plan} set={set} />
        <Container plan={plan} set={set} />
        <NamedFrames
          plan={plan}
          set={set}
          siteId={site.id}
          letters={site.spans.map((s) => s.letter)}
        />
        <PageColours plan={plan} set={set} />
        <TypefaceField plan={plan} set={set} />
        <LanguageFields plan={plan} set={set} error={error} />
        <Files plan={plan} set={set} />
        <Ladders plan={plan} set={set} />
        <NamingFields plan={plan} set={set} site={site} />
        <HandOverFields plan={plan} set={set} siteId={site.id} error={error} />
        <ServiceFields plan={plan} set={set} siteId={site.id} error={error} />
        <AudienceTable plan={plan} set={set} siteId={site.id} />
        <ScreenHeights plan={plan} set={set} />
        <Row label="Take along">
          <div className={classes.inline}>
            <Button component="a" variant="default" href={`/api/sites/${site.id}/archive.zip`}>
              Export with its originals
            </Button>
            <Button component="a" variant="default" href={`/api/sites/${site.id}/site.json`}>
              site.json alone
            </Button>
          </div>
          <p className="soft">
            The zip can be imported on another installation. From site.json and a folder of
            originals a build makes the same files: skypane export site.json originals/ out/
          </p>
        </Row>
        <Row label="People">
          <PeopleSection siteId={site.id} />
        </Row>
        <RemoveSite site={site} />
      </div>
    </>
  );
}
