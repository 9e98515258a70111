'use client';

/** What is worked with most, and how each is found. */
const PLACES = [
  { name: 'To the page', selector: '.page-view .canvas' },
  { name: 'To the tools', selector: '.tray button' },
  { name: 'To the cards', selector: '.cards button, .cards input' },
  { name: 'To the sheets', selector: 'aside.left button' },
] as const;

/** Ways past what is in between, for who goes by Tab: seen only when one has the focus. */
export const SkipLinks = () => (
  <nav className="skip-links" aria-label="Ways past">
    {PLACES.map(({ name, selector }) => (
      <button key={name} type="button" onClick={() => document.querySelector<HTMLElement>(selector)?.focus()}>
        {name}
      </button>
    ))}
  </nav>
);
