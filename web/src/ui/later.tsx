/** Parts of the application that are loaded when they are needed. */
import {
  Component,
  type ComponentType,
  createElement,
  lazy,
  type ReactNode,
  Suspense,
} from "react";
import { Failure, Rows } from "./states";

type Load<P> = () => Promise<ComponentType<P>>;

/**
 * A component that is loaded with its first use, or before. Until it is here something pale stands
 * in its place.
 */
export function later<P extends object>(
  load: Load<P>,
  meanwhile: (props: P) => ReactNode = () => <Rows n={3} />,
) {
  let going: Promise<{ default: ComponentType<P> }> | undefined;
  const once = () => {
    going ??= load().then(
      (found) => ({ default: found }),
      (error: unknown) => {
        going = undefined;
        throw error;
      },
    );
    return going;
  };
  const Lazy = lazy(once);
  const shown = (props: P) =>
    createElement(Waiting, { meanwhile: meanwhile(props) }, createElement(Lazy, props));
  return Object.assign(shown, { load: once });
}

function Waiting({ meanwhile, children }: { meanwhile: ReactNode; children?: ReactNode }) {
  return (
    <Loaded>
      <Suspense fallback={meanwhile}>{children}</Suspense>
    </Loaded>
  );
}

/** What cannot be loaded is most often of an older version that the server no longer has. */
class Loaded extends Component<{ children: ReactNode }, { failed: unknown }> {
  override state = { failed: undefined as unknown };
  static getDerivedStateFromError(error: unknown) {
    return { failed: error };
  }
  override render() {
    if (this.state.failed === undefined) return this.props.children;
    if (!isNotLoaded(this.state.failed)) throw this.state.failed;
    return (
      <Failure
        error={
          new Error(
            "This part of Sky Pane could not be loaded. Load the page again; what is saved stays.",
          )
        }
        again={() => window.location.reload()}
      />
    );
  }
}

/** What browsers say of a script or a style sheet that is not there: each in its own words. */
const isNotLoaded = (error: unknown) =>
  error instanceof Error &&
  /module script|dynamically imported|preload CSS|importing a module/i.test(error.message);

/** Load parts one after the other while nothing else is to be done. */
export function loadAtRest(parts: readonly { load: () => Promise<unknown> }[]) {
  const idle = window.requestIdleCallback ?? ((work: () => void) => setTimeout(work, 200));
  const [first, ...rest] = parts;
  if (!first) return;
  // one that fails is asked for again when it is needed, and then says so
  idle(
    () =>
      void first.load().then(
        () => loadAtRest(rest),
        () => undefined,
      ),
  );
}
