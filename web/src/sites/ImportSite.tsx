/** A new site out of an exported one. */
import { Button, FileButton } from "@mantine/core";
import { useNavigate } from "react-router";
import { useImportSite } from "../api/queries";
import classes from "./SitesPage.module.css";

export function ImportSite() {
  const bring = useImportSite();
  const navigate = useNavigate();
  return (
    <>
      {bring.error && (
        <span role="alert" className={classes.refused}>
          {bring.error.message}
        </span>
      )}
      <FileButton
        accept=".zip,application/zip"
        onChange={(file) =>
          file &&
          bring.mutate(file, { onSuccess: (site) => navigate(`/sites/${site.id}/placements`) })
        }
      >
        {(props) => (
          <Button variant="default" loading={bring.isPending} {...props}>
            Import…
          </Button>
        )}
      </FileButton>
    </>
  );
}
