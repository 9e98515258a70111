import { AntdRegistry } from '@ant-design/nextjs-registry';
import '@fontsource-variable/figtree';
import type { Metadata } from 'next';
import type { ReactNode } from 'react';
import { Frame } from '@/ui/Frame';
import { EarlyScript } from './EarlyScript';
import '@/ui/componentStyles.css';
import '@/ui/style.css';

export const metadata: Metadata = { title: 'Yellow Quill', description: 'A bench for tracing pictures by hand.' };

export default function Layout({ children }: { children: ReactNode }) {
  return (
    <html lang="en">
      <head>
        <EarlyScript name="begin" />
      </head>
      <body>
        <AntdRegistry>
          <Frame>{children}</Frame>
        </AntdRegistry>
      </body>
    </html>
  );
}
