/** A behaviour that is right, and looks like one that is not. */
import type { FormName } from './forms';

export interface RightOne {
  about: string;
  form: FormName;
  code: string;
}

export const right = (about: string, form: FormName, code: string): RightOne => ({
  about,
  form,
  code: code.trim(),
});
