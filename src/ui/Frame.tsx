'use client';

import { App, ConfigProvider } from 'antd';
import type { ReactNode } from 'react';
import { theme } from './theme';

/** The look of everything: our tokens for Ant Design. */
export const Frame = ({ children }: { children: ReactNode }) => (
  <ConfigProvider theme={theme} wave={{ disabled: true }}>
    <App>{children}</App>
  </ConfigProvider>
);
