import { load } from './load';
load(50, 20).then((l) => {
  console.log(JSON.stringify(l));
  process.exit(0);
});
