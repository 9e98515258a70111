'use client';

import { Modal } from 'antd';
import { keyCaps, keyTable } from '../state/keys';

/** All keys in one place. */
export function KeysDialog({ open, onClose }: { open: boolean; onClose: () => void }) {
  return (
    <Modal title="Keys" open={open} onCancel={onClose} footer={null} width={720}>
      <div className="keys">
        {keyTable.map(({ group, rows }) => (
          <section key={group}>
            <h3>{group}</h3>
            <dl>
              {rows.map((r) => (
                <div key={r.keys}>
                  <dt>
                    {keyCaps(r.keys).map((k) => (
                      <kbd key={k}>{k}</kbd>
                    ))}
                  </dt>
                  <dd>{r.what}</dd>
                </div>
              ))}
            </dl>
          </section>
        ))}
      </div>
    </Modal>
  );
}
