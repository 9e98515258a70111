'use client';

import { Popover, type PopoverProps } from 'antd';
import { useState, type KeyboardEvent, type ReactElement, type ReactNode } from 'react';

type Props = Pick<PopoverProps, 'placement'> & {
  title: string;
  /** What is on it; it can close the slip. */
  content: (close: () => void) => ReactNode;
  onOpen?: () => void;
  /** The button that opens it. */
  children: ReactElement;
};

/** A slip of paper that a button opens. A press elsewhere closes it, and so does Escape, wherever in it the focus is. */
export function Slip({ title, placement, content, onOpen, children }: Props) {
  const [isOpen, open] = useState(false);
  const close = (): void => open(false);
  const escape = (e: KeyboardEvent): void => {
    if (e.key !== 'Escape') return;
    e.stopPropagation();
    // The keys are the page's again at once, not when the slip has faded.
    (document.activeElement as HTMLElement | null)?.blur();
    close();
  };
  return (
    <Popover
      trigger="click"
      placement={placement}
      open={isOpen}
      onOpenChange={(next) => {
        open(next);
        if (next) onOpen?.();
      }}
      destroyOnHidden
      title={title}
      content={<div onKeyDownCapture={escape}>{content(close)}</div>}
    >
      {children}
    </Popover>
  );
}
