'use client';

import { MoreOutlined } from '@ant-design/icons';
import { App, Button, Dropdown } from 'antd';
import Link from 'next/link';
import { useState } from 'react';
import type { DrawingCard as Card } from '@/server/drawings';
import { formatSince } from '@/ui/format';
import { NameField } from '@/ui/NameField';

export type CardActions = {
  rename(card: Card, title: string): Promise<void>;
  duplicate(card: Card): Promise<void>;
  bin(card: Card): Promise<void>;
  putBack(card: Card): Promise<void>;
  deleteForGood(card: Card): Promise<void>;
};

type Props = { card: Card; now: number; actions: CardActions; inBin?: boolean };

/** One drawing: how it looks, how far it is, when it was last changed. */
export function DrawingCard({ card, now, actions, inBin }: Props) {
  const { modal } = App.useApp();
  const [renaming, setRenaming] = useState(false);
  const keep = (title: string | null): void => {
    setRenaming(false);
    if (title) void actions.rename(card, title);
  };
  const sure = (): void =>
    void modal.confirm({
      title: `Delete “${card.title}” for good?`,
      content: 'Its lines and its whole history go. This cannot be undone.',
      okText: 'Delete for good',
      okButtonProps: { danger: true },
      cancelText: 'Keep it',
      onOk: () => actions.deleteForGood(card),
    });
  const items = inBin
    ? [
        { key: 'back', label: 'Put back', onClick: () => void actions.putBack(card) },
        { key: 'gone', label: 'Delete for good', danger: true, onClick: sure },
      ]
    : [
        { key: 'rename', label: 'Rename', onClick: () => setRenaming(true) },
        { key: 'copy', label: 'Duplicate', onClick: () => void actions.duplicate(card) },
        { key: 'bin', label: 'Move to the bin', onClick: () => void actions.bin(card) },
      ];
  // eslint-disable-next-line @next/next/no-img-element -- drawn by the server for just this revision
  const picture = <img src={`/api/drawings/${card.id}/thumbnail?revision=${card.revision}`} alt="" />;
  return (
    <li className="drawing-card">
      {inBin ? (
        <div className="thumb">{picture}</div>
      ) : (
        <Link href={`/drawing/${card.id}`} className="thumb" aria-label={`Open ${card.title}`}>
          {picture}
        </Link>
      )}
      <div className="about">
        <div>
          {renaming ? (
            <NameField label="Title" value={card.title} onDone={keep} />
          ) : (
            <strong title={card.title}>{card.title}</strong>
          )}
          <small>
            <i>{card.stage}</i> {formatSince(card.changedAt, now)}
          </small>
        </div>
        <Dropdown trigger={['click']} menu={{ items }}>
          <Button type="text" icon={<MoreOutlined />} aria-label={`More for ${card.title}`} />
        </Dropdown>
      </div>
    </li>
  );
}
