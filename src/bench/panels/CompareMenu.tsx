'use client';

import { SwapOutlined } from '@ant-design/icons';
import { Button, Dropdown } from 'antd';
import { applyChange, inverseOf } from '@/core';
import { useBench, useBenchState, useBenchStateLater } from '../benchContext';
import type { Bench, Compare } from '../state/store';
import { compareBy } from '../commands/desk';
import { compareWith, loadVersions } from '../commands/versions';

const ways: { key: string; label: string; compare: Compare | null }[] = [
  { key: 'off', label: 'each in its place', compare: null },
  { key: 'wipe', label: 'wipe: the reference on the left', compare: { kind: 'wipe', at: 0.5 } },
  { key: 'beside', label: 'side by side', compare: { kind: 'beside' } },
  { key: 'blink', label: 'blink', compare: { kind: 'blink' } },
];

/** So many of the last changes can be gone back behind. */
const CHANGES = 8;

/** How the lines are compared with the reference, and what they were like before. */
export function CompareMenu() {
  const bench = useBench();
  const kind = useBenchState((s) => s.compare?.kind ?? 'off');
  const before = useBenchState((s) => s.before.label);
  const last = useBenchStateLater((s) => s.undoable);
  const changes = last.slice(-CHANGES).toReversed();
  const versions = useBenchState((s) => s.versions) ?? [];
  const compared = useBenchState((s) => s.before.version);
  return (
    <Dropdown
      trigger={['click']}
      onOpenChange={(isOpen) => isOpen && void loadVersions(bench)}
      menu={{
        selectable: true,
        selectedKeys: [kind, before === 'as it was opened' ? 'opened' : compared ? `version ${compared}` : ''],
        items: [
          {
            key: 'ways',
            type: 'group',
            label: 'Lines and reference',
            children: ways.map(({ key, label }) => ({ key, label })),
          },
          {
            key: 'before',
            type: 'group',
            label: `Hold X to see it ${before}`,
            children: [
              { key: 'opened', label: 'as it was opened' },
              ...versions.map((v) => ({ key: `version ${v.id}`, label: `as “${v.name}”` })),
              ...changes.map((c, i) => ({ key: `change ${i}`, label: `before “${c.label}”` })),
            ],
          },
        ],
        onClick: ({ key, domEvent }) => {
          (domEvent.currentTarget as HTMLElement | null)?.blur?.();
          const way = ways.find((w) => w.key === key);
          if (way) compareBy(bench, way.compare);
          else if (key === 'opened')
            bench.setState({ before: { drawing: bench.getState().opened, label: 'as it was opened' } });
          else if (key.startsWith('version ')) {
            const version = versions.find((v) => key === `version ${v.id}`);
            if (version) void compareWith(bench, version);
          } else goBehind(bench, Number(key.split(' ')[1]));
        },
      }}
    >
      <Button
        shape="round"
        type={kind === 'off' ? 'default' : 'primary'}
        icon={<SwapOutlined />}
        aria-label="Compare"
        title="Compare the lines with the reference, or with what they were"
      />
    </Dropdown>
  );
}

/** Sets what holding X shows to the state before one of the last changes. */
function goBehind(bench: Bench, back: number): void {
  const { drawing, undoable } = bench.getState();
  const taken = undoable.slice(undoable.length - 1 - back).toReversed();
  const then = taken.reduce((d, c) => applyChange(d, inverseOf(c, 'before', c.label)), drawing);
  const label = `before “${taken.at(-1)!.label}”`;
  bench.setState({ before: { drawing: then, label } });
  bench.tell(`Hold X to see it ${label}.`);
}
