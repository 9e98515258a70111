'use client';

import { ArrowDownOutlined, ArrowUpOutlined } from '@ant-design/icons';
import { Button, Switch } from 'antd';
import type { Correction, CorrectionKind, Reference } from '@/core';
import { correctReference, setCorrection } from '@/core/edits/references';
import { firstCorrections, usualOrder } from '@/core/raster/correction';
import { useBench, useBenchState } from '../../benchContext';
import { correctionNames } from './corrections';
import { CorrectionFields } from './CorrectionFields';
import { layStraight } from './layStraight';

/** What is done to the picture: each with a switch, in the order in which it is done. The file itself is never altered. */
export function CorrectionsCard({ reference: r }: { reference: Reference }) {
  const bench = useBench();
  const reading = useBenchState((s) => s.reading);
  const uncorrected = useBenchState((s) => s.uncorrected);
  const own = r.corrections.map((c) => c.kind);
  const rest = usualOrder.filter((k) => !own.includes(k));
  const move = (from: number, to: number): void => {
    const list = r.corrections.toSpliced(from, 1).toSpliced(to, 0, r.corrections[from]);
    bench.commit(correctReference(bench.getState().drawing, r.id, list, 'Reorder corrections'));
  };
  return (
    <div className="card" role="group" aria-label="Corrections">
      <div className="row">
        <b>Corrections</b>
        {r.corrections.some((c) => c.on) && (
          <Button
            size="small"
            type="text"
            title="Hold X for as long as you want to see it"
            aria-pressed={uncorrected}
            onClick={() => bench.setState({ uncorrected: !uncorrected })}
          >
            {uncorrected ? 'Before' : 'After'}
          </Button>
        )}
      </div>
      <ol className="corrections">
        {r.corrections.map((c, i) => (
          <li key={c.kind} className={c.on ? 'on' : 'held'}>
            <CorrectionHead reference={r} kind={c.kind} correction={c} disabled={reading}>
              <span className="row-buttons">
                <Button
                  size="small"
                  type="text"
                  icon={<ArrowUpOutlined />}
                  disabled={reading || i === 0}
                  aria-label={`Do ${correctionNames[c.kind].name} sooner`}
                  title="Sooner"
                  onClick={() => move(i, i - 1)}
                />
                <Button
                  size="small"
                  type="text"
                  icon={<ArrowDownOutlined />}
                  disabled={reading || i === r.corrections.length - 1}
                  aria-label={`Do ${correctionNames[c.kind].name} later`}
                  title="Later"
                  onClick={() => move(i, i + 1)}
                />
              </span>
            </CorrectionHead>
            {c.on && <CorrectionFields reference={r} correction={c} disabled={reading} />}
          </li>
        ))}
        {rest.map((kind) => (
          <li key={kind}>
            <CorrectionHead reference={r} kind={kind} correction={null} disabled={reading} />
          </li>
        ))}
      </ol>
    </div>
  );
}

type HeadProps = {
  reference: Reference;
  kind: CorrectionKind;
  correction: Correction | null;
  disabled: boolean;
  children?: React.ReactNode;
};

function CorrectionHead({ reference: r, kind, correction, disabled, children }: HeadProps) {
  const bench = useBench();
  const { name, what } = correctionNames[kind];
  const turnOn = async (on: boolean): Promise<void> => {
    if (on && !correction && (kind === 'crop' || kind === 'straighten')) {
      bench.setState({ reference: r.id, tool: kind === 'crop' ? 'crop' : 'corners' });
      return;
    }
    if (['crop', 'corners'].includes(bench.getState().tool)) bench.setState({ tool: 'place' });
    const next = { ...(correction ?? firstCorrections[kind]), on } as Correction;
    bench.commit(setCorrection(bench.getState().drawing, r.id, next, `${name} ${on ? 'on' : 'off'}`));
    if (on && kind === 'turn' && !correction) await layStraight(bench, r);
  };
  return (
    <div className="correction-head" title={what}>
      <Switch
        size="small"
        checked={correction?.on ?? false}
        disabled={disabled}
        aria-label={name}
        onChange={(on) => void turnOn(on)}
      />
      <span>{name}</span>
      {children}
    </div>
  );
}
