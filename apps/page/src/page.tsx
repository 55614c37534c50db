import { Choosing } from './choosing';
import { Finder } from './finder';
import { held } from './held';
import { MapCanvas } from './map-canvas';
import { Reading } from './reading';
import { Tables } from './tables';

/** The whole page: the map with what can be done with it, and below what is told of it. */
export function Page() {
  return (
    <>
      <a class="skip" href="#told">
        To the text
      </a>
      <header>
        <h1>{held.title}</h1>
        {held.author !== '' && <p class="soft">{held.author}</p>}
      </header>
      <main>
        <div class="both">
          <figure>
            <MapCanvas />
            <figcaption>{held.caption}</figcaption>
          </figure>
          <aside aria-label="Find, read and choose">
            <Finder />
            <h2>Picked</h2>
            <Reading />
            <h2>Shown</h2>
            <Choosing />
          </aside>
        </div>
        <div class="text" id="told">
          <section>
            <h2>What the map shows</h2>
            <p>{held.told.long}</p>
            {held.map.tieMeaning !== '' && <p>{held.map.tieMeaning}</p>}
          </section>
          {held.portraits.length > 0 && (
            <section>
              <h2>Its groups</h2>
              {held.portraits.map(({ group, title, sentence, lists }) => (
                <article key={group}>
                  <h3>{title}</h3>
                  <p>{sentence}</p>
                  {lists.map(({ heading, terms }) => (
                    <p key={heading}>
                      <b>{heading}:</b> {terms.join(', ')}
                    </p>
                  ))}
                </article>
              ))}
            </section>
          )}
          <section>
            <h2>Tables</h2>
            <Tables />
          </section>
          {held.methods.length > 0 && (
            <section>
              <h2>How it was made</h2>
              {held.methods.map((paragraph) => (
                <p key={paragraph}>{paragraph}</p>
              ))}
              {held.references.length > 0 && (
                <ul class="references">
                  {held.references.map((one) => (
                    <li key={one}>{one}</li>
                  ))}
                </ul>
              )}
            </section>
          )}
          <section>
            <h2>To cite it</h2>
            <p>{held.cite}</p>
            {held.licence !== '' && <p>Licence: {held.licence}</p>}
          </section>
        </div>
      </main>
      <footer>
        <p>
          Made with Pebble Thread on {held.made.slice(0, 10)}. This page is one file: nothing is loaded from
          elsewhere, and nothing is sent.
        </p>
      </footer>
    </>
  );
}
