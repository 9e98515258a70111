'use client';

import { useEffect, type RefObject } from 'react';
import { runCommand } from './commands/run';
import type { BenchCanvas } from './canvas/benchCanvas';
import type { Held } from './commands/command';
import { compareBy } from './commands/desk';
import { commandFor } from './commands/keys';
import { preferences } from './state/preferences';
import { isForControl, isTyping } from './typing';
import type { Bench } from './state/store';

/** Keys: letters and what is held go by the table of keys; Enter, Escape, arrows and the like to the tool in hand. */
export function useKeys(bench: Bench, canvas: RefObject<BenchCanvas | null>, showKeys: () => void): void {
  useEffect(() => {
    /** What is shown for as long as a key is held, by that key. */
    const held = new Map<string, Held>();
    const down = (e: KeyboardEvent): void => {
      if (isTyping(e.target)) return;
      const command = commandFor(e, preferences.getState());
      if (command?.do === 'hold') {
        held.set(e.code, command.shows);
        if (!e.repeat) bench.setState({ [command.shows]: true });
        return;
      }
      const plain = !e.ctrlKey && !e.metaKey && !e.altKey;
      if (plain && isForControl(e.target, e.key)) return;
      // Enter ends and makes so with Ctrl as well, as it does wherever text is written.
      const isToolKey = (plain || e.key === 'Enter') && e.key.length > 1;
      if (isToolKey && canvas.current?.tool.key(e.key, { shift: e.shiftKey, alt: e.altKey })) {
        e.preventDefault();
        return;
      }
      if (e.key === 'Escape' && bench.getState().compare) {
        compareBy(bench, null);
        return;
      }
      if (!command) return;
      e.preventDefault();
      // A switch or a tool is not to flutter under a key that is held down.
      if (e.repeat && (command.do === 'switch' || command.do === 'solo' || command.do === 'duplicate')) return;
      runCommand(bench, command, canvas.current, showKeys);
    };
    const up = (e: KeyboardEvent): void => {
      const shows = held.get(e.code);
      held.delete(e.code);
      if (shows && bench.getState()[shows]) bench.setState({ [shows]: false });
    };
    const letGo = (): void => {
      for (const shows of held.values()) bench.setState({ [shows]: false });
      held.clear();
    };
    window.addEventListener('keydown', down);
    window.addEventListener('keyup', up);
    window.addEventListener('blur', letGo);
    return () => {
      window.removeEventListener('keydown', down);
      window.removeEventListener('keyup', up);
      window.removeEventListener('blur', letGo);
    };
  }, [bench, canvas, showKeys]);
}
