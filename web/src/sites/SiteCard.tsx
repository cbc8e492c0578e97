/** A site in the list: a strip of its first screens, how it fares, and when it was delivered last. */
import { Link } from "react-router";
import type { Schemas } from "../api/client";
import { StripFrame } from "../placements/StripFrame";
import { plural } from "../ui/format";
import classes from "./SitesPage.module.css";

export function SiteCard({ site }: { site: Schemas["SiteRow"] }) {
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
        <Health site={site} />
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
        {site.shown.map((p) => (
          <figure key={p.id} className={classes.lead}>
            <div>
              {p.strip.map((f) => (
                <StripFrame key={f.letter} frame={f} height={104} />
              ))}
            </div>
            <figcaption>{p.name}</figcaption>
          </figure>
        ))}
        {site.placements > site.shown.length && <span>and {site.placements - site.shown.length} more</span>}
        {site.placements === 0 && <span>No placement yet: drop pictures on its page.</span>}
      </div>
    </Link>
  );
}

const ROLES: Record<string, string> = { edit: "shared with you", look: "shared, to look at" };

function Health({ site }: { site: Schemas["SiteRow"] }) {
  if (!site.placements) return <span />;
  if (!site.findings && !site.failing) return <span className={classes.good}>no findings</span>;
  return (
    <span className={classes.bad}>
      {plural(site.findings, "finding")} in {plural(site.failing, "placement")}
    </span>
  );
}
