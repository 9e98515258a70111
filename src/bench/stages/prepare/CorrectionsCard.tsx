'use client';

import { ArrowDownOutlined, ArrowUpOutlined } from '@ant-design/icons';
import { Button, Switch } from 'antd';
import type { Correction, CorrectionKind, Reference } from '@/core';
import { correctReference, setCorrection } from '@/core/edits/references';
import { firstCorrections, usualOrder } from '@/core/raster/correction';
import { useBench, useBenchState } from '../../benchContext';
import type { ToolId } from '../../tools/registry';
import { correctionNames } from './corrections';
import { CorrectionFields } from './CorrectionFields';
import { layStraight } from './layStraight';

/** What is done to the picture: each with a switch, in the order in which it is done. The file itself is never altered. */
export function CorrectionsCard({ reference: r }: { reference: Reference }) {
  const bench = useBench();
  const reading = useBenchState((s) => s.reading);
  const uncorrected = useBenchState((s) => s.uncorrected);
  const own = r.corrections.map((c) => c.kind);
  // A switch keeps its place when it is put on, as long as nobody has set an order.
  const places = own.map((k) => usualOrder.indexOf(k));
  const isUsual = places.every((at, i) => i === 0 || at > places[i - 1]);
  const listed = isUsual ? usualOrder : [...own, ...usualOrder.filter((k) => !own.includes(k))];
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
            {uncorrected ? 'as it came' : 'as corrected'}
          </Button>
        )}
      </div>
      <ol className="corrections">
        {listed.map((kind) => {
          const i = own.indexOf(kind);
          const c = i < 0 ? null : r.corrections[i];
          return (
            <li key={kind} className={c ? (c.on ? 'on' : 'held') : ''}>
              <CorrectionHead reference={r} kind={kind} correction={c} disabled={reading}>
                {c && <OrderButtons kind={kind} at={i} of={own.length} disabled={reading} onMove={move} />}
              </CorrectionHead>
              {c?.on && <CorrectionFields reference={r} correction={c} disabled={reading} />}
            </li>
          );
        })}
      </ol>
    </div>
  );
}

type OrderProps = {
  kind: CorrectionKind;
  at: number;
  of: number;
  disabled: boolean;
  onMove: (from: number, to: number) => void;
};

const OrderButtons = ({ kind, at, of, disabled, onMove }: OrderProps) => (
  <span className="row-buttons">
    <Button
      size="small"
      type="text"
      icon={<ArrowUpOutlined />}
      disabled={disabled || at === 0}
      aria-label={`Do ${correctionNames[kind].name} sooner`}
      title="Sooner"
      onClick={() => onMove(at, at - 1)}
    />
    <Button
      size="small"
      type="text"
      icon={<ArrowDownOutlined />}
      disabled={disabled || at === of - 1}
      aria-label={`Do ${correctionNames[kind].name} later`}
      title="Later"
      onClick={() => onMove(at, at + 1)}
    />
  </span>
);

type HeadProps = {
  reference: Reference;
  kind: CorrectionKind;
  correction: Correction | null;
  disabled: boolean;
  children?: React.ReactNode;
};

/** What is set on the picture itself, by which tool. */
const handTools: Partial<Record<CorrectionKind, ToolId>> = {
  lens: 'lens',
  crop: 'crop',
  straighten: 'corners',
  apart: 'apart',
};

const onThePicture: readonly ToolId[] = [...Object.values(handTools), 'tones'];

function CorrectionHead({ reference: r, kind, correction, disabled, children }: HeadProps) {
  const bench = useBench();
  const { name, what } = correctionNames[kind];
  const turnOn = async (on: boolean): Promise<void> => {
    const tool = handTools[kind];
    if (on && !correction && tool) {
      bench.setState({ reference: r.id, tool });
      return;
    }
    if (onThePicture.includes(bench.getState().tool)) bench.setState({ tool: 'place' });
    const next = { ...(correction ?? firstCorrections[kind]), on } as Correction;
    bench.commit(setCorrection(bench.getState().drawing, r.id, next, `${name} ${on ? 'on' : 'off'}`));
    if (on && kind === 'turn' && !correction) await layStraight(bench, r);
  };
  return (
    <div className="correction-head" title={what}>
      <label>
        <Switch
          size="small"
          checked={correction?.on ?? false}
          disabled={disabled}
          aria-label={name}
          onChange={(on) => void turnOn(on)}
        />
        <span>{name}</span>
      </label>
      {children}
    </div>
  );
}
