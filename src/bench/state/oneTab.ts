/** One tab edits a drawing, the others read: a Web Lock says who, a channel tells readers of what was saved. */
export type Tenancy = { release(): void; takeOver(): void; announce(revision: number): void };

type Listener = { onEditing(): void; onReading(): void; onNews(revision: number): void };

export function enter(drawing: string, listener: Listener): Tenancy {
  const name = `yellow-quill-drawing-${drawing}`;
  const channel = new BroadcastChannel(name);
  channel.onmessage = (e) => listener.onNews(Number(e.data));
  let letGo = (): void => {};
  let left = false;

  const hold = (options: LockOptions): void => {
    navigator.locks
      .request(name, options, (lock) => {
        if (left) return undefined;
        if (!lock) {
          listener.onReading();
          return undefined;
        }
        listener.onEditing();
        return new Promise<void>((resolve) => (letGo = resolve));
      })
      // The lock was taken by another tab.
      .catch(() => !left && listener.onReading());
  };
  hold({ ifAvailable: true });

  return {
    release() {
      left = true;
      letGo();
      channel.close();
    },
    takeOver: () => hold({ steal: true }),
    announce: (revision) => channel.postMessage(revision),
  };
}
