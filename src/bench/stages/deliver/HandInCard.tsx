'use client';

import { DeleteOutlined, DownloadOutlined, RedoOutlined, StopOutlined } from '@ant-design/icons';
import { Button, Progress } from 'antd';
import { useEffect, useState } from 'react';
import { formatBytes, formatTime } from '@/ui/format';
import { PickField } from '@/ui/PickField';
import { useBench, useBenchState } from '../../benchContext';
import { ApiError } from '../../state/api';
import * as api from '../../state/handIns';
import type { HandIn, Place } from '../../state/handIns';
import { useDelivery } from './useDelivery';
import { useList } from './useList';

const DAY = 86_400_000;

/** Handing the file in, as it is set under File; what became of it, and what was handed in before. */
export function HandInCard() {
  const bench = useBench();
  const id = useBenchState((s) => s.id);
  const saved = useBenchState((s) => s.save.kind === 'saved');
  const { wanted } = useDelivery();
  const [places, setPlaces] = useState<readonly Place[]>([]);
  const [openedAt] = useState(Date.now);
  const [picked, setPicked] = useState<string | null>(null);
  const [isMaking, setMaking] = useState(false);
  const { list, look } = useList(
    id,
    async () => (await api.listHandIns(id)).handIns,
    (h) => h.state === 'sending',
  );
  const fail = (e: Error): void => bench.tell(e.message, undefined, 'warning');
  useEffect(() => {
    void api.listPlaces().then(
      (a) => setPlaces(a.places),
      () => undefined,
    );
  }, []);
  const place = places.find((p) => p.id === picked) ?? places[0];
  const fits = !place || place.formats.includes(wanted.format);
  const send = (lacking = false): void => {
    setMaking(true);
    const refused = (e: Error): void => {
      if (!(e instanceof ApiError && e.code === 'lacking')) return fail(e);
      bench.tell(e.message, { label: 'Hand it in without', run: () => send(true) }, 'warning');
    };
    void api
      .handIn(id, place.id, wanted, lacking)
      .then(look, refused)
      .finally(() => setMaking(false));
  };
  const kind = wanted.format.toUpperCase();
  return (
    <div className="card" role="group" aria-label="Hand in">
      <div className="row">
        <b>Hand in</b>
      </div>
      <PickField
        aria-label="Where to"
        value={place?.id}
        loading={places.length === 0}
        options={places.map((p) => ({ value: p.id, label: p.name }))}
        onChange={setPicked}
        popupMatchSelectWidth={false}
      />
      {place && (
        <p className="quiet">
          Takes {place.takes}.{place.deadline !== null && ` ${deadlineOf(place.deadline, openedAt)}`}
        </p>
      )}
      <p className="quiet">
        What goes is the file as it is set under <b>File</b>: {kind}.{!fits && ' It would be refused here.'}
      </p>
      <Button type="primary" block disabled={!saved || !place} loading={isMaking} onClick={() => send()}>
        {saved ? `Hand in the ${kind}` : 'Waiting for the last change'}
      </Button>
      {list && list.length > 0 && (
        <ul className="made-files" aria-label="Handed in">
          {list.map((h) => (
            <HandedRow
              key={h.id}
              handed={h}
              place={places.find((p) => p.id === h.place)?.name ?? h.place}
              look={look}
              fail={fail}
            />
          ))}
        </ul>
      )}
    </div>
  );
}

function deadlineOf(deadline: number, now: number): string {
  if (deadline < now) return `It closed on ${formatTime(deadline)}.`;
  const days = Math.floor((deadline - now) / DAY);
  return `Until ${formatTime(deadline)}${days < 1 ? ': today' : days === 1 ? ': a day left' : `: ${days} days left`}.`;
}

const words: Record<HandIn['state'], string> = {
  sending: 'on its way',
  received: 'received',
  refused: 'refused',
  failed: 'did not arrive',
};

type RowProps = { handed: HandIn; place: string; look: () => void; fail: (e: Error) => void };

function HandedRow({ handed, place, look, fail }: RowProps) {
  const deed = (label: string, icon: React.ReactNode, run: () => Promise<unknown>) => (
    <Button
      size="small"
      type="text"
      icon={icon}
      aria-label={`${label} ${handed.name}`}
      title={label}
      onClick={() => void run().then(look, fail)}
    />
  );
  const { state } = handed;
  return (
    <li data-state={state}>
      <div>
        <b title={handed.name}>{place}</b>
        <small>
          {handed.name}, {formatBytes(handed.bytes)}: {words[state]}
          {handed.receipt && `, ${handed.receipt}, ${formatTime(handed.receivedAt!)}`}
          {handed.reason && `. ${handed.reason}`}
        </small>
        {state === 'sending' && (
          <Progress size="small" percent={Math.round((100 * handed.sent) / Math.max(1, handed.bytes))} />
        )}
      </div>
      <span>
        {state === 'sending' && deed('Stop', <StopOutlined />, () => api.dropHandIn(handed.id))}
        {(state === 'failed' || state === 'refused') &&
          deed('Send again', <RedoOutlined />, () => api.sendAgain(handed.id))}
        {(state === 'failed' || state === 'refused') &&
          deed('Forget', <DeleteOutlined />, () => api.dropHandIn(handed.id))}
        {state === 'received' && (
          <Button
            size="small"
            type="text"
            icon={<DownloadOutlined />}
            href={api.handedHref(handed.id)}
            download={handed.name}
            aria-label={`Save ${handed.name} as it was handed in`}
            title="As it was handed in"
          />
        )}
      </span>
    </li>
  );
}
