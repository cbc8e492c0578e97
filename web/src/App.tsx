import { Loader } from "@mantine/core";
import { Navigate, Route, Routes, useParams } from "react-router";
import { useSession } from "./api/queries";
import * as screens from "./screens";
import { Shell } from "./ui/Shell";
import { Empty, Failure } from "./ui/states";

export function App() {
  const session = useSession();
  if (session.isPending) return <Loader m="xl" aria-label="Loading" />;
  if (session.isError) return <Failure error={session.error} again={() => session.refetch()} />;
  const welcome = <Route path="/welcome/:token" element={<screens.Welcome />} />;
  if (!session.data.name)
    return (
      <Routes>
        {welcome}
        <Route path="*" element={<screens.SignIn demo={session.data.demo} />} />
      </Routes>
    );
  return (
    <Routes>
      {welcome}
      <Route element={<Shell />}>
        <Route path="/" element={<screens.Sites />} />
        <Route path="/sites/:siteId" element={<ToPlacements />} />
        <Route path="/sites/:siteId/placements" element={<screens.Placements />} />
        <Route path="/sites/:siteId/pages/:pageId" element={<screens.Page />} />
        <Route path="/sites/:siteId/remedies" element={<screens.Remedies />} />
        <Route path="/sites/:siteId/originals" element={<screens.Originals />} />
        <Route path="/sites/:siteId/deliveries" element={<screens.Deliveries />} />
        <Route path="/sites/:siteId/settings" element={<screens.Settings />} />
        <Route path="/sites/:siteId/placements/:placementId" element={<screens.Desk />} />
        <Route path="/sites/:siteId/placements/:placementId/:step" element={<screens.Desk />} />
        <Route path="*" element={<Empty title="There is nothing at this address." />} />
      </Route>
    </Routes>
  );
}

function ToPlacements() {
  return <Navigate to={`/sites/${useParams().siteId}/placements`} replace />;
}
