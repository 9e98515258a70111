import { createServer } from 'node:http';
import type { AddressInfo } from 'node:net';
import { askFirst } from './firstRequests';

test('the server is asked for a page’s first visit, without its token; where it does not answer nothing is lost', async () => {
  const asked: string[] = [];
  const server = createServer(({ url, headers }, answer) => {
    asked.push(`${url} ${headers.authorization}`);
    answer.statusCode = 401;
    answer.end('none');
  });
  await new Promise<void>((listening) => void server.listen(0, '127.0.0.1', listening));
  process.env.PORT = String((server.address() as AddressInfo).port);
  process.env.YELLOW_QUILL_TOKEN = 'secret';
  await askFirst();
  expect(asked).toEqual(
    ['/', '/drawing/none', '/api/drawings', '/api/drawings/none/packed'].map((path) => `${path} undefined`),
  );
  await new Promise((closed) => server.close(closed));
  await expect(askFirst()).resolves.toBeUndefined();
  expect(asked).toHaveLength(4);
});
