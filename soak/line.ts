/** The line between a simulated browser and the server: it can be cut, loses answers, and notes what was acknowledged. */

export type Notes = {
  /** The changes of each request that was answered well: by which drawing they were taken. */
  readonly acknowledged: Map<string, string>;
  /** The drawings of their own that a change went into: put aside again, where the answer was lost, it is in several. */
  readonly aside: Map<string, Set<string>>;
};

const real = globalThis.fetch;

/** A change is in that drawing as well. */
export const noteAside = (all: Map<string, Set<string>>, change: string, aside: string): void =>
  void all.set(change, new Set(all.get(change)).add(aside));

export class Line {
  readonly notes: Notes = { acknowledged: new Map(), aside: new Map() };
  readonly asides = new Set<string>();
  /** While it is cut nothing goes through; some requests still reach the server, and their answers are lost. */
  isCut = false;
  trouble = '';

  constructor(
    private readonly base: string,
    private readonly random: () => number,
  ) {}

  readonly fetch = async (path: string, init?: RequestInit): Promise<Response> => {
    if (this.isCut && this.random() < 0.6) throw new TypeError('the line is cut');
    const response = await real(this.base + path, init).catch((error: Error) => {
      this.trouble = `${path}: ${error.message} ${String(error.cause)}`;
      throw error;
    });
    if (this.isCut) throw new TypeError('the answer was lost');
    const taken = /^\/api\/drawings\/([^/]+)\/(changes|aside)$/.exec(path);
    if (response.ok && taken && typeof init?.body === 'string') {
      const answer = (await response.clone().json()) as { id?: string };
      this.note(taken[1], taken[2] === 'aside' ? answer.id! : null, init.body);
    }
    return response;
  };

  private note(drawing: string, made: string | null, body: string): void {
    const { changes } = JSON.parse(body) as { changes: { id: string }[] };
    if (made) this.asides.add(made);
    const own = made ?? (this.asides.has(drawing) ? drawing : null);
    for (const { id } of changes)
      if (own) noteAside(this.notes.aside, id, own);
      else this.notes.acknowledged.set(id, drawing);
  }
}
