'use client';

import { memo } from 'react';
import { penPromise, type PromiseRow } from '../tools/penPromise';

/** What every press of the pen does: by what lies under it, and what is held. */
export const PenPromise = memo(() => (
  <section className="promise" aria-label="What a press of the pen does">
    <h3>What a press of the pen does</h3>
    <p>
      No press changes another line than the one that is being drawn, unless it is made with Alt on the same sheet, and
      the pointer and the hints say so beforehand. Pressed twice at once, what closes, joins or changes is done once.
    </p>
    <div className="promise-tables">
      <Rows caption="no line in hand" rows={penPromise.filter((r) => r.while === 'idle')} />
      <Rows caption="a line in hand" rows={penPromise.filter((r) => r.while === 'drawing')} />
    </div>
  </section>
));
PenPromise.displayName = 'PenPromise';

const Rows = ({ caption, rows }: { caption: string; rows: readonly PromiseRow[] }) => (
  <table>
    <caption>{caption}</caption>
    <thead>
      <tr>
        <th scope="col">under the pen</th>
        <th scope="col">press</th>
        <th scope="col">what comes of it</th>
      </tr>
    </thead>
    <tbody>
      {rows.map((r, i) => (
        <tr key={r.id}>
          <th scope="row">{rows[i - 1]?.under === r.under ? <span className="said-only">{r.under}</span> : r.under}</th>
          <td>{r.keys}</td>
          <td>{r.what}</td>
        </tr>
      ))}
    </tbody>
  </table>
);
