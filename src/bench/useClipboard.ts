'use client';

import { useEffect, type RefObject } from 'react';
import { bringIn } from './commands/desk';
import type { BenchCanvas } from './canvas/benchCanvas';
import { whenQuiet } from '@/ui/whenQuiet';
import { copied, cut, looksLikeSvg, paste } from './commands/clipboard';
import { practiseReading, readyToRead } from './state/readingClipping';
import type { Bench } from './state/store';
import { isTyping } from './typing';

/** What has to be done at once when a drawing is opened is done by then, ms; and the machine is not taken from a hand at work. */
const PRACTICE = { after: 4_000, quiet: 1_000 };

/** Copy, cut and paste: lines as SVG, here and from anywhere; a picture that is pasted is brought in. */
export function useClipboard(bench: Bench, canvas: RefObject<BenchCanvas | null>): void {
  useEffect(() => {
    // A paste event does not say whether Shift was held with it.
    let shift = false;
    const keys = (e: KeyboardEvent): void => {
      shift = e.shiftKey;
      // The key that is held for a paste comes a moment before it.
      if (e.key === 'Control' || e.key === 'Meta') readyToRead();
    };
    const take = (e: ClipboardEvent, svg: string | null): void => {
      if (!svg || !e.clipboardData) return;
      e.preventDefault();
      e.clipboardData.setData('text/plain', svg);
      e.clipboardData.setData('image/svg+xml', svg);
    };
    const onCopy = (e: ClipboardEvent): void => {
      if (!isTyping(e.target)) take(e, copied(bench));
    };
    const onCut = (e: ClipboardEvent): void => {
      if (!isTyping(e.target)) take(e, bench.getState().reading ? copied(bench) : cut(bench));
    };
    const onPaste = (e: ClipboardEvent): void => {
      if (isTyping(e.target) || !e.clipboardData) return;
      const data = e.clipboardData;
      const text = data.getData('image/svg+xml') || data.getData('text/plain');
      const pictures = [...data.files].filter((f) => f.type.startsWith('image/'));
      if (looksLikeSvg(text)) {
        e.preventDefault();
        void paste(bench, text, shift ? null : (canvas.current?.place ?? null));
      } else if (pictures.length > 0) {
        e.preventDefault();
        void bringIn(bench, pictures);
      } else if (text.trim() !== '') {
        bench.tell('What is on the clipboard is neither lines, an SVG nor a picture.');
      }
    };
    const callOff = whenQuiet(PRACTICE, practiseReading);
    window.addEventListener('keydown', keys, true);
    // Whoever comes back may have copied something elsewhere.
    window.addEventListener('focus', readyToRead);
    document.addEventListener('copy', onCopy);
    document.addEventListener('cut', onCut);
    document.addEventListener('paste', onPaste);
    return () => {
      callOff();
      window.removeEventListener('keydown', keys, true);
      window.removeEventListener('focus', readyToRead);
      document.removeEventListener('copy', onCopy);
      document.removeEventListener('cut', onCut);
      document.removeEventListener('paste', onPaste);
    };
  }, [bench, canvas]);
}
