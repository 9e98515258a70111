'use client';

import { useEffect, type RefObject } from 'react';
import { runCommand } from './actions';
import type { BenchCanvas } from './canvas/benchCanvas';
import { commandFor } from './state/keys';
import type { Bench } from './state/store';

const isTyping = (target: EventTarget | null): boolean =>
  target instanceof HTMLElement &&
  !!target.closest(
    'input:not([readonly], [type="checkbox"], [type="radio"]), textarea, select, [contenteditable], [role="dialog"], [role="slider"], [role="listbox"]',
  );

/** Keys that show something for as long as they are held. */
const heldKeys: Record<string, 'peek' | 'uncorrected'> = { v: 'peek', x: 'uncorrected' };

/** Keys: the tool in hand is asked first, then the table of keys. `V` lifts the reference away while it is held, `X` shows it uncorrected. */
export function useKeys(bench: Bench, canvas: RefObject<BenchCanvas | null>, showKeys: () => void): void {
  useEffect(() => {
    const down = (e: KeyboardEvent): void => {
      if (isTyping(e.target)) return;
      const plain = !e.ctrlKey && !e.metaKey && !e.altKey;
      const held = plain && heldKeys[e.key.toLowerCase()];
      if (held) {
        if (!e.repeat) bench.setState({ [held]: true });
        return;
      }
      const onControl =
        e.target instanceof HTMLElement && e.target.closest('button, [role="button"], [role="combobox"], a');
      const isControlKey = onControl && (e.key === 'Enter' || e.key.startsWith('Arrow'));
      const key = e.key.length === 1 ? e.key.toLowerCase() : e.key;
      if (plain && !isControlKey && canvas.current?.tool.key(key, { shift: e.shiftKey, alt: e.altKey })) {
        e.preventDefault();
        return;
      }
      const command = commandFor(e);
      if (!command) return;
      e.preventDefault();
      runCommand(bench, command, canvas.current, showKeys);
    };
    const letGo = (what: 'peek' | 'uncorrected'): void =>
      void (bench.getState()[what] && bench.setState({ [what]: false }));
    const up = (e: KeyboardEvent): void => {
      const held = heldKeys[e.key.toLowerCase()];
      if (held) letGo(held);
    };
    const dropPeek = (): void => (letGo('peek'), letGo('uncorrected'));
    window.addEventListener('keydown', down);
    window.addEventListener('keyup', up);
    window.addEventListener('blur', dropPeek);
    return () => {
      window.removeEventListener('keydown', down);
      window.removeEventListener('keyup', up);
      window.removeEventListener('blur', dropPeek);
    };
  }, [bench, canvas, showKeys]);
}
