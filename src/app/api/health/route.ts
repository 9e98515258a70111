import { route } from '@/server/http';
import packageJson from '../../../../package.json';

export const dynamic = 'force-dynamic';

export const GET = route(() => Response.json({ ok: true, version: packageJson.version }));
