/** What kind of field it is, in the words people read in hovers and outlines. */
import type { Field } from './definition';

export function kindInWords(field: Field): string {
  switch (field.kind) {
    case 'text':
      return field.format === undefined ? 'text' : field.format === 'email' ? 'e-mail address' : 'web address';
    case 'number':
      return field.unit === undefined ? 'number' : `number in ${field.unit}`;
    case 'money':
      return field.currency === undefined ? 'money' : `money in ${field.currency}`;
    case 'date':
      return 'date, YYYY-MM-DD';
    case 'yes_no':
      return 'yes or no; null until answered';
    case 'choice':
      return 'choice';
    case 'reference':
      return `key of a row of ${field.table}`;
  }
}
