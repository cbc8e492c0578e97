/**
 * A site in the list: a strip of its first screens, how it fares, and when it was delivered last.
 */
import { Link } from "react-router";
import type { Schemas, Told } from "../api/client";
import { useGlance } from "../api/queries";
import { StripScreen } from "../placements/StripFrame";
import { plural } from "../ui/format";
import { Rows } from "../ui/states";
import classes from "./SitesPage.module.css";

export function SiteCard({ site }: { site: Schemas["SiteRow"] }) {
  const { data: glance, error } = useGlance(site.id);
  const facts = [
    plural(site.pages, "page"),
    plural(site.placements, "placement"),
    plural(site.originals, "original"),
    plural(site.spans, "span"),
  ];
  return (
    <Link to={`/sites/${site.id}/placements`} className={classes.card}>
      <div className={classes.head}>
        <strong>{site.name}</strong>
        <span>{facts.join(" · ")}</span>
        {site.role !== "owner" && <span className={classes.role}>{ROLES[site.role]}</span>}
        {glance && site.placements > 0 ? <Health of={glance} /> : <span />}
        <span className={classes.delivered}>
          {site.delivered ? (
            <>
              delivered{" "}
              <time dateTime={site.delivered}>
                {new Date(site.delivered).toLocaleDateString([], { dateStyle: "medium" })}
              </time>
            </>
          ) : (
            "not delivered yet"
          )}
        </span>
      </div>
      <div className={classes.strip}>
        {error && <span role="alert">{error.message}</span>}
        {!glance && !error && site.placements > 0 && <Rows n={1} height={104} />}
        {glance?.shown.map((p) => (
          <figure key={p.id} className={classes.lead}>
            <div>
              {p.strip.map((f) => (
                <StripScreen key={f.letter} screen={f} height={104} />
              ))}
            </div>
            <figcaption>{p.name}</figcaption>
          </figure>
        ))}
        {glance && site.placements > glance.shown.length && (
          <span>and {site.placements - glance.shown.length} more</span>
        )}
        {site.placements === 0 && <span>No placement yet: drop pictures on its page.</span>}
      </div>
    </Link>
  );
}

const ROLES: Record<string, string> = { edit: "shared with you", look: "shared, to look at" };

function Health({ of }: { of: Told<Schemas["Glance"]> }) {
  if (!of.findings && !of.failing) return <span className={classes.good}>no findings</span>;
  return (
    <span className={classes.bad}>
      {plural(of.findings, "finding")} in {plural(of.failing, "placement")}
    </span>
  );
}
