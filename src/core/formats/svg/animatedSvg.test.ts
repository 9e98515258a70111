import { readSvg } from '../../index';
import { composed } from '../../deliver/composed';
import { firstDelivery } from '../../deliver/delivery';
import { timelineOf } from '../../replay/timing';
import { changed } from '../../test/svg/compared';
import { svgFeatures } from '../../test/svg/features';
import { writeAnimatedSvg } from './animatedSvg';
import { writeComposition } from './writeSvg';

test.each(['a badge', 'a landscape', 'clip of a group', 'dashes', 'stroke below fill', 'blends'])(
  '%s that draws itself is whole where nothing moves',
  async (name) => {
    const { drawing } = readSvg(svgFeatures.find(([n]) => n === name)![1]);
    const composition = composed(drawing, firstDelivery);
    const timeline = timelineOf(drawing, { length: 4, pause: 0.2 });
    const svg = writeAnimatedSvg(composition, timeline, { title: name });
    expect(await changed(writeComposition(composition, firstDelivery.svg), svg)).toBeLessThan(0.005);
    expect(svg).toContain('@media (prefers-reduced-motion:no-preference)');
    expect(svg).not.toMatch(/<script|<animate/);
    // Each element waits for its time; none is later than the end.
    const ends = [...svg.matchAll(/animation-delay:([\d.]+)s;animation-duration:([\d.]+)s/g)].map(
      ([, a, b]) => Number(a) + Number(b),
    );
    expect(ends.length).toBeGreaterThan(0);
    expect(Math.max(...ends)).toBeLessThan(4.02);
  },
);
