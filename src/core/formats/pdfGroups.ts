import type { Blend } from '../drawing/paint';
import { inverseOf } from '../geometry/matrix';

/**
 * What a PDF library leaves to its users: transparency groups and optional layers (ISO 32000-1, 11.6.6 and 8.11). Both are put
 * together of the objects that the library writes.
 */
type Reference = { data: Record<string, unknown>; write(text: string): void; end(text?: string): void };
type Page = {
  dictionary: Reference;
  content: Reference;
  resources: Reference;
  width: number;
  height: number;
  xobjects: Record<string, Reference>;
  ext_gstates: Record<string, Reference>;
};
export type PdfDocument = Omit<PDFKit.PDFDocument, 'page'> & {
  addContent(text: string): PdfDocument;
  page: Page;
  _ctm: number[];
  _root: Reference;
};

const names = new WeakMap<object, number>();
const nameFor = (doc: PdfDocument, kind: string): string => {
  const count = (names.get(doc) ?? 0) + 1;
  names.set(doc, count);
  return `${kind}${count}`;
};

/** PDF's names for how things are blended (table 136). */
const blendName = (blend: Blend): string =>
  blend === 'normal'
    ? 'Normal'
    : blend
        .split('-')
        .map((w) => w[0].toUpperCase() + w.slice(1))
        .join('');

/** What is drawn as one, laid over what is below with an opacity and a blend. */
export function asGroup(doc: PdfDocument, opacity: number, blend: Blend, draw: () => void): void {
  const { page } = doc;
  const form = doc.ref({
    Type: 'XObject',
    Subtype: 'Form',
    BBox: [0, 0, page.width, page.height],
    Group: { Type: 'Group', S: 'Transparency', I: true, K: false, CS: 'DeviceRGB' },
    Resources: page.resources,
  } as never) as unknown as Reference;
  const around = page.content;
  // The form is drawn from the page's own origin, so that what is placed by that (gradients) is where it belongs.
  const [a, b, c, d, e, f] = doc._ctm;
  page.content = form;
  doc.addContent(`${figures([a, b, c, d, e, f])} cm`);
  try {
    draw();
  } finally {
    page.content = around;
  }
  form.end();
  const state = doc.ref({
    Type: 'ExtGState',
    ca: opacity,
    CA: opacity,
    BM: blendName(blend),
  } as never) as unknown as Reference;
  state.end();
  const [group, look] = [nameFor(doc, 'Grp'), nameFor(doc, 'Lay')];
  page.xobjects[group] = form;
  page.ext_gstates[look] = state;
  const back = inverseOf({ a, b, c, d, e, f });
  doc.addContent(`q ${figures([back.a, back.b, back.c, back.d, back.e, back.f])} cm /${look} gs /${group} Do Q`);
}

const figures = (v: readonly number[]): string => v.map((x) => Math.round(x * 1e8) / 1e8).join(' ');

type Properties = { OCGs: Reference[]; D: { Order: Reference[]; ON: Reference[] } };

/** What is drawn as an optional layer of the document, which can be put off by its name. */
export function asOptionalLayer(doc: PdfDocument, name: string, draw: () => void): void {
  const layer = doc.ref({ Type: 'OCG', Name: new String(name) } as never) as unknown as Reference;
  layer.end();
  const known = doc._root.data.OCProperties as Properties | undefined;
  const all = known ?? { OCGs: [], D: { Order: [], ON: [] } };
  doc._root.data.OCProperties = all;
  all.OCGs.push(layer);
  all.D.ON.push(layer);
  // The uppermost is listed first.
  all.D.Order.unshift(layer);
  const key = nameFor(doc, 'Oc');
  const resources = doc.page.resources.data as { Properties?: Record<string, Reference> };
  (resources.Properties ??= {})[key] = layer;
  doc.addContent(`/OC /${key} BDC`);
  draw();
  doc.addContent('EMC');
}
