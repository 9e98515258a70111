import { expose } from 'comlink';
import { checks } from './checks';

expose(checks);
