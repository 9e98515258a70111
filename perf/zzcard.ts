import * as d from './delivering';
import * as m from './meanwhile';
void (async () => { for (const [k, f] of Object.entries({ ...d, ...m })) if (typeof f === 'function') { try { console.log(k, JSON.stringify(await (f as any)(10000))); } catch (e) { console.log(k, String(e).slice(0, 200)); } } process.exit(0); })();
