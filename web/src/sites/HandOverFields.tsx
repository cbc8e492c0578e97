/** What goes into a delivery beside its pages, and where the code in it looks for files. */
import { Checkbox, Group, TextInput } from "@mantine/core";
import type { ProblemError } from "../api/client";
import type { SitePlan } from "../api/queries";
import { HostFields } from "./HostFields";
import type { PlanProps } from "./planProps";
import { Row } from "./Row";
import { UploadedFields } from "./UploadedFields";

type HandOver = SitePlan["hand_over"];

export function HandOverFields({
  plan,
  set,
  siteId,
  error,
}: PlanProps & { siteId: number; error: ProblemError | undefined }) {
  const how = plan.hand_over;
  const put = (values: Partial<HandOver>) => set({ hand_over: { ...how, ...values } });
  return (
    <Row label="Handed over">
      <HostFields plan={plan} set={set} error={error} />
      <Checkbox.Group
        label="Code in a delivery, beside its pages"
        value={how.outputs}
        onChange={(v) => put({ outputs: v as HandOver["outputs"] })}
      >
        <Group mt={6}>
          <Checkbox value="html" label="HTML and CSS" />
          <Checkbox value="jsx" label="JSX and a CSS module" />
          <Checkbox value="django" label="Django template" />
          <Checkbox value="json" label="JSON" />
        </Group>
      </Checkbox.Group>
      <TextInput
        label="Before the names of files in that code"
        description="A folder, or the beginning of an address; as long as there is nothing here: images/"
        placeholder="images/"
        value={how.prefix}
        maxLength={300}
        onChange={(e) => put({ prefix: e.currentTarget.value })}
        error={error?.at("plan", "hand_over", "prefix")}
      />
      <UploadedFields plan={plan} set={set} siteId={siteId} />
      <Checkbox
        label="Pages ask for their first picture before anything else (preload)"
        checked={how.preload}
        onChange={(e) => put({ preload: e.currentTarget.checked })}
      />
      <Checkbox
        label="Names bear a hash of what is in the file, so that no cache shows an old one"
        checked={how.hashed}
        onChange={(e) => put({ hashed: e.currentTarget.checked })}
      />
    </Row>
  );
}
