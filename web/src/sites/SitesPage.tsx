import { Button, Modal, TextInput } from "@mantine/core";
import { useDisclosure } from "@mantine/hooks";
import { type FormEvent, useState } from "react";
import { useNavigate } from "react-router";
import { ProblemError } from "../api/client";
import { useMakeSite, useSites } from "../api/queries";
import { Bar } from "../ui/Shell";
import { Empty, Failure, Rows } from "../ui/states";
import { BreakpointsInput, parseBreakpoints } from "./BreakpointsInput";
import { ImportSite } from "./ImportSite";
import { SiteCard } from "./SiteCard";
import classes from "./SitesPage.module.css";

export function SitesPage() {
  const sites = useSites();
  const [open, { open: show, close }] = useDisclosure();
  return (
    <>
      <Bar
        title="Sites"
        right={
          <>
            <ImportSite />
            <Button onClick={show}>New site…</Button>
          </>
        }
      />
      <div className={classes.list}>
        {sites.isPending && <Rows n={2} height={190} />}
        {sites.isError && <Failure error={sites.error} again={() => sites.refetch()} />}
        {sites.data?.length === 0 && (
          <Empty title="No site yet.">
            <span>A site is one piece of work: its breakpoints, pages and pictures.</span>
            <Button onClick={show}>New site…</Button>
          </Empty>
        )}
        {sites.data?.map((s) => (
          <SiteCard key={s.id} site={s} />
        ))}
      </div>
      <Modal opened={open} onClose={close} title="New site">
        <NewSite />
      </Modal>
    </>
  );
}

function NewSite() {
  const make = useMakeSite();
  const navigate = useNavigate();
  const [name, setName] = useState("");
  const [breakpoints, setBreakpoints] = useState("599, 1023, 1599");
  const submit = (e: FormEvent) => {
    e.preventDefault();
    make.mutate(
      { name, plan: { breakpoints: parseBreakpoints(breakpoints) } },
      { onSuccess: (site) => navigate(`/sites/${site.id}/placements`) },
    );
  };
  const error = make.error instanceof ProblemError ? make.error : undefined;
  return (
    <form onSubmit={submit} style={{ display: "grid", gap: 12 }}>
      <TextInput
        label="Name"
        data-autofocus
        value={name}
        onChange={(e) => setName(e.currentTarget.value)}
        required
        maxLength={80}
        error={error?.at("name")}
      />
      <BreakpointsInput
        value={breakpoints}
        onChange={setBreakpoints}
        error={error && !error.at("name") ? error.message : undefined}
      />
      <Button type="submit" loading={make.isPending}>
        Make the site
      </Button>
    </form>
  );
}
