/** Events of the wheel that come closer to each other than this belong to one gesture. */
const PAUSE_MS = 180;

type Turn = Pick<WheelEvent, 'deltaMode' | 'deltaX' | 'deltaY' | 'ctrlKey' | 'metaKey' | 'timeStamp'>;

/**
 * What a turn of the wheel is for: a wheel zooms, two fingers on a trackpad pan, and their pinch (or Ctrl) zooms. Browsers do
 * not tell a wheel from a trackpad; wheels turn in whole steps, level only. It is decided at the first event of a gesture:
 * the fast part of a swipe looks like a wheel's.
 */
export class WheelGesture {
  private last = -Infinity;
  private isWheel = false;

  turn(e: Turn): 'pan' | 'zoom' | 'zoom by steps' {
    const isNew = e.timeStamp - this.last > PAUSE_MS;
    this.last = e.timeStamp;
    if (isNew) this.isWheel = looksLikeWheel(e);
    if (this.isWheel) return 'zoom by steps';
    return e.ctrlKey || e.metaKey ? 'zoom' : 'pan';
  }
}

const looksLikeWheel = (e: Turn): boolean =>
  e.deltaMode !== 0 || (e.deltaX === 0 && Math.abs(e.deltaY) >= 50 && Number.isInteger(e.deltaY));
