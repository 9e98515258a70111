'use client';

import { Button } from 'antd';
import { useEffect, useRef } from 'react';
import { goToStage } from '../commands/desk';
import { useBench, useBenchState, usePreference } from '../benchContext';
import { prefer, preferences } from '../state/preferences';
import type { Bench, BenchState } from '../state/store';
import { walkSteps } from '../commands/walk';

/** Begins the first trace: in the Trace stage, with the pen still in its place. */
export function startWalk(bench: Bench): void {
  goToStage(bench, 'trace');
  bench.setState({ tool: 'select' });
  prefer({ walk: 0 });
}

/** The first trace, step by step, beside the work. Each step is over when its doing is seen on the bench. */
export function WalkCard() {
  const bench = useBench();
  const step = usePreference('walk');
  const stage = useBenchState((s) => s.stage);
  const start = useRef<BenchState | null>(null);
  const isOn = step !== null;

  useEffect(() => {
    if (!isOn) return;
    start.current ??= bench.getState();
    const look = (): void => {
      const { walk } = preferences.getState();
      const now = walkSteps[walk ?? -1];
      if (!now || !start.current || !now.done(bench.getState(), start.current)) return;
      prefer({ walk: walk! + 1 });
      look();
    };
    look();
    const stop = bench.subscribe(look);
    return () => {
      stop();
      start.current = null;
    };
  }, [bench, isOn]);

  if (step === null || stage === 'prepare' || stage === 'deliver') return null;
  const now = walkSteps[step];
  return (
    <section className="walk" aria-label="First trace" aria-live="polite">
      <ol aria-hidden="true">
        {walkSteps.map((s, i) => (
          <li key={s.title} className={i < step ? 'done' : i === step ? 'now' : ''} />
        ))}
      </ol>
      {now ? (
        <>
          <h3>
            {step + 1} of {walkSteps.length}: {now.title}
          </h3>
          <p>{now.text}</p>
          <div className="buttons">
            <Button size="small" onClick={() => prefer({ walk: step + 1 })}>
              Skip this step
            </Button>
            <Button size="small" type="text" onClick={() => prefer({ walk: null })}>
              Leave
            </Button>
          </div>
        </>
      ) : (
        <>
          <h3>That is a first trace</h3>
          <p>Undo takes any of it back. The list of keys (?) has all the rest, and this walk again.</p>
          <div className="buttons">
            <Button size="small" type="primary" onClick={() => prefer({ walk: null })}>
              Go on by myself
            </Button>
          </div>
        </>
      )}
    </section>
  );
}
