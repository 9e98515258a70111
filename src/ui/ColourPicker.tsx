'use client';

import { ColorPicker } from 'antd';
import { useEffect, useRef, useState, type ReactElement, type ReactNode } from 'react';
import { createPortal } from 'react-dom';

type Props = {
  /** What is coloured, as its fields are called. */
  label: string;
  value: string;
  disabled?: boolean;
  size?: 'small' | 'middle';
  presets: { label: string; colors: string[] };
  onCommit: (colour: string) => void;
  children: ReactElement;
};

/** A button that opens a mixer of colours: a few at hand, or any. A press beside it puts it away, and does nothing else. */
export function ColourPicker({ label, value, disabled, size, presets, onCommit, children }: Props) {
  const [isOpen, setOpen] = useState(false);
  return (
    <>
      {isOpen && createPortal(<div className="mixer-veil" />, document.body)}
      <ColorPicker
        value={value}
        disabled={disabled}
        size={size}
        disabledAlpha
        format="hex"
        disabledFormat
        presets={[presets]}
        panelRender={(panel) => <NamedFields label={label}>{panel}</NamedFields>}
        open={isOpen}
        onOpenChange={(open) => {
          setOpen(open);
          // Put away, it lets go of the keys: they are the page's again.
          if (!open) letGo();
        }}
        onChangeComplete={(c) => onCommit(c.toHexString().slice(0, 7).toLowerCase())}
      >
        {children}
      </ColorPicker>
    </>
  );
}

const letGo = (): void => {
  const { activeElement } = document;
  if (activeElement instanceof HTMLElement && activeElement.closest('.ant-popover')) activeElement.blur();
};

/** The mixer's own fields have no names: they are given them, each time it is drawn. */
function NamedFields({ label, children }: { label: string; children: ReactNode }) {
  const box = useRef<HTMLDivElement>(null);
  useEffect(() => {
    const name = (selector: string, what: string): void =>
      box.current?.querySelectorAll(selector).forEach((e) => e.setAttribute('aria-label', `${what}, ${label}`));
    name('[role="slider"]', 'Hue');
    name('.ant-color-picker-saturation [role="slider"], .ant-color-picker-select [role="slider"]', 'Lightness');
    name('.ant-color-picker-hex-input input, input[type="text"]', 'Hex value');
  });
  return <div ref={box}>{children}</div>;
}
