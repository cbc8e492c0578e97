import { Button } from "@mantine/core";
import { useState } from "react";
import { useNavigate } from "react-router";
import { type Site, useRemoveSite } from "../api/queries";
import { Row } from "./Row";
import classes from "./Settings.module.css";

/** Asks once more before it is gone. */
export function RemoveSite({ site }: { site: Site }) {
  const remove = useRemoveSite();
  const navigate = useNavigate();
  const [sure, setSure] = useState(false);
  return (
    <Row label="Remove">
      {remove.error && (
        <div className={classes.error} role="alert">
          {remove.error.message}
        </div>
      )}
      {sure ? (
        <div className={classes.inline}>
          <Button
            color="red"
            onClick={() => remove.mutate(site.id, { onSuccess: () => navigate("/") })}
          >
            Remove {site.name} for good
          </Button>
          <Button variant="default" onClick={() => setSure(false)}>
            Keep it
          </Button>
        </div>
      ) : (
        <Button variant="default" onClick={() => setSure(true)} style={{ justifySelf: "start" }}>
          Remove this site…
        </Button>
      )}
    </Row>
  );
}
