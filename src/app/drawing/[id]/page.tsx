import { sightOf } from '@/core/scene/sight';
import { bareDrawing } from '@/server/journal';
import { EarlyScript } from '../../EarlyScript';
import { DrawingBench } from './DrawingBench';

export default async function DrawingPage({ params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  const bare = await bareDrawing(id);
  return (
    <>
      <DrawingBench key={id} id={id} sight={bare && sightOf(bare)} />
      <EarlyScript name="show" />
    </>
  );
}
