import { keepingNow } from '@/server/keeping/keeper';
import { Keeping } from './Keeping';

export const dynamic = 'force-dynamic';

export default function KeepingPage() {
  return <Keeping first={keepingNow()} />;
}
