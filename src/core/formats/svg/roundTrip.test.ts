import { drawingSchema, readSvg, writeSvg } from '../../index';
import { changed } from '../../test/svg/compared';
import { svgFeatures } from '../../test/svg/features';

/** What no renderer at hand knows: it is looked at by its places. */
const unknownToBoth = ['css transform', 'dashes by path length', 'constant width', 'variables'];

test.each(svgFeatures.filter(([name]) => !unknownToBoth.includes(name)))(
  '%s goes in and out and looks the same',
  async (_, text) => {
    const { drawing, dropped } = readSvg(text);
    expect(drawingSchema.safeParse(drawing).error).toBeUndefined();
    const again = writeSvg(drawing);
    const share = await changed(text, again);
    expect({ changed: share < 0.005 ? 0 : share, dropped }).toEqual({ changed: 0, dropped: expect.any(Array) });
    // And what we wrote ourselves comes back as it was.
    expect(await changed(again, writeSvg(readSvg(again).drawing))).toBeLessThan(0.005);
  },
);
