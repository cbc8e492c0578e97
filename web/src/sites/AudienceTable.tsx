/** Who looks: viewports, densities and weights that widths and bytes are weighed against. */
import { ActionIcon, Button, FileButton } from "@mantine/core";
import { IconX } from "@tabler/icons-react";
import { useReadAudience } from "../api/queries";
import { FORMATS } from "../ui/format";
import { NumberField } from "../ui/NumberField";
import type { PlanProps } from "./planProps";
import { Row } from "./Row";
import classes from "./Settings.module.css";

const FIELDS = ["width", "height", "density", "weight"] as const;
const MOST = 500;

export function AudienceTable({ plan, set, siteId }: PlanProps & { siteId: number }) {
  const read = useReadAudience(siteId);
  const { audience } = plan;
  const total = audience.reduce((n, v) => n + v.weight, 0) || 1;
  const put = (i: number, values: Partial<(typeof audience)[number]>) =>
    set({ audience: audience.map((v, n) => (n === i ? { ...v, ...values } : v)) });
  return (
    <Row label="Audience">
      <div className={classes.audience}>
        <table>
          <thead>
            <tr>
              {FIELDS.map((f) => (
                <th key={f}>{f}</th>
              ))}
              <th>share</th>
              <th />
            </tr>
          </thead>
          <tbody>
            {audience.map((v, i) => (
              // biome-ignore lint/suspicious/noArrayIndexKey: a row is its place while it is typed into
              <tr key={i}>
                {FIELDS.map((f) => (
                  <td key={f}>
                    <NumberField
                      label={`${f} of row ${i + 1}`}
                      unit={{ width: "px", height: "px", density: "x", weight: "" }[f]}
                      value={v[f]}
                      set={(n) => put(i, { [f]: n })}
                    />
                  </td>
                ))}
                <td className={classes.share}>
                  <i style={{ width: `${(v.weight / total) * 100}%` }} />
                  <span>{Math.round((v.weight / total) * 1000) / 10} %</span>
                </td>
                <td>
                  <ActionIcon
                    variant="subtle"
                    size="sm"
                    aria-label={`Remove row ${i + 1}`}
                    disabled={audience.length === 1}
                    onClick={() => set({ audience: audience.filter((_, n) => n !== i) })}
                  >
                    <IconX size={14} />
                  </ActionIcon>
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      {read.error && (
        <p className={classes.refused} role="alert">
          {read.error.message}
        </p>
      )}
      <div className={classes.inline}>
        <Button
          variant="default"
          disabled={audience.length >= MOST}
          onClick={() =>
            set({ audience: [...audience, { width: 390, height: 844, density: 2, weight: 1 }] })
          }
        >
          Add a row
        </Button>
        <FileButton
          accept=".csv,.txt,.tsv,text/csv,text/plain"
          onChange={(file) =>
            file && read.mutate(file, { onSuccess: (rows) => set({ audience: rows }) })
          }
        >
          {(props) => (
            <Button variant="default" loading={read.isPending} {...props}>
              Bring a CSV…
            </Button>
          )}
        </FileButton>
        <a href={`/api/sites/${siteId}/audience.csv`}>CSV of what is saved</a>
      </div>
      <p className="soft">
        The first table is made up. A CSV has the columns width, height, density, weight; commas,
        semicolons or tabs.
      </p>
      <div className={classes.inline}>
        {(["avif", "webp", "jpeg"] as const).map((f) => (
          <NumberField
            key={f}
            label={`Share that takes ${f}`}
            before={`takes ${FORMATS[f]}`}
            unit="%"
            value={plan.takes[f]}
            set={(v) => set({ takes: { ...plan.takes, [f]: v } })}
          />
        ))}
      </div>
    </Row>
  );
}
