import { packedUrl } from '@/bench/state/api';
import { DrawingBench } from './DrawingBench';

/** The drawing is asked for with the page, while the bench that reads it is still on its way. */
export default async function DrawingPage({ params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  return (
    <>
      <link rel="preload" as="fetch" href={packedUrl(id)} crossOrigin="anonymous" />
      <DrawingBench key={id} id={id} />
    </>
  );
}
