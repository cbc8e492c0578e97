/** The site's pages and their placements, each a strip of what its spans show, with its findings. */
import { ActionIcon, Button, Menu, Modal, TextInput } from "@mantine/core";
import { IconDots } from "@tabler/icons-react";
import { type FormEvent, useState } from "react";
import { Link, useNavigate, useParams } from "react-router";
import type { Schemas } from "../api/client";
import {
  useMakePage,
  useMakePlacement,
  usePlacements,
  useRemovePage,
  useRemovePlacement,
  useRenamePage,
  useSite,
} from "../api/queries";
import { plural } from "../ui/format";
import { Bar } from "../ui/Shell";
import { Empty, Failure, Rows } from "../ui/states";
import classes from "./Placements.module.css";
import { StripFrame } from "./StripFrame";

type Asking = { what: "page" } | { what: "rename"; id: number; title: string } | { what: "placement"; page: number };

export function PlacementsPage() {
  const siteId = Number(useParams().siteId);
  const site = useSite(siteId);
  const placements = usePlacements(siteId);
  const [asking, setAsking] = useState<Asking>();
  const removePage = useRemovePage(siteId);
  const remove = useRemovePlacement(siteId);
  const failing = placements.data?.filter((p) => p.findings.some((f) => f.rule === "area")).length ?? 0;
  const failed = site.error ?? placements.error;
  return (
    <>
      <Bar title="Placements" right={<Button onClick={() => setAsking({ what: "page" })}>New page…</Button>}>
        {failing > 0 && (
          <Link to={`/sites/${siteId}/remedies`} className={classes.failing}>
            Something is cut in {plural(failing, "placement")}: remedies…
          </Link>
        )}
      </Bar>
      <div className={classes.pages}>
        {failed && <Failure error={failed} again={() => placements.refetch()} />}
        {!failed && (site.isPending || placements.isPending) && <Rows n={4} height={110} />}
        {site.data?.pages.length === 0 && (
          <Empty title="No page yet.">
            <span>Pages hold placements: the spots where pictures show, in reading order.</span>
            <Button onClick={() => setAsking({ what: "page" })}>New page…</Button>
          </Empty>
        )}
        {placements.data &&
          site.data?.pages.map((page) => {
            const mine = placements.data.filter((p) => p.page_id === page.id);
            return (
              <section key={page.id} className={classes.page} aria-label={page.title}>
                <header>
                  <h2>{page.title}</h2>
                  <span className="soft">{plural(mine.length, "placement")}</span>
                  <Button variant="subtle" onClick={() => setAsking({ what: "placement", page: page.id })}>
                    + placement
                  </Button>
                  <More
                    label={`More for ${page.title}`}
                    items={[
                      ["Rename…", () => setAsking({ what: "rename", id: page.id, title: page.title })],
                      [
                        mine.length ? `Remove with ${plural(mine.length, "placement")}` : "Remove",
                        () => removePage.mutate(page.id),
                      ],
                    ]}
                  />
                </header>
                {mine.map((p) => (
                  <div key={p.id} className={classes.row}>
                    <Link to={`/sites/${siteId}/placements/${p.id}/aim`} className={classes.link}>
                      <div className={classes.name}>
                        <strong>{p.name}</strong>
                        <Health findings={p.findings} error={p.error ?? undefined} />
                      </div>
                      <div className={classes.strip}>
                        {p.strip.map((s) => (
                          <StripFrame key={s.letter} frame={s} />
                        ))}
                      </div>
                    </Link>
                    <More label={`More for ${p.name}`} items={[["Remove", () => remove.mutate(p.id)]]} />
                  </div>
                ))}
              </section>
            );
          })}
      </div>
      <Modal
        opened={!!asking}
        onClose={() => setAsking(undefined)}
        title={
          asking?.what === "placement" ? "New placement" : asking?.what === "rename" ? "Rename the page" : "New page"
        }
      >
        {asking && <Ask siteId={siteId} asking={asking} done={() => setAsking(undefined)} />}
      </Modal>
    </>
  );
}

function Health({ findings, error }: { findings: Schemas["Finding"][]; error?: string }) {
  if (error) return <span className={classes.bad}>{error}</span>;
  if (!findings.length) return <span className={classes.good}>no findings</span>;
  return (
    <ul className={classes.findings}>
      {findings.slice(0, 3).map((f) => (
        <li key={f.sentence}>{f.sentence}</li>
      ))}
      {findings.length > 3 && <li>and {findings.length - 3} more</li>}
    </ul>
  );
}

function More({ label, items }: { label: string; items: [string, () => void][] }) {
  return (
    <Menu position="bottom-end">
      <Menu.Target>
        <ActionIcon variant="subtle" aria-label={label} color="gray">
          <IconDots size={16} />
        </ActionIcon>
      </Menu.Target>
      <Menu.Dropdown>
        {items.map(([text, run]) => (
          <Menu.Item key={text} onClick={run} color={text.startsWith("Remove") ? "red" : undefined}>
            {text}
          </Menu.Item>
        ))}
      </Menu.Dropdown>
    </Menu>
  );
}

function Ask({ siteId, asking, done }: { siteId: number; asking: Asking; done: () => void }) {
  const makePage = useMakePage(siteId);
  const rename = useRenamePage(siteId);
  const makePlacement = useMakePlacement(siteId);
  const navigate = useNavigate();
  const [text, setText] = useState(asking.what === "rename" ? asking.title : "");
  const working = asking.what === "page" ? makePage : asking.what === "rename" ? rename : makePlacement;
  const submit = (e: FormEvent) => {
    e.preventDefault();
    if (asking.what === "page") makePage.mutate(text, { onSuccess: done });
    else if (asking.what === "rename") rename.mutate({ id: asking.id, title: text }, { onSuccess: done });
    else
      makePlacement.mutate(
        { page: asking.page, name: text },
        { onSuccess: (p) => navigate(`/sites/${siteId}/placements/${p.id}/aim`) },
      );
  };
  return (
    <form onSubmit={submit} style={{ display: "grid", gap: 12 }}>
      <TextInput
        label={asking.what === "placement" ? "Name, which files will bear too" : "Title"}
        data-autofocus
        required
        maxLength={80}
        value={text}
        onChange={(e) => setText(e.currentTarget.value)}
        error={working.error?.message}
      />
      <Button type="submit" loading={working.isPending}>
        {asking.what === "rename" ? "Rename" : "Make it"}
      </Button>
    </form>
  );
}
