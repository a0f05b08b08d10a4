import * as z from 'zod';
import { TITLE_CHARACTERS } from '../../core/limits';

/** The title of a form, as people give it. */
export const FormTitle = z.string().trim().min(1).max(TITLE_CHARACTERS);
