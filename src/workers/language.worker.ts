/** The language worker in a browser. */
import { expose } from 'comlink';
import { languageCalls } from './language-serve';

expose(languageCalls());
