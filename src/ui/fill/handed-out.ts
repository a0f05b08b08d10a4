/** A form as it comes to be filled in. */
import type { Material } from '@/core/session/material';
import type { Opening } from '@/core/session/step';

/** A form that was handed out, whether it fills the page or stands over the one it was opened from. */
export interface HandedOut {
  number: number;
  material: Material;
  /** Its ticket becomes a filling-in when something is entered. */
  handout: { ticket: string; opening: Opening };
  recordRevision: number | null;
}
