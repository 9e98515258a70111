'use client';

import { NotShown } from '@/ui/NotShown';

/** What is shown where a page as a whole has failed. */
export default function Failed({ error, reset }: { error: Error; reset: () => void }) {
  return (
    <NotShown
      title="This page cannot be shown just now"
      why={`What was drawn is kept. ${error.message}`}
      again={reset}
    />
  );
}
