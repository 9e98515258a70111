'use client';

import { DeleteOutlined, DiffOutlined, BookOutlined, RollbackOutlined, SwapOutlined } from '@ant-design/icons';
import { Button, Input } from 'antd';
import { useState } from 'react';
import { formatNumber, formatSince } from '@/ui/format';
import { later } from '@/ui/later';
import { Slip } from '@/ui/Slip';
import { useBench, useBenchState } from '../benchContext';
import { versionPicture, type Version } from '../state/api';
import { compareWith, forgetVersion, goBackTo, keepVersion, loadVersions, showDifferences } from '../commands/versions';

/** It comes when it is first looked at. */
const TimeLine = later(() => import('./TimeLine').then((m) => m.TimeLine), 0);

/** Versions: the drawing kept by name, each with a picture; compared with, and gone back to. */
export function VersionsMenu() {
  const bench = useBench();
  const [openedAt, setOpenedAt] = useState(0);
  const onOpen = (): void => {
    setOpenedAt(Date.now());
    void loadVersions(bench);
  };
  return (
    <Slip
      title="Versions"
      placement="bottomRight"
      onOpen={onOpen}
      content={(close) => <Versions now={openedAt} close={close} />}
    >
      <Button
        shape="round"
        icon={<BookOutlined />}
        aria-label="Versions"
        title="Keep a version by name, or go back to one"
      />
    </Slip>
  );
}

function Versions({ now, close }: { now: number; close: () => void }) {
  const bench = useBench();
  const versions = useBenchState((s) => s.versions);
  const reading = useBenchState((s) => s.reading);
  const [name, setName] = useState('');
  const [note, setNote] = useState('');
  const [isKeeping, setKeeping] = useState(false);
  const keep = async (): Promise<void> => {
    if (!name.trim() || isKeeping) return;
    setKeeping(true);
    if (await keepVersion(bench, name.trim(), note.trim())) {
      setName('');
      setNote('');
    }
    setKeeping(false);
  };
  return (
    <div className="versions">
      <div className="keep">
        <Input
          size="small"
          autoFocus
          aria-label="Name of the version"
          placeholder="a name, as “before inking”"
          maxLength={120}
          value={name}
          disabled={reading}
          onChange={(e) => setName(e.target.value)}
          onPressEnter={() => void keep()}
          onKeyDown={(e) => e.stopPropagation()}
        />
        <Button
          size="small"
          type="primary"
          disabled={reading || !name.trim()}
          loading={isKeeping}
          onClick={() => void keep()}
        >
          Keep
        </Button>
      </div>
      <Input.TextArea
        size="small"
        rows={2}
        aria-label="Note to the version"
        placeholder="a note, if there is anything to say"
        maxLength={2_000}
        value={note}
        disabled={reading}
        onChange={(e) => setNote(e.target.value)}
        onKeyDown={(e) => e.stopPropagation()}
      />
      {versions?.length === 0 && (
        <p className="quiet">
          None is kept yet. A version is the drawing as it is now; it can be compared with and gone back to.
        </p>
      )}
      {!!versions?.length && (
        <ul>
          {versions.map((v) => (
            <VersionRow key={v.id} v={v} now={now} close={close} />
          ))}
        </ul>
      )}
      <TimeLine close={close} />
    </div>
  );
}

function VersionRow({ v, now, close }: { v: Version; now: number; close: () => void }) {
  const bench = useBench();
  const id = useBenchState((s) => s.id);
  const reading = useBenchState((s) => s.reading);
  const isCompared = useBenchState((s) => s.before.version === v.id);
  const deed = (label: string, icon: React.ReactNode, run: () => void, off = false, on = false) => (
    <Button
      size="small"
      type={on ? 'primary' : 'text'}
      icon={icon}
      disabled={off}
      aria-label={`${label} ${v.name}`}
      title={label}
      onClick={run}
    />
  );
  return (
    <li>
      {/* A picture that the server makes: there is nothing for the page to optimise. */}
      {/* eslint-disable-next-line @next/next/no-img-element */}
      <img src={versionPicture(id, v.id)} alt="" loading="lazy" width={64} height={48} />
      <div>
        <b>{v.name}</b>
        <small>
          {formatSince(v.at, Math.max(now, v.at))} · change {formatNumber(v.revision)}
        </small>
        {v.note && <p className="version-note">{v.note}</p>}
      </div>
      <span>
        {deed('Show what changed since', <DiffOutlined />, () => {
          close();
          void showDifferences(bench, { revision: v.revision, label: `“${v.name}”` }, { revision: null, label: 'now' });
        })}
        {deed('Compare with', <SwapOutlined />, () => void compareWith(bench, v), false, isCompared)}
        {deed(
          'Go back to',
          <RollbackOutlined />,
          () => {
            close();
            void goBackTo(bench, v);
          },
          reading,
        )}
        {deed('Forget', <DeleteOutlined />, () => void forgetVersion(bench, v), reading)}
      </span>
    </li>
  );
}
