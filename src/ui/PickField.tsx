'use client';

import { Select, type SelectProps } from 'antd';

/** One of a list. Once it is picked the keys are the page's again, or the next letter would open the list anew. */
export const PickField = <T extends string>(props: SelectProps<T>) => (
  <Select<T>
    size="small"
    {...props}
    onSelect={(value, option) => {
      props.onSelect?.(value, option);
      (document.activeElement as HTMLElement | null)?.blur();
    }}
  />
);
