/** Questions and changes about people. */
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { client, data, type Schemas } from "../api/client";
import { keys } from "../api/queries";

export type People = Schemas["People"];
export type Role = People["members"][number]["role"];

const people = (site: number) => ["people", site] as const;
const at = (site: number) => ({ params: { path: { site_id: site } } });

export const usePeople = (site: number) =>
  useQuery({
    queryKey: people(site),
    queryFn: () => data(client.GET("/api/sites/{site_id}/people", at(site))),
  });

function usePeopleChange<In, Out>(site: number, change: (input: In) => Promise<Out>) {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: change,
    onSuccess: () =>
      Promise.all(
        [people(site), keys.sites].map((queryKey) => queries.invalidateQueries({ queryKey })),
      ),
  });
}

export const useInvite = (site: number) =>
  usePeopleChange(site, (role: Role) =>
    data(client.POST("/api/sites/{site_id}/invitations", { ...at(site), body: { role } })),
  );

export const useWithdrawInvitation = (site: number) =>
  usePeopleChange(site, (id: number) =>
    data(
      client.DELETE("/api/sites/{site_id}/invitations/{invitation_id}", {
        params: { path: { site_id: site, invitation_id: id } },
      }),
    ),
  );

export const useChangeRole = (site: number) =>
  usePeopleChange(site, ({ user, role }: { user: number; role: Role }) =>
    data(
      client.PUT("/api/sites/{site_id}/people/{user_id}", {
        params: { path: { site_id: site, user_id: user } },
        body: { role },
      }),
    ),
  );

export const useWithdraw = (site: number) =>
  usePeopleChange(site, (user: number) =>
    data(
      client.DELETE("/api/sites/{site_id}/people/{user_id}", {
        params: { path: { site_id: site, user_id: user } },
      }),
    ),
  );

export const useWelcome = (token: string) =>
  useQuery({
    queryKey: ["welcome", token],
    retry: false,
    queryFn: () => data(client.GET("/api/welcome/{token}", { params: { path: { token } } })),
  });

/** Come in by a link: as a new person, or as whoever is signed in. */
export function useComeIn(token: string) {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: async (who: { name: string; password: string } | "me") => {
      const params = { params: { path: { token } } };
      if (who === "me") await data(client.POST("/api/welcome/{token}/share", params));
      else await data(client.POST("/api/welcome/{token}/person", { ...params, body: who }));
    },
    onSuccess: () =>
      Promise.all(
        [keys.session, keys.sites].map((queryKey) => queries.invalidateQueries({ queryKey })),
      ),
  });
}

export const useChangePassword = () =>
  useMutation({
    mutationFn: (body: { old: string; new: string }) =>
      data(client.POST("/api/session/password", { body })),
  });
