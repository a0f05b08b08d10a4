/** Numbers in requests, in the ranges that the database holds. */
import * as z from 'zod';
import { LARGEST_INTEGER } from '../../core/limits';

/** The revision that somebody saw; 0 for what is not there yet. */
export const Revision = z.int().min(0).max(LARGEST_INTEGER);

/** The revision of something that is there. */
export const OfRevision = Revision.min(1);

/** Likewise in an address. */
export const RevisionInAddress = z.coerce.number().int().min(1).max(LARGEST_INTEGER);
