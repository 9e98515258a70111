'use client';

import { Input, Modal } from 'antd';
import { nanoid } from 'nanoid';
import { useState } from 'react';
import { addPlan, readPlan } from '@/core/edits/folders';
import { formatCount } from '@/ui/format';
import { useBench } from '../benchContext';

/** The parts to be drawn, written down in one go: sheets, and folders of sheets. */
export function PlanDialog({ open, onClose }: { open: boolean; onClose: () => void }) {
  const bench = useBench();
  const [text, setText] = useState('');
  const plan = readPlan(text);
  const count = plan.reduce((n, p) => n + p.sheets.length, 0);
  const add = (): void => {
    bench.commit(addPlan(bench.getState().drawing, plan, () => nanoid(10)));
    setText('');
    onClose();
  };
  return (
    <Modal
      title="Plan the parts"
      open={open}
      onCancel={onClose}
      onOk={add}
      okText={count === 0 ? 'Add sheets' : `Add ${formatCount(count, 'sheet')}`}
      okButtonProps={{ disabled: count === 0 }}
    >
      <p>Name what is to be drawn, the nearest first. Semicolons part the sheets; a colon makes a folder of them.</p>
      <Input.TextArea
        aria-label="Plan"
        autoFocus
        rows={3}
        placeholder="stem; leaves: left, right, veins; pear"
        value={text}
        onChange={(e) => setText(e.target.value)}
      />
      <ul className="plan">
        {plan.map((p, i) => (
          <li key={i}>
            {p.folder === null ? (
              p.sheets.join(', ')
            ) : (
              <>
                <b>{p.folder}</b>: {p.sheets.join(', ')}
              </>
            )}
          </li>
        ))}
      </ul>
    </Modal>
  );
}
