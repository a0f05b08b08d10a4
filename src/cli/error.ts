/** What went wrong, as the command line says it. */
import { wasCutShort } from '../core/sandbox/cut-short';
import { NoSuchOpening } from '../core/scenario/opening';
import { BrokenWorkspace, fileErrorInWords } from '../core/workspace/workspace';
import { InvalidCall } from './call';

export function errorInWords(error: unknown): string {
  if (error instanceof BrokenWorkspace) return `${error.errors.map(fileErrorInWords).join('\n')}\n`;
  if (error instanceof InvalidCall || error instanceof NoSuchOpening)
    return `tavro: ${error.message}\n`;
  if (wasCutShort(error))
    return 'tavro: this machine was too busy, so not everything was run, and nothing is said about the rest. Run it again.\n';
  if (process.env.TAVRO_DEBUG !== undefined)
    return `tavro: ${error instanceof Error ? (error.stack ?? error.message) : String(error)}\n`;
  return `tavro: something went wrong that should not: ${error instanceof Error ? error.message : String(error)}. TAVRO_DEBUG=1 shows where.\n`;
}
