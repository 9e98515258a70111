'use client';

import { Input, type InputRef } from 'antd';
import { useRef, useState } from 'react';
import { useFollowing, type Following } from './following';

type Props = {
  label: string;
  /** The value as it is written; null where the chosen differ. */
  shown: string | null;
  /** The value under a moving hand, shown while nothing is typed; null where there is none. */
  follows?: Following<string | null>;
  /** What stands in the field while it has no value. */
  unset?: string;
  /** What is written behind the figure. */
  unit?: string;
  /** What to say of a text that is no such figure. */
  help: string;
  disabled?: boolean;
  /** What a text stands for; null when it makes no sense or is out of bounds. */
  read: (text: string) => number | null;
  /** The value so many steps away from what the text stands for (null: from the value). */
  stepped: (text: string | null, steps: number) => number;
  onCommit: (value: number) => void;
};

/**
 * A field for a figure. Enter or leaving it sets the value, Escape gives it up; both hand the keys back to the page. Arrows
 * step, with Shift by tens.
 */
export function FigureField({
  label,
  shown,
  follows,
  unset = 'mixed',
  unit,
  help,
  disabled,
  read,
  stepped,
  onCommit,
}: Props) {
  const [text, setText] = useState<string | null>(null);
  const [wrong, setWrong] = useState(false);
  // Leaving the field comes with giving up, before the text that was given up is gone.
  const givenUp = useRef(false);
  const field = useRef<InputRef>(null);
  useFollowing(follows, (now) => {
    const input = field.current?.input;
    if (input && text === null && now !== null && input.value !== now) input.value = now;
  });
  const settle = (): void => {
    setText(null);
    setWrong(false);
  };
  /** Sets what was typed; whether it made sense. */
  const commit = (): boolean => {
    if (text === null || givenUp.current) return true;
    const value = text === shown ? null : read(text);
    if (value === null && text !== shown) {
      setWrong(true);
      return false;
    }
    settle();
    if (value !== null) onCommit(value);
    return true;
  };
  /** Gives the keys back to the page, without setting the value again on the way. */
  const leave = (input: HTMLInputElement): void => {
    givenUp.current = true;
    input.blur();
    givenUp.current = false;
  };
  return (
    <Input
      ref={field}
      className="figure-field"
      aria-label={label}
      aria-invalid={wrong}
      size="small"
      disabled={disabled}
      status={wrong ? 'error' : undefined}
      value={text ?? shown ?? ''}
      placeholder={shown === null ? unset : undefined}
      title={wrong ? help : undefined}
      suffix={unit && <span className="unit">{unit}</span>}
      onChange={(e) => setText(e.target.value)}
      onFocus={(e) => e.target.select()}
      onBlur={commit}
      onKeyDown={(e) => {
        if (e.key === 'Enter') {
          if (commit()) leave(e.currentTarget);
        } else if (e.key === 'Escape') {
          settle();
          leave(e.currentTarget);
        } else if (e.key === 'ArrowUp' || e.key === 'ArrowDown') {
          e.preventDefault();
          const value = stepped(text, (e.key === 'ArrowUp' ? 1 : -1) * (e.shiftKey ? 10 : 1));
          settle();
          onCommit(value);
        }
        e.stopPropagation();
      }}
    />
  );
}
