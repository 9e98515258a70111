'use client';

import { lazy, Suspense, type ComponentType, type FunctionComponent } from 'react';
import { askOnce } from './askOnce';

/** So long is waited, ms, before what could not be had is asked for again. */
const PAUSE = 1_500;

/** Code that has to come from the server; one that is away just now is asked again until it is there. */
async function had<T>(ask: () => Promise<T>): Promise<T> {
  for (;;) {
    try {
      return await ask();
    } catch (error) {
      if ((error as Error).name !== 'ChunkLoadError') throw error;
      await new Promise((resolve) => setTimeout(resolve, PAUSE));
    }
  }
}

/** A component whose code comes when it is first shown; `ahead` asks for it before that. */
export type Later<P> = FunctionComponent<P> & { ahead(): void };

/**
 * A component whose code comes later. With a height, px, its place is kept free meanwhile; without one, what stands around it
 * waits for it as well.
 */
export function later<P extends object = object>(ask: () => Promise<ComponentType<P>>, height?: number): Later<P> {
  const come = askOnce(() => had(ask));
  // React’s own type asks more of props than any component does.
  const Come = lazy(async () => ({ default: await come() })) as unknown as ComponentType<P>;
  const Shown = (props: P) =>
    height === undefined ? (
      <Come {...props} />
    ) : (
      <Suspense fallback={<div style={{ height }} />}>
        <Come {...props} />
      </Suspense>
    );
  return Object.assign(Shown, { ahead: () => void come() });
}
