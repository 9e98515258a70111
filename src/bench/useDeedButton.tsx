'use client';

import { Button, type ButtonProps } from 'antd';
import type { ReactElement } from 'react';
import { useBenchState } from './benchContext';

type MakeButton = (label: string, title: string, run: () => void, more?: ButtonProps) => ReactElement;

/** As `useDeedButton`, of buttons whose word says too little by itself: they are called by what they do. */
export function useTitledButton(): (label: string, title: string, run: () => void) => ReactElement {
  const deed = useDeedButton();
  return function titledButton(label, title, run) {
    return deed(label, title, run, { 'aria-label': title });
  };
}

/** Makes the small buttons of the cards: a word, in full what it does, and that. None works while only reading. */
export function useDeedButton(): MakeButton {
  const reading = useBenchState((s) => s.reading);
  return function deedButton(label, title, run, more) {
    return (
      <Button size="small" title={title} onClick={run} {...more} disabled={reading || more?.disabled}>
        {label}
      </Button>
    );
  };
}
