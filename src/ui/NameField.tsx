'use client';

import { Input } from 'antd';
import { useRef, useState } from 'react';

type Props = {
  label: string;
  value: string;
  /** Told once: the new name, or null when it stays as it was. */
  onDone: (name: string | null) => void;
};

/** A name being changed: Enter or leaving it keeps, Escape gives up, an empty name is none. */
export function NameField({ label, value, onDone }: Props) {
  const [text, setText] = useState(value);
  const told = useRef(false);
  const finish = (name: string | null): void => {
    // Enter takes the field away, which makes it lose the focus as well.
    if (told.current) return;
    told.current = true;
    const wanted = name?.trim();
    onDone(wanted && wanted !== value ? wanted : null);
  };
  return (
    <Input
      size="small"
      autoFocus
      aria-label={label}
      maxLength={200}
      value={text}
      onFocus={(e) => e.target.select()}
      onChange={(e) => setText(e.target.value)}
      onBlur={() => finish(text)}
      onPressEnter={() => finish(text)}
      onKeyDown={(e) => {
        if (e.key === 'Escape') finish(null);
        e.stopPropagation();
      }}
    />
  );
}
