'use client';

import { DeleteOutlined, SearchOutlined } from '@ant-design/icons';
import { Button, Input, Select } from 'antd';
import { formatCount } from '@/ui/format';
import { orders, type Order } from './found';

type Props = {
  text: string;
  onText: (text: string) => void;
  order: Order;
  onOrder: (order: Order) => void;
  binned: number;
  binOpen: boolean;
  onBin: (open: boolean) => void;
};

/** Finds one drawing among many, and leads to the bin and back. */
export const FindBar = ({ text, onText, order, onOrder, binned, binOpen, onBin }: Props) => (
  <div className="find-bar" role="search" aria-label="Drawings">
    <Input
      allowClear
      type="search"
      prefix={<SearchOutlined />}
      placeholder="Find by title or stage"
      aria-label="Find by title or stage"
      value={text}
      onChange={(e) => onText(e.target.value)}
    />
    <Select<Order>
      aria-label="Order"
      value={order}
      popupMatchSelectWidth={false}
      options={Object.entries(orders).map(([value, label]) => ({ value: value as Order, label }))}
      onChange={onOrder}
    />
    {(binned > 0 || binOpen) && (
      <Button icon={<DeleteOutlined />} aria-expanded={binOpen} onClick={() => onBin(!binOpen)}>
        {binOpen ? 'Back to the drawings' : `${formatCount(binned, 'drawing')} in the bin`}
      </Button>
    )}
  </div>
);
