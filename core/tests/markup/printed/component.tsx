import type { ReactElement } from "react";
import styles from "./SixViews.module.css";

// Put slides.js into the page once.
export function SixViews(): ReactElement {
  return (
    <section className={styles["six-views"]} aria-roledescription="carousel" aria-label="Six views" data-slideshow="">
      <div data-controls="">
        <div role="group" aria-label="Controls of the slides">
          <button type="button" data-moves="" data-stop="Stop the slides" data-start="Start the slides" aria-label="Stop the slides" aria-controls="six-views-slides"></button>
          <button type="button" data-by="-1" aria-label="Previous slide" aria-controls="six-views-slides"></button>
          <span>
            <button type="button" data-to="0" aria-label="Slide 1 of 6: The island at dawn" aria-controls="six-views-slides">1</button>
            <button type="button" data-to="1" aria-label="Slide 2 of 6: The launch comes in" aria-controls="six-views-slides">2</button>
            <button type="button" data-to="2" aria-label="Slide 3 of 6: Flags for the first boat" aria-controls="six-views-slides">3</button>
            <button type="button" data-to="3" aria-label="Slide 4 of 6: Fog, and a bell" aria-controls="six-views-slides">4</button>
            <button type="button" data-to="4" aria-label="Slide 5 of 6: The harbour steps" aria-controls="six-views-slides">5</button>
            <button type="button" data-to="5" aria-label="Slide 6 of 6: The last boat has left" aria-controls="six-views-slides">6</button>
          </span>
          <button type="button" data-by="1" aria-label="Next slide" aria-controls="six-views-slides"></button>
        </div>
      </div>
      <div data-slides="" id="six-views-slides" tabIndex={0} role="group" aria-label="Slides of Six views">
        <div role="group" aria-roledescription="slide" aria-label="1 of 6">
          <figure>
            <picture className={styles["six-views-1"]}>
              <source media="(max-width: 599px)" type="image/avif"
                  srcSet="images/six-views-1--a@1082w.avif 1082w, images/six-views-1--a@1198w.avif 1198w"
                  sizes="100vw" width={1082} height={812} />
              <source media="(max-width: 599px)" type="image/webp"
                  srcSet="images/six-views-1--a@1082w.webp 1082w, images/six-views-1--a@1198w.webp 1198w"
                  sizes="100vw" width={1082} height={812} />
              <source media="(max-width: 599px)" type="image/jpeg"
                  srcSet="images/six-views-1--a@1082w.jpg 1082w, images/six-views-1--a@1198w.jpg 1198w"
                  sizes="100vw" width={1082} height={812} />
              <source type="image/avif"
                  srcSet="images/six-views-1@1920w.avif 1920w, images/six-views-1@3200w.avif 3200w"
                  sizes="(max-width: 1599px) 100vw, 1600px" width={1920} height={1080} />
              <source type="image/webp"
                  srcSet="images/six-views-1@1920w.webp 1920w, images/six-views-1@3200w.webp 3200w"
                  sizes="(max-width: 1599px) 100vw, 1600px" width={1920} height={1080} />
              <img src="images/six-views-1@1920w.jpg"
                  srcSet="images/six-views-1@1920w.jpg 1920w, images/six-views-1@3200w.jpg 3200w"
                  sizes="(max-width: 1599px) 100vw, 1600px" width={1920} height={1080} alt="The island at dawn"
                  loading="lazy" decoding="async" />
            </picture>
            <figcaption>
              <b dir="auto">The island at dawn</b>
            </figcaption>
          </figure>
        </div>
        <div role="group" aria-roledescription="slide" aria-label="2 of 6">
          <figure>
            <picture className={styles["six-views-2"]}>
              <source media="(max-width: 599px)" type="image/avif"
                  srcSet="images/six-views-2--a@1082w.avif 1082w, images/six-views-2--a@1198w.avif 1198w"
                  sizes="100vw" width={1082} height={812} />
              <source media="(max-width: 599px)" type="image/webp"
                  srcSet="images/six-views-2--a@1082w.webp 1082w, images/six-views-2--a@1198w.webp 1198w"
                  sizes="100vw" width={1082} height={812} />
              <source media="(max-width: 599px)" type="image/jpeg"
                  srcSet="images/six-views-2--a@1082w.jpg 1082w, images/six-views-2--a@1198w.jpg 1198w"
                  sizes="100vw" width={1082} height={812} />
              <source type="image/avif"
                  srcSet="images/six-views-2@1920w.avif 1920w, images/six-views-2@3200w.avif 3200w"
                  sizes="(max-width: 1599px) 100vw, 1600px" width={1920} height={1080} />
              <source type="image/webp"
                  srcSet="images/six-views-2@1920w.webp 1920w, images/six-views-2@3200w.webp 3200w"
                  sizes="(max-width: 1599px) 100vw, 1600px" width={1920} height={1080} />
              <img src="images/six-views-2@1920w.jpg"
                  srcSet="images/six-views-2@1920w.jpg 1920w, images/six-views-2@3200w.jpg 3200w"
                  sizes="(max-width: 1599px) 100vw, 1600px" width={1920} height={1080}
                  alt="A launch comes in, its bow high" loading="lazy" decoding="async" />
            </picture>
            <figcaption>
              <b dir="auto">The launch comes in</b>
            </figcaption>
          </figure>
        </div>
        <div role="group" aria-roledescription="slide" aria-label="3 of 6">
          <figure>
            <picture className={styles["six-views-3"]}>
              <source media="(max-width: 599px)" type="image/avif"
                  srcSet="images/six-views-3--a@1082w.avif 1082w, images/six-views-3--a@1198w.avif 1198w"
                  sizes="100vw" width={1082} height={812} />
              <source media="(max-width: 599px)" type="image/webp"
                  srcSet="images/six-views-3--a@1082w.webp 1082w, images/six-views-3--a@1198w.webp 1198w"
                  sizes="100vw" width={1082} height={812} />
              <source media="(max-width: 599px)" type="image/jpeg"
                  srcSet="images/six-views-3--a@1082w.jpg 1082w, images/six-views-3--a@1198w.jpg 1198w"
                  sizes="100vw" width={1082} height={812} />
              <source type="image/avif"
                  srcSet="images/six-views-3@1920w.avif 1920w, images/six-views-3@3200w.avif 3200w"
                  sizes="(max-width: 1599px) 100vw, 1600px" width={1920} height={1080} />
              <source type="image/webp"
                  srcSet="images/six-views-3@1920w.webp 1920w, images/six-views-3@3200w.webp 3200w"
                  sizes="(max-width: 1599px) 100vw, 1600px" width={1920} height={1080} />
              <img src="images/six-views-3@1920w.jpg"
                  srcSet="images/six-views-3@1920w.jpg 1920w, images/six-views-3@3200w.jpg 3200w"
                  sizes="(max-width: 1599px) 100vw, 1600px" width={1920} height={1080}
                  alt="Strings of signal flags against the sky" loading="lazy" decoding="async" />
            </picture>
            <figcaption>
              <b dir="auto">Flags for the first boat</b>
            </figcaption>
          </figure>
        </div>
        <div role="group" aria-roledescription="slide" aria-label="4 of 6">
          <figure>
            <picture className={styles["six-views-4"]}>
              <source media="(max-width: 599px)" type="image/avif"
                  srcSet="images/six-views-4--a@1082w.avif 1082w, images/six-views-4--a@1198w.avif 1198w"
                  sizes="100vw" width={1082} height={812} />
              <source media="(max-width: 599px)" type="image/webp"
                  srcSet="images/six-views-4--a@1082w.webp 1082w, images/six-views-4--a@1198w.webp 1198w"
                  sizes="100vw" width={1082} height={812} />
              <source media="(max-width: 599px)" type="image/jpeg"
                  srcSet="images/six-views-4--a@1082w.jpg 1082w, images/six-views-4--a@1198w.jpg 1198w"
                  sizes="100vw" width={1082} height={812} />
              <source type="image/avif"
                  srcSet="images/six-views-4@1920w.avif 1920w, images/six-views-4@3200w.avif 3200w"
                  sizes="(max-width: 1599px) 100vw, 1600px" width={1920} height={1080} />
              <source type="image/webp"
                  srcSet="images/six-views-4@1920w.webp 1920w, images/six-views-4@3200w.webp 3200w"
                  sizes="(max-width: 1599px) 100vw, 1600px" width={1920} height={1080} />
              <img src="images/six-views-4@1920w.jpg"
                  srcSet="images/six-views-4@1920w.jpg 1920w, images/six-views-4@3200w.jpg 3200w"
                  sizes="(max-width: 1599px) 100vw, 1600px" width={1920} height={1080}
                  alt="A small boat in the fog" loading="lazy" decoding="async" />
            </picture>
            <figcaption>
              <b dir="auto">Fog, and a bell</b>
            </figcaption>
          </figure>
        </div>
        <div role="group" aria-roledescription="slide" aria-label="5 of 6">
          <figure>
            <picture className={styles["six-views-5"]}>
              <source media="(max-width: 599px)" type="image/avif"
                  srcSet="images/six-views-5--a@1082w.avif 1082w, images/six-views-5--a@1198w.avif 1198w"
                  sizes="100vw" width={1082} height={812} />
              <source media="(max-width: 599px)" type="image/webp"
                  srcSet="images/six-views-5--a@1082w.webp 1082w, images/six-views-5--a@1198w.webp 1198w"
                  sizes="100vw" width={1082} height={812} />
              <source media="(max-width: 599px)" type="image/jpeg"
                  srcSet="images/six-views-5--a@1082w.jpg 1082w, images/six-views-5--a@1198w.jpg 1198w"
                  sizes="100vw" width={1082} height={812} />
              <source type="image/avif"
                  srcSet="images/six-views-5@1640w.avif 1640w, images/six-views-5@2400w.avif 2400w"
                  sizes="(max-width: 1599px) 100vw, 1600px" width={1640} height={922} />
              <source type="image/webp"
                  srcSet="images/six-views-5@1640w.webp 1640w, images/six-views-5@2400w.webp 2400w"
                  sizes="(max-width: 1599px) 100vw, 1600px" width={1640} height={922} />
              <img src="images/six-views-5@1640w.jpg"
                  srcSet="images/six-views-5@1640w.jpg 1640w, images/six-views-5@2400w.jpg 2400w"
                  sizes="(max-width: 1599px) 100vw, 1600px" width={1640} height={922}
                  alt="Harbour steps with a red boat below" loading="lazy" decoding="async" />
            </picture>
            <figcaption>
              <b dir="auto">The harbour steps</b>
            </figcaption>
          </figure>
        </div>
        <div role="group" aria-roledescription="slide" aria-label="6 of 6">
          <figure>
            <picture className={styles["six-views-6"]}>
              <source media="(max-width: 599px)" type="image/avif"
                  srcSet="images/six-views-6--a@1082w.avif 1082w, images/six-views-6--a@1198w.avif 1198w"
                  sizes="100vw" width={1082} height={812} />
              <source media="(max-width: 599px)" type="image/webp"
                  srcSet="images/six-views-6--a@1082w.webp 1082w, images/six-views-6--a@1198w.webp 1198w"
                  sizes="100vw" width={1082} height={812} />
              <source media="(max-width: 599px)" type="image/jpeg"
                  srcSet="images/six-views-6--a@1082w.jpg 1082w, images/six-views-6--a@1198w.jpg 1198w"
                  sizes="100vw" width={1082} height={812} />
              <source type="image/avif"
                  srcSet="images/six-views-6@1640w.avif 1640w, images/six-views-6@2400w.avif 2400w"
                  sizes="(max-width: 1599px) 100vw, 1600px" width={1640} height={922} />
              <source type="image/webp"
                  srcSet="images/six-views-6@1640w.webp 1640w, images/six-views-6@2400w.webp 2400w"
                  sizes="(max-width: 1599px) 100vw, 1600px" width={1640} height={922} />
              <img src="images/six-views-6@1640w.jpg"
                  srcSet="images/six-views-6@1640w.jpg 1640w, images/six-views-6@2400w.jpg 2400w"
                  sizes="(max-width: 1599px) 100vw, 1600px" width={1640} height={922}
                  alt="A wooden jetty reaches into the bay" loading="lazy" decoding="async" />
            </picture>
            <figcaption>
              <b dir="auto">The last boat has left</b>
            </figcaption>
          </figure>
        </div>
      </div>
    </section>
  );
}
