'use client';

import { CameraOutlined, FileAddOutlined, PictureOutlined, PrinterOutlined } from '@ant-design/icons';
import { Button, Dropdown, Upload } from 'antd';
import { useState } from 'react';
import { PICTURE_TYPES } from '@/bench/commands/desk';
import { CameraDialog } from '@/bench/panels/CameraDialog';
import { ScannerDialog } from '@/bench/panels/ScannerDialog';
import { pages, type Page } from './newDrawing';

type Props = {
  busy: boolean;
  fromPictures: (files: File[]) => void;
  fromSvg: (file: File) => void;
  fromPackage: (file: File) => void;
  blank: (page: Page) => void;
};

/** The ways to begin: a picture that is there, one that is taken or scanned now, lines that are there, a blank page. */
export function Beginnings({ busy, fromPictures, fromSvg, fromPackage, blank }: Props) {
  const [device, setDevice] = useState<'camera' | 'scanner' | null>(null);
  const close = (): void => setDevice(null);
  return (
    <div className="begin">
      <Upload
        accept={PICTURE_TYPES}
        multiple
        showUploadList={false}
        disabled={busy}
        beforeUpload={(file, all) => (file === all[0] && fromPictures(all), false)}
      >
        <Button type="primary" size="large" icon={<PictureOutlined />} loading={busy}>
          New from a picture
        </Button>
      </Upload>
      <Button size="large" icon={<CameraOutlined />} disabled={busy} onClick={() => setDevice('camera')}>
        Camera
      </Button>
      <Button size="large" icon={<PrinterOutlined />} disabled={busy} onClick={() => setDevice('scanner')}>
        Scanner
      </Button>
      <Upload
        accept=".svg,image/svg+xml"
        showUploadList={false}
        disabled={busy}
        beforeUpload={(file) => (fromSvg(file), false)}
      >
        <Button size="large" title="The lines of an SVG file, to be worked on" disabled={busy}>
          Lines of an SVG
        </Button>
      </Upload>
      <Upload
        accept=".yquill,.json"
        showUploadList={false}
        disabled={busy}
        beforeUpload={(file) => (fromPackage(file), false)}
      >
        <Button size="large" title="Drawings from another machine, with their histories and pictures" disabled={busy}>
          Open a package
        </Button>
      </Upload>
      <Dropdown
        trigger={['click']}
        menu={{
          items: Object.entries(pages).map(([key, { label }]) => ({ key, label })),
          onClick: ({ key }) => blank(pages[key].page),
        }}
      >
        <Button size="large" icon={<FileAddOutlined />} disabled={busy}>
          Blank page
        </Button>
      </Dropdown>
      <CameraDialog open={device === 'camera'} onClose={close} onKeep={fromPictures} />
      <ScannerDialog open={device === 'scanner'} onClose={close} onKeep={fromPictures} />
    </div>
  );
}
