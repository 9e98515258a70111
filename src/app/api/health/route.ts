import packageJson from '../../../../package.json';

export const dynamic = 'force-dynamic';

export const GET = () => Response.json({ ok: true, version: packageJson.version });
