import { Loader } from "@mantine/core";
import { Navigate, Route, Routes, useParams } from "react-router";
import { useSession } from "./api/queries";
import { DeliveriesPage } from "./deliveries/DeliveriesPage";
import { DeskPage } from "./desk/Desk";
import { OriginalsPage } from "./originals/OriginalsPage";
import { PageScreen } from "./pages/PageScreen";
import { WelcomePage } from "./people/WelcomePage";
import { PlacementsPage } from "./placements/PlacementsPage";
import { RemediesPage } from "./placements/RemediesPage";
import { SettingsPage } from "./sites/SettingsPage";
import { SignIn } from "./sites/SignIn";
import { SitesPage } from "./sites/SitesPage";
import { Shell } from "./ui/Shell";
import { Empty, Failure } from "./ui/states";

export function App() {
  const session = useSession();
  if (session.isPending) return <Loader m="xl" aria-label="Loading" />;
  if (session.isError) return <Failure error={session.error} again={() => session.refetch()} />;
  const welcome = <Route path="/welcome/:token" element={<WelcomePage />} />;
  if (!session.data.name)
    return (
      <Routes>
        {welcome}
        <Route path="*" element={<SignIn demo={session.data.demo} />} />
      </Routes>
    );
  return (
    <Routes>
      {welcome}
      <Route element={<Shell />}>
        <Route path="/" element={<SitesPage />} />
        <Route path="/sites/:siteId" element={<ToPlacements />} />
        <Route path="/sites/:siteId/placements" element={<PlacementsPage />} />
        <Route path="/sites/:siteId/pages/:pageId" element={<PageScreen />} />
        <Route path="/sites/:siteId/remedies" element={<RemediesPage />} />
        <Route path="/sites/:siteId/originals" element={<OriginalsPage />} />
        <Route path="/sites/:siteId/deliveries" element={<DeliveriesPage />} />
        <Route path="/sites/:siteId/settings" element={<SettingsPage />} />
        <Route path="/sites/:siteId/placements/:placementId" element={<DeskPage />} />
        <Route path="/sites/:siteId/placements/:placementId/:step" element={<DeskPage />} />
        <Route path="*" element={<Empty title="There is nothing at this address." />} />
      </Route>
    </Routes>
  );
}

function ToPlacements() {
  return <Navigate to={`/sites/${useParams().siteId}/placements`} replace />;
}
