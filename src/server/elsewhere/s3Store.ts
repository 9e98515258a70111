import { createReadStream, createWriteStream } from 'node:fs';
import { stat } from 'node:fs/promises';
import type { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import {
  DeleteObjectsCommand,
  GetObjectCommand,
  ListObjectsV2Command,
  NoSuchKey,
  PutObjectCommand,
  S3Client,
} from '@aws-sdk/client-s3';
import { whereOf, type Kept, type ObjectStore } from './objectStore';

/** How long nobody may answer, ms. */
const PATIENCE_MS = 20_000;
const REACHED_MS = 4_000;
const quiet = (): void => undefined;
/** So many can be removed by one request. */
const MOST_REMOVED = 1_000;

/**
 * A store that speaks S3, at `https://host/bucket/prefix`. What is sent carries its SHA-256, which the store compares before it
 * keeps it. A file is sent by one request: 5 GB are the most.
 */
export function s3Store(address: URL): ObjectStore {
  const [, bucket, ...rest] = address.pathname.split('/');
  if (!bucket) throw new Error(`YELLOW_QUILL_STORE names no bucket: ${address.origin}/bucket is wanted.`);
  const root = rest
    .filter(Boolean)
    .map((part) => `${part}/`)
    .join('');
  // What the client has to say of itself is nothing that whoever keeps drawings must hear.
  process.env.AWS_SDK_JS_NODE_VERSION_SUPPORT_WARNING_DISABLED = 'true';
  const client = new S3Client({
    logger: { debug: quiet, info: quiet, warn: quiet, error: quiet },
    endpoint: address.origin,
    region: process.env.YELLOW_QUILL_STORE_REGION ?? 'us-east-1',
    forcePathStyle: true,
    credentials: {
      accessKeyId: process.env.YELLOW_QUILL_STORE_KEY ?? '',
      secretAccessKey: process.env.YELLOW_QUILL_STORE_SECRET ?? '',
    },
    // Checksums that every such store knows, and not the newest ones of one of them.
    requestChecksumCalculation: 'WHEN_REQUIRED',
    responseChecksumValidation: 'WHEN_REQUIRED',
    requestHandler: { connectionTimeout: REACHED_MS, requestTimeout: PATIENCE_MS, throwOnRequestTimeout: true },
    maxAttempts: 2,
  });
  return {
    where: whereOf(address.href),
    async put(name, file, sha256) {
      await client.send(
        new PutObjectCommand({
          Bucket: bucket,
          Key: root + name,
          Body: createReadStream(file),
          ContentLength: (await stat(file)).size,
          ChecksumSHA256: Buffer.from(sha256, 'hex').toString('base64'),
        }),
      );
    },
    async get(name, file) {
      try {
        const { Body } = await client.send(new GetObjectCommand({ Bucket: bucket, Key: root + name }));
        await pipeline(Body as Readable, createWriteStream(file));
        return true;
      } catch (error) {
        if (error instanceof NoSuchKey) return false;
        throw error;
      }
    },
    async list(under) {
      const found = new Map<string, Kept>();
      for (let token: string | undefined; ;) {
        const page = await client.send(
          new ListObjectsV2Command({ Bucket: bucket, Prefix: root + under, ContinuationToken: token }),
        );
        for (const { Key, Size, LastModified } of page.Contents ?? [])
          if (Key) found.set(Key.slice(root.length), { bytes: Size ?? 0, at: LastModified?.getTime() ?? Date.now() });
        token = page.NextContinuationToken;
        if (!page.IsTruncated || !token) return found;
      }
    },
    async remove(names) {
      for (let i = 0; i < names.length; i += MOST_REMOVED) {
        const Objects = names.slice(i, i + MOST_REMOVED).map((name) => ({ Key: root + name }));
        const { Errors } = await client.send(
          new DeleteObjectsCommand({ Bucket: bucket, Delete: { Objects, Quiet: true } }),
        );
        if (Errors?.length) throw new Error(Errors[0].Message ?? 'The store would not remove it.');
      }
    },
  };
}
