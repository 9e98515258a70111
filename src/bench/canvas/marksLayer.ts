import Konva from 'konva/lib/Core';

/** A layer that is drawn with every move of a hand; what can be taken hold of in it is drawn only while there is any. */
export class MarksLayer extends Konva.Layer {
  private hasHolds = true;

  override drawHit(...to: Parameters<Konva.Layer['drawHit']>): this {
    const had = this.hasHolds;
    this.hasHolds = this.children.some((c) => c.visible() && c.listening());
    // Once more when there is none any longer, so that nothing stays to be held.
    return this.hasHolds || had ? super.drawHit(...to) : this;
  }
}
