'use client';

import { Alert, App, Button } from 'antd';
import Link from 'next/link';
import { useState } from 'react';
import { askJson } from '@/bench/state/api';
import type { Keeping as State } from '@/server/keeping/keeper';
import { formatBytes, formatCount, formatSince } from '@/ui/format';
import { Asides } from './Asides';
import { Backups, rowsOf } from './Backups';
import type { Do, Part } from './deeds';
import { Elsewhere } from './Elsewhere';
import { SureButton } from './KeptTable';
import './keeping.css';

/** What is kept, whether it is sound, and the ways back. */
export function Keeping({ first }: { first: State }) {
  const { message } = App.useApp();
  const [state, setState] = useState(first);
  const [busy, setBusy] = useState<string | null>(null);
  const run: Do = (deed, done) => {
    setBusy(deed.deed);
    askJson<State>('/api/keeping', 'POST', deed)
      .then((now) => {
        setState(now);
        void message.success({ content: done(now), duration: 6 });
      })
      .catch((e: Error) => void message.error({ content: e.message, duration: 8 }))
      .finally(() => setBusy(null));
  };
  return (
    <main className="keeping">
      <header>
        <h1>Safe-keeping</h1>
        {!state.trouble && <Link href="/">To the drawings</Link>}
      </header>
      {state.trouble && <Trouble state={state} busy={busy} run={run} />}
      {state.loss && (
        <Alert
          type="warning"
          showIcon
          title={`${formatCount(state.loss.changes, 'change')} that ${state.loss.changes === 1 ? 'was' : 'were'} saved ${state.loss.changes === 1 ? 'is' : 'are'} gone from the database (seen ${formatSince(state.loss.at, state.now)}).`}
          description="It went back to an older state, as when its log is lost or an older file is put in its place. Open the drawings in the browsers that they were made in: what those still have is offered again."
          action={
            <Button size="small" onClick={() => run({ deed: 'forget loss' }, () => 'It is not told of any more.')}>
              Understood
            </Button>
          }
        />
      )}
      <Checked state={state} busy={busy} run={run} />
      <Backups state={state} busy={busy} run={run} />
      <Asides state={state} busy={busy} run={run} />
      <Elsewhere state={state} busy={busy} run={run} />
    </main>
  );
}

function Trouble({ state, busy, run }: Part) {
  const { trouble, now } = state;
  const rows = rowsOf(state);
  const newest = rows.find((b) => b.findings === 0) ?? rows[0];
  const canRead = trouble!.code === 'corrupt';
  const canBegin = trouble!.code === 'no-database' || canRead;
  return (
    <Alert
      type="error"
      showIcon
      title="The drawings cannot be opened."
      description={
        <>
          <p>{trouble!.message}</p>
          <p className="ways">
            {newest && (
              <Button
                type="primary"
                loading={busy === 'restore'}
                disabled={busy !== null}
                onClick={() => run({ deed: 'restore', backup: newest.name }, () => 'The backup is in place.')}
              >
                Put back the newest sound backup ({formatSince(newest.at, now)},{' '}
                {formatCount(newest.drawings, 'drawing')})
              </Button>
            )}
            {canRead && (
              <Button
                loading={busy === 'salvage'}
                disabled={busy !== null}
                onClick={() =>
                  run({ deed: 'salvage' }, () => 'What could be read is in place; the damaged file lies aside.')
                }
              >
                Go on with what can be read
              </Button>
            )}
            {canBegin && (
              <SureButton
                label="Begin anew"
                ask="Begin with no drawings?"
                about="What is there is put aside, not deleted; backups stay."
                danger
                disabled={busy !== null}
                onSure={() => run({ deed: 'begin anew' }, () => 'An empty database was begun.')}
              />
            )}
          </p>
          <p>What is there now is moved aside in every case; nothing is overwritten.</p>
        </>
      }
    />
  );
}

function Checked({ state: { report, place, trouble, now }, busy, run }: Part) {
  const told = (now: State): string =>
    now.report?.findings.length === 0 ? 'All is as it was put there.' : 'Not all is as it was put there.';
  return (
    <section aria-label="What is kept">
      <h2>What is kept</h2>
      <dl>
        <dt>Where</dt>
        <dd>{place}</dd>
        {report && (
          <>
            <dt>Drawings</dt>
            <dd>
              {formatCount(report.drawings, 'drawing')}, {formatCount(report.changes, 'change')}:{' '}
              {formatBytes(report.bytes.database)}
            </dd>
            <dt>Pictures</dt>
            <dd>
              {formatCount(report.pictures, 'picture')}: {formatBytes(report.bytes.pictures)}
            </dd>
            <dt>Backups</dt>
            <dd>{formatBytes(report.bytes.backups)}</dd>
            {report.bytes.aside > 0 && (
              <>
                <dt>Put aside</dt>
                <dd>{formatBytes(report.bytes.aside)}</dd>
              </>
            )}
            <dt>Free on the disk</dt>
            <dd>{formatBytes(report.free)}</dd>
          </>
        )}
        <dt>Last looked at</dt>
        <dd>{report ? formatSince(report.at, now) : 'not yet'}</dd>
      </dl>
      <Button
        loading={busy === 'check'}
        disabled={busy !== null || trouble !== null}
        onClick={() => run({ deed: 'check' }, told)}
      >
        Look at all of it now
      </Button>
      {report && report.findings.length === 0 && <p className="sound">All is as it was put there.</p>}
      {report && report.findings.length > 0 && (
        <Alert
          type="warning"
          showIcon
          title={`${formatCount(report.findings.length, 'thing')} ${report.findings.length === 1 ? 'is' : 'are'} not as ${report.findings.length === 1 ? 'it was' : 'they were'} put there.`}
          description={
            <ul>
              {report.findings.map((f, i) => (
                <li key={i}>{f.drawing ? <Link href={`/drawing/${f.drawing}`}>{f.words}</Link> : f.words}</li>
              ))}
            </ul>
          }
        />
      )}
    </section>
  );
}
