import { headers } from 'next/headers';
import { showSightScript } from '@/bench/state/firstSight';
import { sightOf } from '@/core/scene/sight';
import { bareDrawing } from '@/server/journal';
import { DrawingBench } from './DrawingBench';

export default async function DrawingPage({ params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  const nonce = /'nonce-([\w-]+)'/.exec((await headers()).get('content-security-policy') ?? '')?.[1];
  const bare = await bareDrawing(id);
  return (
    <>
      <DrawingBench key={id} id={id} sight={bare && sightOf(bare)} />
      <script nonce={nonce} dangerouslySetInnerHTML={{ __html: showSightScript('.opening') }} />
    </>
  );
}
