import { listDrawings } from '@/server/drawings';
import { Home } from './home/Home';

export const dynamic = 'force-dynamic';

export default function HomePage() {
  return <Home drawings={listDrawings()} binned={listDrawings(true)} now={Date.now()} />;
}
