import { redirect } from 'next/navigation';
import { homeShelf } from '@/server/drawings';
import { keptWell, troubleNow } from '@/server/keeping/keeper';
import { Home } from './home/Home';

export const dynamic = 'force-dynamic';

export default function HomePage() {
  if (troubleNow()) redirect('/keeping');
  return <Home {...homeShelf()} keptWell={keptWell()} />;
}
