'use client';

import { useRouter } from 'next/navigation';
import { useCallback, useDeferredValue, useLayoutEffect, useRef, useState } from 'react';
import { createStore } from 'zustand/vanilla';
import { NotShown } from '@/ui/NotShown';
import { BenchProvider, usePreference } from './benchContext';
import type { BenchCanvas } from './canvas/benchCanvas';
import { Cards } from './panels/Cards';
import { FailsAlone } from './panels/FailsAlone';
import { KeysDialog } from './panels/KeysDialog';
import { MessageBar } from './panels/MessageBar';
import { PageView } from './panels/PageView';
import { SheetsPanel } from './panels/SheetsPanel';
import { Shelf } from './panels/Shelf';
import { SkipLinks } from './panels/SkipLinks';
import { TopBar } from './panels/TopBar';
import { Tray } from './panels/Tray';
import { startWalk } from './panels/WalkCard';
import { followPointerKind } from './state/pointerKind';
import type { Bench } from './state/store';
import type { Hint } from './tools/tool';
import { useClipboard } from './useClipboard';
import { useKeys } from './useKeys';
import { useSession, type Exits } from './useSession';
import './style/frame.css';
import './style/topBar.css';
import './style/sheetsAndShelf.css';
import './style/pageView.css';
import './style/cards.css';
import './style/colour.css';
import './style/refine.css';
import './style/ink.css';
import './style/tray.css';
import './style/trace.css';
import './style/keys.css';
import './style/handBar.css';
import './style/smallWindows.css';

/** The bench for one drawing; nothing while that is on its way. */
export default function BenchPage({ id }: { id: string }) {
  const router = useRouter();
  const session = useSession(id, router.push);
  if (session.state === 'opening') return null;
  if (session.state === 'failed') {
    return session.missing ? (
      <NotShown isMissing title="There is no such drawing" why="It may have been deleted for good." />
    ) : (
      <NotShown
        title="The drawing cannot be opened just now"
        why={`${session.why} Nothing is lost.`}
        again={session.again}
      />
    );
  }
  return (
    <BenchProvider value={session.bench}>
      <BenchFrame {...session} />
    </BenchProvider>
  );
}

function BenchFrame({ bench, ...ways }: Exits & { bench: Bench }) {
  const canvas = useRef<BenchCanvas | null>(null);
  const keepCanvas = useCallback((made: BenchCanvas | null) => void (canvas.current = made), []);
  const [hints] = useState(() => createStore<Hint[]>()(() => []));
  const showHints = useCallback((list: Hint[]) => hints.setState(list, true), [hints]);
  const key = useCallback((k: string) => void canvas.current?.tool.key(k, { shift: false, alt: false }), []);
  const [keysShown, setKeysShown] = useState(false);
  const showKeys = useCallback(() => setKeysShown(true), []);
  useKeys(bench, canvas, showKeys);
  // Before the page is measured.
  useLayoutEffect(followPointerKind, []);
  const folded = usePreference('folded');
  useClipboard(bench, canvas);
  // The page first: what stands around it follows a little at a time, and in frames that have their size.
  const isAround = useDeferredValue(true, false);
  return (
    <div className={`bench${folded.left ? ' fold-left' : ''}${folded.right ? ' fold-right' : ''}`}>
      {isAround && <SkipLinks />}
      {isAround ? (
        <FailsAlone what="The bar above" at="top">
          <TopBar showKeys={showKeys} />
        </FailsAlone>
      ) : (
        <header className="top-bar" />
      )}
      <aside className="left" aria-label="Sheets and references">
        {isAround && (
          <FailsAlone what="The list of sheets">
            <SheetsPanel />
            <Shelf />
          </FailsAlone>
        )}
      </aside>
      <PageView isAround={isAround} canvas={canvas} onCanvas={keepCanvas} onHints={showHints} onKey={key} />
      {isAround ? <Cards /> : <aside className="cards" aria-label="Figures and settings" />}
      {isAround && <MessageBar {...ways} />}
      {isAround ? (
        <FailsAlone what="The tray" at="tray">
          <Tray hints={hints} onKey={key} />
        </FailsAlone>
      ) : (
        <footer className="tray-bar" />
      )}
      {isAround && (
        <KeysDialog open={keysShown} onClose={() => setKeysShown(false)} startWalk={() => startWalk(bench)} />
      )}
    </div>
  );
}
