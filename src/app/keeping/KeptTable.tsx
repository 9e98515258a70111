import { Button, Popconfirm, Table, type TableColumnsType } from 'antd';
import type { ReactNode } from 'react';

/** A button whose deed is asked for once more before it is done. */
export function SureButton({ label, ask, about, danger = false, small = false, disabled, onSure }: Sure) {
  return (
    <Popconfirm title={ask} description={about} okText={label} onConfirm={onSure}>
      <Button {...(small && { size: 'small' })} danger={danger} disabled={disabled}>
        {label}
      </Button>
    </Popconfirm>
  );
}

type Sure = {
  label: string;
  ask: string;
  about: string;
  danger?: boolean;
  small?: boolean;
  disabled: boolean;
  onSure: () => void;
};

type Props<R> = { rows: readonly R[]; columns: TableColumnsType<R>; empty?: string; last: (row: R) => ReactNode };

/** What is kept under names, a dozen rows at a time, each with what can be done with it. */
export function KeptTable<R extends { readonly name: string }>({ rows, columns, empty, last }: Props<R>) {
  return (
    <Table<R>
      size="small"
      rowKey="name"
      dataSource={rows}
      pagination={rows.length > 12 ? { pageSize: 12 } : false}
      {...(empty && { locale: { emptyText: empty } })}
      columns={[...columns, { title: '', key: 'last', align: 'right', render: (_, row) => last(row) }]}
    />
  );
}
