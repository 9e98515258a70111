/**
 * Writes the style sheet of the components that the pages use, in our theme, so that no page makes it in the browser:
 * `tsx scripts/componentStyles.tsx`. A build does so first.
 */
import { extractStyle } from '@ant-design/static-style-extract';
import * as antd from 'antd';
import { ConfigProvider } from 'antd';
import { build } from 'esbuild';
import { readdirSync, readFileSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { fileURLToPath } from 'node:url';
import { theme } from '../src/ui/theme';

const root = fileURLToPath(new URL('..', import.meta.url));

/** The names of what the pages import. */
function named(): string[] {
  const names = new Set<string>();
  for (const file of readdirSync(path.join(root, 'src'), { recursive: true, encoding: 'utf8' })) {
    if (!file.endsWith('.tsx')) continue;
    const text = readFileSync(path.join(root, 'src', file), 'utf8');
    for (const [, list] of text.matchAll(/^import \{([^}]{1,2000})\} from 'antd';/gm))
      for (const name of list.split(',')) if (!/^\s*type\s|^\s*$/.test(name)) names.add(name.trim());
  }
  return [...names];
}

/** The folders of all components that those are made of: the ones whose style would be made. */
async function styled(names: readonly string[]): Promise<string[]> {
  const { metafile } = await build({
    stdin: { contents: `export { ${names.join(', ')} } from 'antd';`, resolveDir: root },
    bundle: true,
    write: false,
    metafile: true,
    logLevel: 'error',
  });
  const used = Object.values(metafile.outputs).flatMap(({ inputs }) => Object.keys(inputs));
  const folders = used.map((file) => /antd\/es\/([\w-]+)\/style\/index\.js$/.exec(file)?.[1]);
  return [...new Set(folders.filter((f) => f !== undefined))];
}

const plain = (name: string): string => name.replaceAll('-', '').toLowerCase();

async function write(): Promise<void> {
  const folders = (await styled(named())).map(plain);
  const includes = Object.keys(antd).filter((name) => folders.includes(plain(name)));
  const sheet = extractStyle({
    includes,
    customTheme: (components) => <ConfigProvider theme={{ ...theme, zeroRuntime: false }}>{components}</ConfigProvider>,
  });
  writeFileSync(path.join(root, 'src/ui/componentStyles.css'), `/* Made by scripts/componentStyles.tsx */\n${sheet}\n`);
  process.stdout.write(`Styles of ${includes.length} components, ${Math.round(sheet.length / 1024)} KB\n`);
}

void write();
