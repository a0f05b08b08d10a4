/** What a request that removes something says: the revision it was seen at. */
import * as z from 'zod';
import { RevisionInAddress } from './numbers';

export const Removing = z.strictObject({ from: RevisionInAddress });
