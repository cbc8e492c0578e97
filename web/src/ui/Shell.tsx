/** The application's frame: name, the site's screens, who is signed in. */
import { Menu, Modal, UnstyledButton, useMantineColorScheme } from "@mantine/core";
import { useDisclosure } from "@mantine/hooks";
import type { ReactNode } from "react";
import { Link, NavLink, Outlet, useMatch } from "react-router";
import { useSession, useSignOut, useSite } from "../api/queries";
import { UPLOADS } from "../originals/Uploads";
import { PasswordForm } from "../people/PasswordForm";
import { Mark } from "./Mark";
import classes from "./Shell.module.css";

const SCREENS = [
  ["placements", "Placements"],
  ["originals", "Originals"],
  ["deliveries", "Deliveries"],
  ["settings", "Site"],
] as const;

export function Shell() {
  const site = Number(useMatch("/sites/:siteId/*")?.params.siteId) || undefined;
  const session = useSession();
  const signOut = useSignOut();
  const { colorScheme, setColorScheme } = useMantineColorScheme();
  const [password, { open: openPassword, close: closePassword }] = useDisclosure();
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
          {signOut.error && <span role="alert">{signOut.error.message}</span>}
          {site && <SiteName id={site} />}
          <Menu position="bottom-end" width={180}>
            <Menu.Target>
              <UnstyledButton className={classes.who}>{session.data?.name}</UnstyledButton>
            </Menu.Target>
            <Menu.Dropdown>
              <Menu.Label>Colours</Menu.Label>
              {(["light", "dark", "auto"] as const).map((scheme) => (
                <Menu.Item key={scheme} onClick={() => setColorScheme(scheme)} fw={scheme === colorScheme ? 700 : 400}>
                  {scheme === "auto" ? "As the system" : scheme === "light" ? "Light" : "Dark"}
                </Menu.Item>
              ))}
              <Menu.Divider />
              <Menu.Item onClick={openPassword}>Change password…</Menu.Item>
              <Menu.Item onClick={() => signOut.mutate(undefined)}>Sign out</Menu.Item>
            </Menu.Dropdown>
          </Menu>
        </div>
      </header>
      <Modal opened={password} onClose={closePassword} title="Change your password">
        <PasswordForm done={closePassword} />
      </Modal>
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
export function Bar({ title, children, right }: { title: ReactNode; children?: ReactNode; right?: ReactNode }) {
  return (
    <div className={classes.bar}>
      <h1 className={classes.title}>{title}</h1>
      <div className={classes.middle}>{children}</div>
      <div className={classes.right}>{right}</div>
    </div>
  );
}
