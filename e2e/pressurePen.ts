import type { Point } from '../src/core';
import type { BenchHand } from './bench';

/** A pen with pressure over the page. */
export type PressurePen = {
  hover(p: Point): Promise<void>;
  press(p: Point, pressure: number): Promise<void>;
  move(p: Point, pressure: number): Promise<void>;
  release(p: Point): Promise<void>;
};

export async function pressurePen(hand: BenchHand): Promise<PressurePen> {
  const client = await hand.page.context().newCDPSession(hand.page);
  const send = async (type: string, p: Point, force: number): Promise<void> => {
    await client.send('Input.dispatchMouseEvent', {
      type: type as 'mousePressed',
      ...hand.at(p),
      button: type === 'mouseMoved' && force === 0 ? 'none' : 'left',
      buttons: force > 0 ? 1 : 0,
      pointerType: 'pen',
      force,
      tiltX: 20,
      clickCount: 1,
    });
  };
  return {
    hover: (p) => send('mouseMoved', p, 0),
    press: (p, pressure) => send('mousePressed', p, pressure),
    move: (p, pressure) => send('mouseMoved', p, pressure),
    release: (p) => send('mouseReleased', p, 0),
  };
}
