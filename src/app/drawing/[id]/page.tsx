import { headers } from 'next/headers';
import { putLastSeenScript } from '@/bench/state/lastSeen';
import { DrawingBench } from './DrawingBench';

export default async function DrawingPage({ params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  const nonce = /'nonce-([\w-]+)'/.exec((await headers()).get('content-security-policy') ?? '')?.[1];
  return (
    <>
      <DrawingBench key={id} id={id} />
      <script nonce={nonce} dangerouslySetInnerHTML={{ __html: putLastSeenScript('.opening .seen') }} />
    </>
  );
}
