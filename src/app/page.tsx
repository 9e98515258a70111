import { homeShelf } from '@/server/drawings';
import { Home } from './home/Home';

export const dynamic = 'force-dynamic';

export default function HomePage() {
  return <Home {...homeShelf()} />;
}
