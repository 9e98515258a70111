'use client';

import { Button, Modal } from 'antd';
import { useLayoutEffect, useState } from 'react';
import { Chip } from '@/ui/Chip';
import { usePreference } from '../benchContext';
import { conflictOf, keyCaps, keysOf, keysPressed, keyTable, rowOf, type KeyRow } from '../commands/keys';
import { prefer } from '../state/preferences';
import { PenPromise } from './PenPromise';

type Props = { open: boolean; onClose: () => void; startWalk: () => void };

/** All keys in one place. A key is changed by a click on it and a press of the new one; conflicts are told. */
export function KeysDialog({ open, onClose, startWalk }: Props) {
  const keys = usePreference('keys');
  const mirrored = usePreference('mirrored');
  const penSeen = usePreference('penSeen');
  const fingerDraws = usePreference('fingerDraws');
  const settings = { keys, mirrored };
  const [listening, setListening] = useState<string | null>(null);
  const [clash, setClash] = useState<{ id: string; wanted: string; other: KeyRow } | null>(null);

  // Heard of before the next key can be pressed, however quick the hand.
  useLayoutEffect(() => {
    if (!listening) return;
    const press = (e: KeyboardEvent): void => {
      e.preventDefault();
      e.stopPropagation();
      if (e.key === 'Escape') return setListening(null);
      const wanted = keysPressed(e);
      if (wanted === null) return;
      setListening(null);
      const other = conflictOf(wanted, listening, { keys, mirrored });
      if (other) setClash({ id: listening, wanted, other });
      else {
        setClash(null);
        prefer({ keys: { ...keys, [listening]: wanted } });
      }
    };
    window.addEventListener('keydown', press, true);
    return () => window.removeEventListener('keydown', press, true);
  }, [listening, keys, mirrored]);

  const swap = (): void => {
    if (!clash?.other.id) return;
    prefer({ keys: { ...keys, [clash.id]: clash.wanted, [clash.other.id]: keysOf(rowOf(clash.id), settings) } });
    setClash(null);
  };
  const close = (): void => {
    setListening(null);
    setClash(null);
    // The keys are the page's again at once, not when the dialog has faded.
    (document.activeElement as HTMLElement | null)?.blur();
    onClose();
  };
  return (
    <Modal title="Keys" open={open} onCancel={close} footer={null} width={860} keyboard={listening === null}>
      <div className="keys-head">
        <span>Click a key to change it, then press the new one.</span>
        <Chip
          on={mirrored}
          title="For a pen in the left hand: letters move to the other side of the board"
          onToggle={(on) => prefer({ mirrored: on })}
        >
          letters under the right hand
        </Chip>
        {penSeen && (
          <Chip
            on={fingerDraws}
            title="Off: the pen draws, and a finger pans"
            onToggle={(on) => prefer({ fingerDraws: on })}
          >
            a finger draws too
          </Chip>
        )}
        <Button size="small" disabled={Object.keys(keys).length === 0} onClick={() => prefer({ keys: {} })}>
          As they were at first
        </Button>
        <Button
          size="small"
          onClick={() => {
            close();
            startWalk();
          }}
        >
          Show me a first trace
        </Button>
      </div>
      {clash && (
        <p className="clash" role="alert">
          <Caps keys={clash.wanted} /> already stands for “{clash.other.what}”.
          {clash.other.id ? (
            <Button size="small" type="primary" onClick={swap}>
              Swap the two
            </Button>
          ) : (
            ' That one cannot be changed.'
          )}
          <Button size="small" onClick={() => setListening(clash.id)}>
            Another key
          </Button>
          <Button size="small" onClick={() => setClash(null)}>
            Leave it
          </Button>
        </p>
      )}
      <div className="keys">
        {keyTable.map(({ group, rows }) => (
          <section key={group}>
            <h3>{group}</h3>
            <dl>
              {rows.map((row) => (
                <div key={row.keys} className={row.id && row.id in keys ? 'changed' : ''}>
                  <dt>
                    {row.id ? (
                      <button
                        type="button"
                        className={listening === row.id ? 'listening' : ''}
                        onClick={() => setListening(row.id!)}
                      >
                        {listening === row.id ? 'press a key' : <Caps keys={keysOf(row, settings)} />}
                        <span className="said-only">{` Change the key for ${row.what}`}</span>
                      </button>
                    ) : (
                      <Caps keys={row.keys} />
                    )}
                  </dt>
                  <dd>
                    {row.what}
                    {row.id && row.id in keys && (
                      <button
                        type="button"
                        className="reset"
                        title={`Back to ${keyCaps(row.keys).join(' ')}`}
                        aria-label={`Give ${row.what} its first key again`}
                        onClick={() => {
                          const { [row.id!]: _, ...rest } = keys;
                          const other = conflictOf(row.keys, row.id!, { keys: rest, mirrored });
                          if (other) setClash({ id: row.id!, wanted: row.keys, other });
                          else prefer({ keys: rest });
                        }}
                      >
                        back
                      </button>
                    )}
                  </dd>
                </div>
              ))}
            </dl>
          </section>
        ))}
      </div>
      <PenPromise />
    </Modal>
  );
}

const Caps = ({ keys }: { keys: string }) => (
  <>
    {keyCaps(keys).map((k) => (
      <kbd key={k}>{k}</kbd>
    ))}
  </>
);
