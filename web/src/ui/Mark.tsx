/**
 * The mark: a pane on the horizon, in the colour of the surroundings. The same drawing as
 * public/mark.svg.
 */
export const Mark = ({ width }: { width: number }) => (
  <svg
    viewBox="0 0 28 22"
    width={width}
    height={(width * 22) / 28}
    aria-hidden="true"
    style={{ color: "var(--petrol)" }}
  >
    <g fill="none" stroke="currentColor" strokeWidth="2.2">
      <path d="M0 14.5h7M21 14.5h7" />
      <rect x="7.1" y="2.1" width="13.8" height="17.8" rx="1.6" />
    </g>
    <path fill="currentColor" d="M8 14.5h12V19H8z" />
  </svg>
);
