'use client';

import { Button, Switch } from 'antd';
import { formatNumber } from '@/ui/format';
import { later } from '@/ui/later';
import { useBench, usePreference } from '../../benchContext';
import { handRecordOf, nothingDone, type HandRecord } from '../../state/handRecord';
import { prefer } from '../../state/preferences';
import { useStored } from '../../useStored';
import { createStore } from 'zustand/vanilla';
import { Row } from '../shared/LineCard';
import { minutes } from './minutes';

const none = createStore<HandRecord>()(() => nothingDone);
/** The chart comes when it is first looked at. */
const StageTimes = later(() => import('./StageTimes').then((m) => m.StageTimes), 112);

/** What the hand did on this drawing: counted on this machine, for nobody else, and not at all where it is put off. */
export function HandCard() {
  const bench = useBench();
  const recording = handRecordOf(bench);
  const record = useStored(recording?.store ?? none, (r) => r);
  const isOn = usePreference('handRecord');
  const total = Object.values(record.stages).reduce<number>((a, b) => a + (b ?? 0), 0);
  return (
    <div className="card" role="group" aria-label="The hand">
      <div className="row">
        <b>The hand</b>
        <label>
          <span className="option-label">count </span>
          <Switch size="small" checked={isOn} aria-label="Count" onChange={(on) => prefer({ handRecord: on })} />
        </label>
      </div>
      <p className="quiet">Counted on this machine, and kept here only.</p>
      <Row what="Presses" figure={formatNumber(record.presses)} />
      <Row what="Nodes laid" figure={formatNumber(record.nodes)} />
      <Row what="Taken back" figure={formatNumber(record.undos)} />
      <Row what="Time at work" figure={minutes(total)} />
      {total > 0 && <StageTimes stages={record.stages} />}
      {(total > 0 || record.presses > 0) && (
        <Button size="small" onClick={() => recording?.clear()}>
          Begin anew
        </Button>
      )}
    </div>
  );
}
