/**
 * Who shares a site: members with what they may do, invitations that wait, and a link for somebody
 * new.
 */
import { Button, CopyButton, Select } from "@mantine/core";
import { useState } from "react";
import { useNavigate } from "react-router";
import classes from "./People.module.css";
import {
  type People,
  type Role,
  useChangeRole,
  useInvite,
  usePeople,
  useWithdraw,
  useWithdrawInvitation,
} from "./queries";

const ROLES: { value: Role; label: string }[] = [
  { value: "owner", label: "may share it" },
  { value: "edit", label: "may edit" },
  { value: "look", label: "may look" },
];
const word = (role: Role) => ROLES.find((r) => r.value === role)?.label;

export function PeopleSection({ siteId }: { siteId: number }) {
  const people = usePeople(siteId);
  const navigate = useNavigate();
  const change = useChangeRole(siteId);
  const withdraw = useWithdraw(siteId);
  const failed = people.error ?? change.error ?? withdraw.error;
  if (!people.data)
    return <p className="soft">{people.error?.message ?? "Looking who is here…"}</p>;
  const { members, may_share } = people.data;
  return (
    <div className={classes.people}>
      <ul>
        {members.map((m) => (
          <li key={m.user_id}>
            <strong>{m.name}</strong>
            {m.is_me && <span className="soft">you</span>}
            {may_share ? (
              <Select
                size="xs"
                aria-label={`What ${m.name} may do`}
                allowDeselect={false}
                value={m.role}
                data={ROLES}
                onChange={(role) =>
                  change.mutate({ user: m.user_id, role: (role ?? m.role) as Role })
                }
              />
            ) : (
              <span>{word(m.role)}</span>
            )}
            {(may_share || m.is_me) && (
              <Button
                variant="subtle"
                onClick={() =>
                  withdraw.mutate(m.user_id, { onSuccess: () => m.is_me && navigate("/") })
                }
              >
                {m.is_me ? "Leave" : "Withdraw"}
              </Button>
            )}
          </li>
        ))}
      </ul>
      {failed && (
        <p role="alert" className={classes.failed}>
          {failed.message}
        </p>
      )}
      {may_share && <Invitations siteId={siteId} waiting={people.data.invitations} />}
    </div>
  );
}

function Invitations({ siteId, waiting }: { siteId: number; waiting: People["invitations"] }) {
  const invite = useInvite(siteId);
  const withdraw = useWithdrawInvitation(siteId);
  const [role, setRole] = useState<Role>("edit");
  const failed = invite.error ?? withdraw.error;
  const link =
    invite.data && waiting.some((i) => i.id === invite.data.id) ? invite.data : undefined;
  return (
    <>
      {waiting.length > 0 && (
        <ul>
          {waiting.map((i) => (
            <li key={i.id}>
              <span>
                An open invitation, {word(i.role)}, until{" "}
                {new Date(i.expires).toLocaleDateString([], { dateStyle: "medium" })}
              </span>
              <Button variant="subtle" onClick={() => withdraw.mutate(i.id)}>
                Withdraw
              </Button>
            </li>
          ))}
        </ul>
      )}
      <div className={classes.invite}>
        <Select
          size="xs"
          aria-label="What the invited person may do"
          allowDeselect={false}
          value={role}
          data={ROLES}
          onChange={(r) => setRole((r ?? "edit") as Role)}
        />
        <Button variant="default" onClick={() => invite.mutate(role)} loading={invite.isPending}>
          Make a link for one person
        </Button>
      </div>
      {failed && (
        <p role="alert" className={classes.failed}>
          {failed.message}
        </p>
      )}
      {link && (
        <div className={classes.link} role="status">
          <code>{`${window.location.origin}${link.path}`}</code>
          <CopyButton value={`${window.location.origin}${link.path}`}>
            {({ copied, copy }) => <Button onClick={copy}>{copied ? "Copied" : "Copy"}</Button>}
          </CopyButton>
          <span className="soft">
            Send it to one person. It works once, for a week, and is shown only now.
          </span>
        </div>
      )}
    </>
  );
}
