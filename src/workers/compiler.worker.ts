/** The compiler's worker in a browser. */
import { expose } from 'comlink';
import { compilerCalls } from './compiler-serve';

expose(compilerCalls());
