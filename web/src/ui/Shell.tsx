/** The application's frame: name, the site's screens, who is signed in. */
import type { ReactNode } from "react";
import { Link, NavLink, Outlet, useMatch } from "react-router";
import { useSession, useSite } from "../api/queries";
import { UPLOADS } from "../originals/Uploads";
import { later } from "./later";
import { Mark } from "./Mark";
import classes from "./Shell.module.css";

const Person = later(
  () => import("./Person").then((m) => m.Person),
  ({ name }) => <span className={classes.who}>{name}</span>,
);

const SCREENS = [
  ["placements", "Placements"],
  ["originals", "Originals"],
  ["deliveries", "Deliveries"],
  ["settings", "Site"],
] as const;

export function Shell() {
  const site = Number(useMatch("/sites/:siteId/*")?.params.siteId) || undefined;
  const session = useSession();
  return (
    <div className={classes.shell}>
      <a href="#main" className={classes.skip}>
        Skip to the content
      </a>
      <header className={classes.header}>
        <Link to="/" className={classes.name}>
          <Mark width={28} />
          Sky Pane
        </Link>
        {site && (
          <nav aria-label="Site" className={classes.nav}>
            {SCREENS.map(([path, label]) => (
              <NavLink key={path} to={`/sites/${site}/${path}`} className={classes.link}>
                {label}
              </NavLink>
            ))}
          </nav>
        )}
        <div className={classes.right}>
          {site && <SiteName id={site} />}
          <Person name={session.data?.name ?? ""} />
        </div>
      </header>
      <main id="main" className={classes.main}>
        <Outlet />
      </main>
      <div id={UPLOADS} className={classes.uploads} />
    </div>
  );
}

function SiteName({ id }: { id: number }) {
  const site = useSite(id);
  return (
    <Link to="/" className={classes.site} title="All sites">
      {site.data?.name}
      {site.data?.role === "look" && <span className={classes.role}>to look at</span>}
    </Link>
  );
}

/** A screen's own bar: title on the left, what can be done on the right. */
export function Bar({
  title,
  children,
  right,
}: {
  title: ReactNode;
  children?: ReactNode;
  right?: ReactNode;
}) {
  return (
    <div className={classes.bar}>
      <h1 className={classes.title}>{title}</h1>
      <div className={classes.middle}>{children}</div>
      <div className={classes.right}>{right}</div>
    </div>
  );
}
