'use client';

import { useState } from 'react';
import { tintLines, weightLines } from '@/core/edits/strokes';
import { findLine } from '@/core/drawing/find';
import { ranksOf, type Rank } from '@/core/ink/hierarchy';
import { firstTint } from '@/core/scene/ink';
import { Amount } from '@/ui/Amount';
import { Chip } from '@/ui/Chip';
import { formatCount, formatShare } from '@/ui/format';
import { LengthField } from '@/ui/LengthField';
import { useBench, useBenchState } from '../../benchContext';
import { useDeedButton } from '../../useDeedButton';

const rankNames: Record<Rank, string> = { outer: 'outer contour', inner: 'inner forms', detail: 'details' };
const ranks = Object.keys(rankNames) as Rank[];
/** The proposed weights, as shares of the mean width. */
const shares: Record<Rank, number> = { outer: 1.6, inner: 1, detail: 0.55 };

type Proposal = { lines: ReadonlySet<string>; ranks: Map<string, Rank>; weights: Record<Rank, number> };

/** Weights proposed from how the chosen lines lie to each other, and their colour from what they enclose. */
export function WeightsCard() {
  const bench = useBench();
  const button = useDeedButton();
  const chosen = useBenchState((s) => s.lines);
  const reading = useBenchState((s) => s.reading);
  const [proposal, setProposal] = useState<Proposal | null>(null);
  const [by, setBy] = useState(firstTint);
  const [linked, setLinked] = useState(true);
  if (chosen.size === 0) return null;
  // A proposal is for the lines that it was made for.
  const current = proposal?.lines === chosen ? proposal : null;
  const propose = (): void => {
    const { drawing, lines } = bench.getState();
    const list = [...lines].flatMap((id) => findLine(drawing, id)?.line ?? []);
    const mean = list.reduce((sum, l) => sum + l.style.width, 0) / Math.max(1, list.length) || 1;
    const weights = Object.fromEntries(ranks.map((r) => [r, Math.round(mean * shares[r] * 100) / 100]));
    setProposal({ lines, ranks: ranksOf(list), weights: weights as Record<Rank, number> });
  };
  const count = (rank: Rank): number => [...(current?.ranks.values() ?? [])].filter((r) => r === rank).length;
  return (
    <div className="card weights-card" role="group" aria-label="Weights and tint">
      <div className="row">
        <b>Weights</b>
        <span>from how they lie</span>
      </div>
      {current ? (
        <>
          {ranks.map((rank) => (
            <div className="row weight" key={rank}>
              <button
                type="button"
                className="text-button"
                title={`Choose the ${rankNames[rank]}`}
                onClick={() => bench.choose([...current.ranks].flatMap(([id, r]) => (r === rank ? [id] : [])))}
              >
                {rankNames[rank]}
              </button>
              <small>{formatCount(count(rank), 'line')}</small>
              <LengthField
                label={`Weight of the ${rankNames[rank]}`}
                value={current.weights[rank]}
                unit="pt"
                min={0}
                max={2000}
                disabled={reading}
                onCommit={(w) => setProposal({ ...current, weights: { ...current.weights, [rank]: w } })}
              />
            </div>
          ))}
          <div className="buttons">
            {button('apply', 'Give each line its weight', () =>
              bench.commit(weightLines(bench.getState().drawing, current.ranks, current.weights)),
            )}
            {button('leave', 'No weights by rank', () => setProposal(null))}
          </div>
        </>
      ) : (
        <div className="buttons">
          {button('propose weights', 'Outer contour, inner forms and details, each with a weight of its own', propose)}
        </div>
      )}
      <Amount
        label="darker by"
        value={by}
        min={0.1}
        max={1}
        step={0.05}
        written={formatShare}
        disabled={reading}
        onChange={setBy}
      />
      <div className="buttons">
        {button('tint lines', 'In a darker tint of what they enclose or border', () => {
          const { drawing, lines } = bench.getState();
          const nothing = 'What is chosen encloses no fill and lies beside none.';
          bench.commit(tintLines(drawing, [...lines], by, linked), null, nothing);
        })}
        <Chip on={linked} disabled={reading} title="From then on they change with that fill" onToggle={setLinked}>
          follow the fill
        </Chip>
      </div>
    </div>
  );
}
