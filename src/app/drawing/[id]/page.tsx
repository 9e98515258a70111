import { DrawingBench } from './DrawingBench';

export default async function DrawingPage({ params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  return <DrawingBench key={id} id={id} />;
}
