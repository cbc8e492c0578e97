/** The screens of the application, each a piece of its own. */
import { later } from "./ui/later";
import { Rows } from "./ui/states";

export const Sites = later(() => import("./sites/SitesPage").then((m) => m.SitesPage));
export const Placements = later(() =>
  import("./placements/PlacementsPage").then((m) => m.PlacementsPage),
);
export const Page = later(() => import("./pages/PageScreen").then((m) => m.PageScreen));
export const Remedies = later(() =>
  import("./placements/RemediesPage").then((m) => m.RemediesPage),
);
export const Originals = later(() =>
  import("./originals/OriginalsPage").then((m) => m.OriginalsPage),
);
export const Deliveries = later(() =>
  import("./deliveries/DeliveriesPage").then((m) => m.DeliveriesPage),
);
export const Settings = later(() => import("./sites/SettingsPage").then((m) => m.SettingsPage));
export const Desk = later(
  () => import("./desk/Desk").then((m) => m.DeskPage),
  () => <Rows n={3} height={180} />,
);
export const SignIn = later(() => import("./sites/SignIn").then((m) => m.SignIn));
export const Welcome = later(() => import("./people/WelcomePage").then((m) => m.WelcomePage));

const BY_ADDRESS: readonly [RegExp, { load: () => Promise<unknown> }][] = [
  [/^\/$/, Sites],
  [/^\/sites\/\d+(\/placements)?\/?$/, Placements],
  [/^\/sites\/\d+\/placements\//, Desk],
  [/^\/sites\/\d+\/pages\//, Page],
  [/^\/sites\/\d+\/remedies/, Remedies],
  [/^\/sites\/\d+\/originals/, Originals],
  [/^\/sites\/\d+\/deliveries/, Deliveries],
  [/^\/sites\/\d+\/settings/, Settings],
  [/^\/welcome\//, Welcome],
];

/** The screen at an address is asked for at once, beside what it shows. */
export function loadAhead(address: string) {
  // a failure is told where the screen would stand
  BY_ADDRESS.find(([at]) => at.test(address))?.[1]
    .load()
    .catch(() => undefined);
}
