import * as z from 'zod';

/** The title of a form, as people give it. */
export const FormTitle = z.string().trim().min(1).max(120);
