/** The tasks in a thread of the server's pool. */
export { runTask as default } from './tasks';
