import * as z from 'zod';
import { TITLE_CHARACTERS } from '../../core/limits';

/** The title of a form or a workspace, as people give it. */
export const Title = z.string().trim().min(1).max(TITLE_CHARACTERS);
