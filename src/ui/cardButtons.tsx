'use client';

import { DeleteOutlined, EyeInvisibleOutlined, EyeOutlined, LockOutlined, UnlockOutlined } from '@ant-design/icons';
import { Button } from 'antd';

type Props = { what: string; disabled?: boolean; onClick: () => void };

/** The small buttons that sheets and references have in common. `what` is the name of the thing. */

export const ShowButton = ({ what, shown, ...rest }: Props & { shown: boolean }) => (
  <Button
    type="text"
    size="small"
    icon={shown ? <EyeOutlined /> : <EyeInvisibleOutlined />}
    aria-label={`${shown ? 'Hide' : 'Show'} ${what}`}
    title={shown ? 'Hide' : 'Show'}
    {...rest}
  />
);

export const LockButton = ({ what, locked, ...rest }: Props & { locked: boolean }) => (
  <Button
    type="text"
    size="small"
    icon={locked ? <LockOutlined /> : <UnlockOutlined />}
    aria-label={`${locked ? 'Unlock' : 'Lock'} ${what}`}
    title={locked ? 'Unlock' : 'Lock'}
    {...rest}
  />
);

export const RemoveButton = ({ what, verb, ...rest }: Props & { verb: [before: string, after: string] }) => (
  <Button
    type="text"
    size="small"
    className="on-hover"
    icon={<DeleteOutlined />}
    aria-label={`${verb[0]} ${what} ${verb[1]}`.trim()}
    title={verb.join(' ').trim()}
    {...rest}
  />
);
