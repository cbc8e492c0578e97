/**
 * An image service in the place of a folder: a template of its addresses, what each variable in it
 * stands for, and a template that is read off addresses.
 */
import { Button, SegmentedControl, Select, Textarea, TextInput } from "@mantine/core";
import { useMutation } from "@tanstack/react-query";
import { useState } from "react";
import { client, data, type ProblemError } from "../api/client";
import type { SitePlan } from "../api/queries";
import { NumberField } from "../ui/NumberField";
import type { PlanProps } from "./planProps";
import { Row } from "./Row";
import classes from "./Settings.module.css";
import { MEANINGS, type Meaning, variablesIn } from "./service";

type Service = NonNullable<SitePlan["hand_over"]["service"]>;

interface Props extends PlanProps {
  siteId: number;
  error: ProblemError | undefined;
}

export function ServiceFields({ plan, set, siteId, error }: Props) {
  const service = plan.hand_over.service;
  const put = (now: Service | null) => set({ hand_over: { ...plan.hand_over, service: now } });
  const path = { params: { path: { site_id: siteId } } };
  const own = useMutation({
    mutationFn: (negotiates: boolean) =>
      data(
        client.GET("/api/sites/{site_id}/service/own", {
          params: { ...path.params, query: { negotiates } },
        }),
      ),
    onSuccess: (found) => put(found as Service),
  });
  const propose = useMutation({
    mutationFn: (addresses: string[]) =>
      data(client.POST("/api/sites/{site_id}/service/proposed", { ...path, body: { addresses } })),
    onSuccess: (found) => put(found as Service),
  });
  const problem = own.error ?? propose.error;
  return (
    <Row label="Image service">
      {service ? (
        <Named service={service} put={put} error={error} />
      ) : (
        <p>
          Code looks for files in a folder. A service makes them as they are asked for, by their
          address.
        </p>
      )}
      <ReadOff read={propose.mutate} isPending={propose.isPending} />
      <div className={classes.inline}>
        <Button variant="default" loading={own.isPending} onClick={() => own.mutate(false)}>
          Use the service of this installation
        </Button>
        <Button variant="default" loading={own.isPending} onClick={() => own.mutate(true)}>
          The same, the browser's best format
        </Button>
        {service && (
          <Button variant="default" onClick={() => put(null)}>
            A folder again
          </Button>
        )}
      </div>
      {problem && (
        <p className={classes.refused} role="alert">
          {problem.message}
        </p>
      )}
    </Row>
  );
}

function ReadOff({ read, isPending }: { read: (addresses: string[]) => void; isPending: boolean }) {
  const [text, setText] = useState("");
  const lines = text.split("\n").filter((line) => line.trim());
  return (
    <>
      <Textarea
        label="Read the template off an address, or off two of different pictures"
        placeholder="https://pictures.example/boats/quay.jpg?w=800"
        value={text}
        onChange={(e) => setText(e.currentTarget.value)}
        autosize
        minRows={1}
        maxRows={4}
        size="xs"
        classNames={{ input: "num" }}
      />
      <div className={classes.inline}>
        <Button
          variant="default"
          disabled={lines.length === 0}
          loading={isPending}
          onClick={() => read(lines.slice(0, 4))}
        >
          Read it
        </Button>
      </div>
    </>
  );
}

function Named({
  service,
  put,
  error,
}: {
  service: Service;
  put: (now: Service) => void;
  error: ProblemError | undefined;
}) {
  const names = variablesIn(service.template);
  const rename = (template: string) => {
    const there = new Set(variablesIn(template));
    const kept = <T,>(of: Record<string, T>) =>
      Object.fromEntries(Object.entries(of).filter(([name]) => there.has(name)));
    put({ ...service, template, means: kept(service.means), fixed: kept(service.fixed) });
  };
  const mean = (name: string, said: string | null) => {
    const { [name]: _was, ...means } = service.means;
    const { [name]: _fixed, ...fixed } = service.fixed;
    if (said === FIXED) put({ ...service, means, fixed: { ...fixed, [name]: "" } });
    else put({ ...service, fixed, means: said ? { ...means, [name]: said as Meaning } : means });
  };
  return (
    <>
      <TextInput
        label="Template of its addresses"
        description="{name} for a variable, {?w,h} for parameters (RFC 6570)"
        value={service.template}
        maxLength={500}
        onChange={(e) => rename(e.currentTarget.value)}
        error={error?.at("plan", "hand_over", "service")}
        classNames={{ input: "num" }}
      />
      {names.map((name) => (
        <div key={name} className={classes.inline}>
          <code className={classes.variable}>{`{${name}}`}</code>
          <Select
            size="xs"
            aria-label={`What ${name} stands for`}
            placeholder="stands for…"
            value={name in service.fixed ? FIXED : (service.means[name] ?? null)}
            data={[...MEANINGS, { value: FIXED, label: "always the same" }]}
            onChange={(said) => mean(name, said)}
          />
          {name in service.fixed && (
            <TextInput
              size="xs"
              aria-label={`What ${name} always is`}
              value={service.fixed[name] ?? ""}
              maxLength={100}
              onChange={(e) =>
                put({ ...service, fixed: { ...service.fixed, [name]: e.currentTarget.value } })
              }
            />
          )}
        </div>
      ))}
      <Details service={service} put={put} />
    </>
  );
}

const FIXED = "fixed";

/** What only some templates ask for. */
function Details({ service, put }: { service: Service; put: (now: Service) => void }) {
  const said = new Set<string>(Object.values(service.means));
  return (
    <>
      <p className="soft">
        {said.has("crop_x")
          ? "It cuts pictures to what shows."
          : "It cannot cut: it gives out whole pictures, and style sheets aim them. A crop is a finding."}{" "}
        {said.has("format")
          ? ""
          : "Without a format in the address it and the browser agree on one."}
      </p>
      <div className={classes.inline}>
        {said.has("crop_x") && (
          <SegmentedControl
            size="xs"
            aria-label="What a cut is said in"
            value={service.crop_in}
            onChange={(v) => put({ ...service, crop_in: v as Service["crop_in"] })}
            data={[
              { value: "px", label: "cuts in px" },
              { value: "shares", label: "as shares" },
            ]}
          />
        )}
        {said.has("quality") && (
          <NumberField
            label="Quality"
            before="Quality"
            unit="of 100"
            least={1}
            most={100}
            value={service.quality}
            set={(v) => put({ ...service, quality: Math.round(v) })}
          />
        )}
        {said.has("signature") && (
          <>
            <span>
              Signed with the key <code>{service.key}</code>
            </span>
            <NumberField
              label="Days that a signed address holds"
              before="for at least"
              unit="days"
              value={service.seconds / 86400}
              set={(v) => put({ ...service, seconds: Math.round(v * 86400) })}
            />
          </>
        )}
      </div>
    </>
  );
}
