'use client';

import { App, Button } from 'antd';
import { formatCount } from '@/ui/format';
import type { DeedWithMany } from '@/server/drawings';

type Props = {
  count: number;
  /** Where they are had as one package. */
  packageHref: string;
  shown: number;
  inBin: boolean;
  busy: boolean;
  run: (deed: DeedWithMany) => void;
  all: () => void;
  none: () => void;
};

/** What can be done with all drawings that are picked, at once. */
export function ManyBar({ count, packageHref, shown, inBin, busy, run, all, none }: Props) {
  const { modal } = App.useApp();
  const sure = (): void =>
    void modal.confirm({
      title: `Delete ${formatCount(count, 'drawing')} for good?`,
      content: 'Their lines and their whole histories go. This cannot be undone.',
      okText: 'Delete for good',
      okButtonProps: { danger: true },
      cancelText: 'Keep them',
      onOk: () => run('delete for good'),
    });
  return (
    <div className="many-bar" role="toolbar" aria-label="Drawings that are picked">
      <strong>{formatCount(count, 'drawing')} picked</strong>
      {inBin ? (
        <>
          <Button disabled={busy} onClick={() => run('put back')}>
            Put back
          </Button>
          <Button danger disabled={busy} onClick={sure}>
            Delete for good
          </Button>
        </>
      ) : (
        <>
          <Button disabled={busy} onClick={() => run('duplicate')}>
            Duplicate
          </Button>
          <Button
            disabled={busy}
            href={packageHref}
            download
            title="With their histories and pictures, for another machine"
          >
            Save as a package
          </Button>
          <Button disabled={busy} onClick={() => run('bin')}>
            Move to the bin
          </Button>
        </>
      )}
      <span className="apart" />
      <Button type="text" disabled={count === shown} onClick={all}>
        All {shown}
      </Button>
      <Button type="text" onClick={none}>
        None
      </Button>
    </div>
  );
}
