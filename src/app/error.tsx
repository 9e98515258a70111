'use client';

import { Button, Result } from 'antd';

/** What is shown where a page as a whole has failed. */
export default function Failed({ error, reset }: { error: Error; reset: () => void }) {
  return (
    <Result
      status="warning"
      title="This page cannot be shown just now"
      subTitle={`What was drawn is kept. ${error.message}`}
      extra={[
        <Button key="again" type="primary" onClick={reset}>
          Try again
        </Button>,
        <Button key="home" href="/">
          All drawings
        </Button>,
      ]}
    />
  );
}
