'use client';

import { MoreOutlined } from '@ant-design/icons';
import { App, Button, Checkbox, Dropdown } from 'antd';
import Link from 'next/link';
import { useState } from 'react';
import type { DeedWithMany, DrawingCard as Card } from '@/server/drawings';
import { formatCount, formatSince } from '@/ui/format';
import { NameField } from '@/ui/NameField';

export type CardActions = {
  rename(card: Card, title: string): Promise<void>;
  run(card: Card, deed: DeedWithMany): Promise<void>;
};

type Props = {
  card: Card;
  now: number;
  actions: CardActions;
  inBin?: boolean;
  isPicked: boolean;
  /** With `through`, all from the card that was picked last up to this one. */
  onPick: (card: Card, through: boolean) => void;
};

/** One drawing: how it looks, how far it is, when it was last changed. */
export function DrawingCard({ card, now, actions, inBin, isPicked, onPick }: Props) {
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
      onOk: () => actions.run(card, 'delete for good'),
    });
  const items = inBin
    ? [
        { key: 'back', label: 'Put back', onClick: () => void actions.run(card, 'put back') },
        { key: 'gone', label: 'Delete for good', danger: true, onClick: sure },
      ]
    : [
        { key: 'rename', label: 'Rename', onClick: () => setRenaming(true) },
        { key: 'copy', label: 'Duplicate', onClick: () => void actions.run(card, 'duplicate') },
        { key: 'bin', label: 'Move to the bin', onClick: () => void actions.run(card, 'bin') },
      ];
  // eslint-disable-next-line @next/next/no-img-element -- drawn by the server for just this revision
  const picture = <img src={`/api/drawings/${card.id}/thumbnail?revision=${card.revision}`} alt="" />;
  return (
    <li className={isPicked ? 'drawing-card picked' : 'drawing-card'}>
      <Checkbox
        className="pick"
        checked={isPicked}
        aria-label={`Pick ${card.title}`}
        title="Pick it; with Shift all from the last one"
        onChange={(e) => onPick(card, e.nativeEvent.shiftKey)}
      />
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
          <Progress card={card} />
        </div>
        <Dropdown trigger={['click']} menu={{ items }}>
          <Button type="text" icon={<MoreOutlined />} aria-label={`More for ${card.title}`} />
        </Dropdown>
      </div>
    </li>
  );
}

/** How far a drawing is: its lines, and of several sheets those that are traced, as strokes that are drawn through. */
function Progress({ card: { sheets, sheetsTraced, lines } }: { card: Card }) {
  if (lines === null || sheets === null || sheetsTraced === null) return null;
  const isPlanned = sheets > 1 || sheetsTraced > 0;
  const words = isPlanned ? `${sheetsTraced} of ${sheets} sheets traced` : '';
  return (
    <small className="progress" title={words || undefined}>
      <span>{lines === 0 ? 'no lines yet' : formatCount(lines, 'line')}</span>
      {isPlanned && (
        <>
          <span className="strokes" aria-hidden="true">
            {Array.from({ length: Math.min(sheets, 12) }, (_, i) => (
              <b key={i} className={i < Math.round((sheetsTraced * Math.min(sheets, 12)) / sheets) ? 'on' : ''} />
            ))}
          </span>
          <span className="said-only">, {words}</span>
        </>
      )}
    </small>
  );
}
