/** One of the nine places; those where words would cover a keep area are hatched. */
import type { WordsReading } from "../../../api/queries";
import { PLACES, type Place, placeWord } from "./places";
import classes from "./Words.module.css";

type Ratings = NonNullable<WordsReading["detail"]>["places"];

interface Props {
  place: Place;
  set: (place: Place) => void;
  label: string;
  ratings?: Ratings;
}

export function PlaceField({ place, set, label, ratings }: Props) {
  const rating = (p: Place) => ratings?.find((r) => r.place === p);
  const here = rating(place);
  // only where the present one is not well
  const troubled = here && (here.covers.length > 0 || (here.contrast ?? 1) < 1);
  const best = troubled ? ratings?.find((r) => r.best) : undefined;
  const move = (by: number) => {
    const next = PLACES[PLACES.indexOf(place) + by];
    if (next) set(next);
  };
  return (
    <>
      <div
        className={classes.places}
        role="radiogroup"
        aria-label={label}
        onKeyDown={(e) => {
          const by = { ArrowLeft: -1, ArrowRight: 1, ArrowUp: -3, ArrowDown: 3 }[e.key];
          if (!by) return;
          e.preventDefault();
          move(by);
        }}
      >
        {PLACES.map((p) => (
          // biome-ignore lint/a11y/useSemanticElements: nine places in three rows are no list of radio inputs
          <button
            key={p}
            type="button"
            role="radio"
            aria-checked={p === place}
            aria-label={placeWord(p)}
            tabIndex={p === place ? 0 : -1}
            title={`${placeWord(p)}: ${rating(p)?.why ?? ""}`}
            data-covers={rating(p)?.covers.length ? true : undefined}
            data-best={rating(p)?.best || undefined}
            onClick={() => set(p)}
          />
        ))}
      </div>
      <span className={classes.placeWord}>
        {placeWord(place)}
        {here?.why && <span className="soft">; {here.why}</span>}
      </span>
      {best && best.place !== place && (
        <button type="button" className="plain" onClick={() => set(best.place)}>
          best: {placeWord(best.place)}
        </button>
      )}
    </>
  );
}
