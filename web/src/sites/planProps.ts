import type { SitePlan } from "../api/queries";

/** The rules of a site as they stand in the form. */
export interface PlanProps {
  plan: SitePlan;
  set: (values: Partial<SitePlan>) => void;
}
