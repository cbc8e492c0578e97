/**
 * The page exported as one page with all its pictures; the run is followed among the deliveries.
 */
import { Button } from "@mantine/core";
import { useNavigate } from "react-router";
import { useStartSiteDelivery } from "../api/deliveries";

export function ExportPage({ siteId, pageId }: { siteId: number; pageId: number }) {
  const start = useStartSiteDelivery(siteId);
  const navigate = useNavigate();
  return (
    <>
      {start.error && <span role="alert">{start.error.message}</span>}
      <Button
        loading={start.isPending}
        onClick={() =>
          start.mutate(pageId, { onSuccess: () => navigate(`/sites/${siteId}/deliveries`) })
        }
      >
        Export the page
      </Button>
    </>
  );
}
