import { crowd } from './crowd';
void crowd(Number(process.argv[2] ?? 10_000)).then((c) => console.log(JSON.stringify(c, null, 1)));
