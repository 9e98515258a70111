import { PGlite } from '@electric-sql/pglite';
import NodeEnvironment from 'jest-environment-node';

declare global {
  /** PostgreSQL's own engine in this process, over a folder that it keeps its files in. */
  var openPostgres: (place: string) => Promise<PGlite>;
}

/** What tests run in that ask a PostgreSQL: the engine loads parts of itself as only the world outside of a test can. */
export default class PostgresEnvironment extends NodeEnvironment {
  override async setup(): Promise<void> {
    await super.setup();
    this.global.openPostgres = (place: string) => PGlite.create(place);
  }
}
