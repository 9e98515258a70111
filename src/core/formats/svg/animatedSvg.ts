import { growBox } from '../../geometry/box';
import { decimal, outlineData, pathData } from '../pathData';
import type { Composition } from '../../deliver/composition';
import { plainSvgLook } from '../../deliver/delivery';
import { lineBox, runLength, widestHalf } from '../../drawing/run';
import type { Line } from '../../drawing/schema';
import { bodyOf, IN_FILES } from '../../ink/body';
import { momentsOf } from '../../replay/sceneAt';
import type { Moment, Timeline } from '../../replay/timing';
import { isFill } from '../../scene/halves';
import type { LineNode, Part } from '../../scene/scene';
import { Writer, type WriteSvgOptions } from './writeSvg';

/**
 * A drawing as SVG that draws itself: CSS alone moves it (CSS Animations 1, `stroke-dashoffset` over a `pathLength` of 1), so
 * that it plays from the file, also as an image. Where less motion is wanted it stands still, whole. It is drawn once.
 */
export function writeAnimatedSvg(
  composition: Composition,
  timeline: Timeline,
  options: Pick<WriteSvgOptions, 'pictureHref'> & { title?: string } = {},
): string {
  const writer = new AnimatedWriter(composition, { ...plainSvgLook, metadata: false }, options.pictureHref);
  writer.play(timeline);
  return writer.written(options.title);
}

const RULES =
  '@keyframes draw{from{stroke-dashoffset:1;visibility:visible}to{stroke-dashoffset:0;visibility:visible}}' +
  '@keyframes come{from{opacity:0}to{opacity:1}}' +
  '@media (prefers-reduced-motion:no-preference){' +
  '.d{stroke-dasharray:1 1;visibility:hidden;animation:draw 1s linear forwards}' +
  '.c{animation:come 1s linear both}}';

class AnimatedWriter extends Writer {
  private moments = momentsOf({ moments: [], total: 0 });

  play(timeline: Timeline): void {
    this.moments = momentsOf(timeline);
    this.rules.push(RULES);
  }

  protected override drawn(node: LineNode, laid: string): string {
    const { line, parts } = node;
    const pieces = parts.map((p) => (isFill(p) ? this.fill(line, p) : this.stroke(line, p)));
    return `<g${laid}>${pieces.join('')}</g>`;
  }

  protected override pictureMotion(id: string): string {
    return this.motion('c', this.moments.colours.get(id));
  }

  private fill(line: Line, part: Part): string {
    return `<path d="${pathData(line, this.precision)}"${this.area(part, line)} stroke="none"${this.motion('c', this.moments.colours.get(line.id))}/>`;
  }

  private stroke(line: Line, part: Part): string {
    const moment = this.moments.lines.get(line.id);
    const runs = this.runs(line, moment);
    if (part.kind === 'stroke' && !part.dash) {
      const { width, cap, join, miterLimit } = part;
      const look = `fill="none"${this.paint('stroke', part.ink, line.style.stroke)} stroke-width="${this.n(width)}" stroke-linecap="${cap}" stroke-linejoin="${join}"${miterLimit && join === 'miter' ? ` stroke-miterlimit="${this.n(miterLimit)}"` : ''}`;
      return runs.map(({ data, motion }) => `<path d="${data}" pathLength="1" ${look}${motion}/>`).join('');
    }
    // What is no plain stroke is uncovered by one that goes along its middle.
    const id = this.idFor('way', 'way');
    const { minX, minY, maxX, maxY } = growBox(lineBox(line), 1);
    const way = runs.map(({ data, motion }) => `<path d="${data}" pathLength="1"${motion}/>`).join('');
    const width = 2.6 * widestHalf(line) + 2 * (line.style.wobble ?? 0) + 1;
    this.defs.push(
      `<mask id="${id}" maskUnits="userSpaceOnUse" x="${this.n(minX)}" y="${this.n(minY)}" width="${this.n(maxX - minX)}" height="${this.n(maxY - minY)}"><g fill="none" stroke="#fff" stroke-width="${this.n(width)}" stroke-linecap="${line.style.overrun ? 'square' : 'round'}" stroke-linejoin="round">${way}</g></mask>`,
    );
    const body = outlineData(bodyOf(line, IN_FILES), this.precision);
    return `<path mask="url(#${id})" d="${body}"${this.paint('fill', part.ink, line.style.stroke)} stroke="none"/>`;
  }

  /** Each run by itself, after those before it: dashes begin anew with each. */
  private runs(line: Line, moment: Moment | undefined): { data: string; motion: string }[] {
    const lengths = line.runs.map(runLength);
    const whole = lengths.reduce((a, b) => a + b, 0) || 1;
    let before = 0;
    return line.runs.map((run, i) => {
      const [from, to] = [before / whole, (before + lengths[i]) / whole];
      before += lengths[i];
      const span = moment && moment.end - moment.start;
      const own = moment && { start: moment.start + from * span!, end: moment.start + to * span! };
      return { data: pathData({ ...line, runs: [run] }, this.precision), motion: this.motion('d', own) };
    });
  }

  private motion(name: 'c' | 'd', moment: Pick<Moment, 'start' | 'end'> | undefined): string {
    if (!moment) return '';
    const takes = Math.max(0.01, moment.end - moment.start);
    return ` class="${name}" style="animation-delay:${decimal(moment.start, 3)}s;animation-duration:${decimal(takes, 3)}s"`;
  }
}
