'use client';

import { Button } from 'antd';
import { nanoid } from 'nanoid';
import { useRef } from 'react';
import { addSwatches, swatchesOf } from '@/core/edits/palette';
import { MOST_TEXT, paletteFormats, readPalette, writePalette, type PaletteFormat } from '@/core/formats/palette';
import { useBench, useBenchState } from '../../benchContext';

const kinds: Record<PaletteFormat, { label: string; ending: string; type: string }> = {
  css: { label: 'CSS', ending: 'css', type: 'text/css' },
  json: { label: 'JSON', ending: 'json', type: 'application/json' },
  hex: { label: 'hex list', ending: 'txt', type: 'text/plain' },
};

/** The palette saved as a file, in three open ways; and swatches brought in from such. */
export function PaletteFiles() {
  const bench = useBench();
  const file = useRef<HTMLInputElement>(null);
  const reading = useBenchState((s) => s.reading);
  const isEmpty = useBenchState((s) => swatchesOf(s.drawing).length === 0);
  const save = (format: PaletteFormat): void => {
    const { drawing, title } = bench.getState();
    const { type, ending } = kinds[format];
    const url = URL.createObjectURL(new Blob([writePalette(swatchesOf(drawing), format)], { type }));
    const link = Object.assign(document.createElement('a'), { href: url, download: `${title} palette.${ending}` });
    link.click();
    setTimeout(() => URL.revokeObjectURL(url), 10_000);
  };
  const bringIn = async (chosen: File): Promise<void> => {
    try {
      if (chosen.size > 4 * MOST_TEXT) throw new RangeError('it is too large for a palette');
      const fresh = readPalette(await chosen.text());
      const group = chosen.name.replace(/\.[a-z0-9]+$/i, '');
      const named = fresh.map((s) => ({ ...s, group: s.group ?? group }));
      bench.commit(addSwatches(bench.getState().drawing, named, () => nanoid(10)));
    } catch (error) {
      const why = error instanceof RangeError ? error.message : 'it cannot be read';
      bench.tell(`“${chosen.name}” is no palette: ${why}. Nothing was changed.`, undefined, 'warning');
    }
  };
  return (
    <div className="palette-files">
      <Button size="small" disabled={reading} onClick={() => file.current?.click()}>
        Bring in…
      </Button>
      <input
        ref={file}
        type="file"
        accept=".css,.json,.txt,.hex"
        aria-label="A palette to bring in"
        hidden
        onChange={(e) => {
          const [chosen] = e.target.files ?? [];
          if (chosen) void bringIn(chosen);
          e.target.value = '';
        }}
      />
      {!isEmpty && (
        <span className="buttons" role="group" aria-label="Save the palette as">
          <span className="option-label">save as</span>
          {paletteFormats.map((format) => (
            <Button key={format} size="small" onClick={() => save(format)}>
              {kinds[format].label}
            </Button>
          ))}
        </span>
      )}
    </div>
  );
}
