import { preferences, prefer } from '../state/preferences';

/** After a pen was near, a touch within this time is the hand that holds it. */
const PALM_MS = 600;
/** A touch broader than this (CSS px) is no fingertip. */
const PALM_PX = 56;

type Touched = Pick<PointerEvent, 'pointerType' | 'width' | 'height' | 'timeStamp'>;

/** What fingers are for beside a pen: once one has been seen it draws, and a finger pans; a palm does nothing. */
export class Fingers {
  private penAt = -Infinity;

  /** Hears of everything that presses or moves. */
  hear({ pointerType, timeStamp }: Touched): void {
    if (pointerType !== 'pen') return;
    this.penAt = timeStamp;
    if (!preferences.getState().penSeen) prefer({ penSeen: true });
  }

  /** What a touch that begins is for. */
  of(e: Touched): 'draw' | 'pan' | 'nothing' {
    if (e.pointerType !== 'touch') return 'draw';
    if (Math.max(e.width ?? 0, e.height ?? 0) > PALM_PX || e.timeStamp - this.penAt < PALM_MS) return 'nothing';
    const { penSeen, fingerDraws } = preferences.getState();
    return penSeen && !fingerDraws ? 'pan' : 'draw';
  }
}
