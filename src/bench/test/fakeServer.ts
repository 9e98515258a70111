import type { Change } from '@/core';

const refusal = (status: number, more: object = {}): Response =>
  Response.json({ error: { code: 'no', message: `no (${status})`, ...more } }, { status });

/** A server that keeps a journal as ours does, and can be made to fail. */
export class FakeServer {
  journal: string[] = [];
  aside: string[][] = [];
  mode: 'up' | 'down' | 'answer lost' | 'broken' | 'empty answer' | 'busy' | 'silent' = 'up';
  requests = 0;
  /** The longest body that is taken. */
  mostBytes = Infinity;
  /** What the way aside answers with instead. */
  asideStatus: number | null = null;
  /** Called before a request to keep aside is answered. */
  whileAside = (): void => {};
  /** So many of those that are made aside are lost as soon as that was answered. */
  losesAsides = 0;
  /** A change that what was made aside will not have. */
  refusedAside = '';
  /** The drawings that were made aside, each with the ids of its changes. */
  drawings = new Map<string, string[]>();

  readonly fetch = async (path: string, init?: RequestInit): Promise<Response> => {
    this.requests++;
    if (this.mode === 'down') throw new TypeError('no connection');
    if (this.mode === 'broken') return refusal(500);
    if (this.mode === 'busy') return refusal(429);
    if (this.mode === 'empty answer') return Response.json({});
    if (path.includes('/packed')) return this.packed();
    if (!init?.body) return this.history(new URL(path, 'http://x').searchParams);
    const body = String(init.body);
    if (body.length > this.mostBytes) return refusal(413);
    const { base, after, changes } = JSON.parse(body) as { base: number; after?: string; changes: Change[] };
    const ids = changes.map((c) => c.id);
    if (path.endsWith('/aside')) {
      this.whileAside();
      if (this.asideStatus) return refusal(this.asideStatus);
      this.aside.push(ids);
      if (this.losesAsides-- > 0) this.drawings.delete('new');
      else this.drawings.set('new', [...ids]);
      return Response.json({ id: 'new', revision: 0, title: 'Test (kept aside)' }, { status: 201 });
    }
    if (path.includes('/new/')) {
      if (ids.includes(this.refusedAside)) return refusal(422);
      this.drawings.get('new')!.push(...ids);
      return Response.json({ revision: base + ids.length });
    }
    if (after !== undefined && base <= this.journal.length && base > 0 && this.journal[base - 1] !== after)
      return refusal(409, { revision: base - 1 });
    const known = ids.filter((id, i) => this.journal[base + i] === id).length;
    if (base + known !== this.journal.length) return refusal(409, { revision: this.journal.length });
    this.journal.push(...ids.slice(known));
    if (this.mode === 'answer lost') throw new TypeError('connection lost');
    if (this.mode === 'silent')
      await new Promise((_, reject) => init.signal?.addEventListener('abort', () => reject(new Error('called off'))));
    return Response.json({ revision: this.journal.length });
  };

  /** What was made aside, as a whole. */
  private packed(): Response {
    const ids = this.drawings.get('new');
    if (!ids) return refusal(404);
    return new Response(ids.join(' '), { headers: { 'x-drawing': encodeURIComponent('{"id":"new"}') } });
  }

  private history(asked: URLSearchParams): Response {
    const before = Math.min(Number(asked.get('before')), this.journal.length + 1);
    const from = Math.max(1, before - Number(asked.get('most') ?? 200));
    return Response.json({ from, changes: this.journal.slice(from - 1, before - 1).map((id) => ({ id })) });
  }
}
