import { route } from '@/server/http';
import { courierInUse } from '@/server/outbox/handIns';

/** Where work can be handed in. */
export const GET = route(async () => Response.json({ places: await courierInUse().places() }));
